"""Places as far from the centre as the bust point, or as another dart: axes that lie equally far out."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from tests.samples import style, worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.piece import Pattern


def block(name: str) -> Pattern:
    return block_file.pattern(room_block(name))


def moved(dart: str, to: dict[str, Any], share: str = "100%") -> dict[str, Any]:
    return {"do": "dart.move", "on": "front", "dart": dart, "to": to, "share": share}


@pytest.mark.parametrize("name", ROOM)
def test_as_far_from_cf_as_the_bust_point(name: str) -> None:
    """The leg that stays with the centre begins exactly above the bust point."""
    upper = "shoulder" if name.startswith("two") else "side"
    piece = worked([moved(upper, {"edge": "shoulder", "as_far_as": "bust_point"})], block(name)).pattern.piece("front")
    nearest = min(float(end[0]) for end in piece.mouth(upper))
    assert nearest == pytest.approx(piece.landmarks["bust_point"][0], abs=1e-6)


@pytest.mark.parametrize("name", ROOM)
def test_in_the_mouth_of_a_dart_it_is_that_dart(name: str) -> None:
    upper = "shoulder" if name.startswith("two") else "side"
    before = block(name).piece("front")
    x = before.landmarks["bust_point"][0]
    low, high = sorted(float(end[0]) for end in before.mouth("waist"))
    after = worked([moved(upper, {"edge": "waist", "as_far_as": "bust_point"})], block(name)).pattern.piece("front")
    assert len(after.darts) == (1 if low <= x <= high else 2)


@pytest.mark.parametrize("name", ["two darts 93", "side and waist 91", "two darts 76"])
def test_two_equal_mouths_have_their_axes_equally_far_out(name: str) -> None:
    """One dart to CF neck and waist with equal mouths: common practice, no source."""
    upper = "shoulder" if name.startswith("two") else "side"
    parts = [{"to": {"edge": "neckline", "as_far_as": "waist"}}, {"to": {"dart": "waist"}}]
    piece = worked([{"do": "dart.split", "on": "front", "dart": upper, "equal": True, "parts": parts}], block(name))
    front = piece.pattern.piece("front")
    one, two = (front.mouth(dart.id) for dart in front.darts)
    assert np.hypot(*(one[1] - one[0])) == pytest.approx(np.hypot(*(two[1] - two[0])), abs=0.5)
    assert float(np.mean(one, axis=0)[0]) == pytest.approx(float(np.mean(two, axis=0)[0]), abs=0.25)


def test_what_is_not_there_is_said() -> None:
    for what, said in (
        ("bust_point", "It lies 0.0 cm to 7.7 cm from it, that 9.4 cm."),
        ("bust_pont", "Did you mean 'bust_point'?"),
    ):
        found = derive(style([moved("shoulder", {"edge": "neckline", "as_far_as": what})]))
        assert said in str(found.derivation.broken[0][1]), what
    with pytest.raises(ValueError, match="needs one of"):
        style([moved("shoulder", {"edge": "neckline", "as_far_as": "waist", "at": "5%"})])
