"""Twists on ten blocks: drawn out by pi w / 4, square beyond the centre, gathered to the width, a slit where the centre was.
Common practice, no source; the extension by own geometry."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from tests.core.steps.test_drape_cowl import BLOCKS, block, done, made
from tests.samples import real_block
from tests.sheets import lines
from zesty_pivot.core.procedures.twists import extension


def twist(**more: Any) -> dict[str, Any]:
    return {"do": "drape.twist", "on": "front", **more}


def test_the_extension_is_half_the_way_half_round_the_other_bundle() -> None:
    """Walked in small chords: the middle of a bundle w/2 thick, half round another of the same, there and back."""
    for width in (30.0, 50.0, 84.0):
        turn = np.linspace(0.0, math.pi, 20001)
        way = (width / 4.0 + width / 4.0) * np.stack([np.cos(turn), np.sin(turn)])
        assert extension(width) == pytest.approx(np.hypot(*np.diff(way)).sum() / 2.0, rel=1e-6)


@pytest.mark.parametrize("name", BLOCKS)
def test_a_twist_on_every_block(name: str) -> None:
    found = done(block(name), twist())
    front = next(piece for piece in found.pieces if piece.name == "front")
    drawn = {id: paths[0] for id, paths in lines(front).items() if id.startswith("twist") and paths}
    assert front.cut == "pair" and found.pattern.piece("front").fold is None
    told = next(n.amount_mm for n in found.derivation.states[-1].notes if "a slit of" in n.text)
    assert told is not None
    for side in ("twist_lower", "twist_upper"):
        assert drawn[side].length() == pytest.approx(math.pi * told / 4.0, abs=0.01)
    slit = drawn["twist.slit"]
    assert slit.length() <= told + 0.01
    # The tab lies outside the centre, to the left on a half, and leaves it square above and below.
    tab, lower = drawn["twist"], drawn["twist_lower"]
    middle, cut = tab.point(0.5), slit.point(0.5)
    assert middle.x < cut.x - 0.5 * math.pi * told / 4.0
    centre = lines(front)["centre"][0]
    way = np.array([centre.point(1.0).x - centre.point(0.0).x, centre.point(1.0).y - centre.point(0.0).y])
    out = np.array([lower.point(1.0).x - lower.point(0.0).x, lower.point(1.0).y - lower.point(0.0).y])
    assert abs(float(way @ out)) / np.hypot(*way) / np.hypot(*out) < 1e-4
    (account,) = [a for a in found.look.accounts if a.piece == "front" and a.pivot == "bust_point"]
    assert {entry.use for entry in account.placed} == {"drape"}


def test_refused_in_one_sentence() -> None:
    for step, what, advice in (
        (twist(width="1 cm"), "a twist 1.0 cm wide", "Enter 1.5 cm"),
        (twist(width="18 cm"), "the edge that is gathered to it", "lead more darts to it"),
    ):
        ((_number, error),) = made(real_block(), step).derivation.broken
        assert what in error.what and advice in error.advice
    unfolded = made(real_block(), {"do": "piece.unfold", "on": "front"}, twist())
    assert "does not lie on the fold" in unfolded.derivation.broken[0][1].what
    bare = made(real_block(), twist(), twist())
    assert "does not lie on the fold" in bare.derivation.broken[0][1].what
