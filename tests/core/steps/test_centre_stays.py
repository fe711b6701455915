"""CF and CB of a half stay where they are and point where they point, whatever is slashed, flared or closed; and the starting
values of a flare do on every block, with darts in the way too."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import svgelements

from tests.drafted import ROOM, room_block
from tests.samples import hip_pattern, move, worked
from tests.sheets import lines
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Pattern, Piece, Use
from zesty_pivot.core.quantity import Scope

BLOCKS = [*ROOM, "hip"]

AT_THE_SIDE = {"at": {"edge": "LOWER", "at": "15%"}, "hinge": {"edge": "side_seam", "at": "85%"}}
BESIDE_THE_CENTRE = {"at": {"edge": "LOWER", "from": "CENTRE", "at": "3 cm"}, "hinge": {"edge": "neckline", "at": "30%"}}

SLASHES = {
    "spread at the side": {**AT_THE_SIDE, "by": "2 cm"},
    "spread beside the centre": {**BESIDE_THE_CENTRE, "by": "3 cm"},
    "closed at the side": {**AT_THE_SIDE, "by": "-1 cm"},
    "closed beside the centre": {**BESIDE_THE_CENTRE, "by": "-1 cm"},
}


def pattern_of(name: str) -> Pattern:
    return hip_pattern() if name == "hip" else block_file.pattern(room_block(name))


def lower(piece: Piece) -> str:
    return "hem" if piece.is_hip_length else "waist"


def centre(piece: Piece) -> np.ndarray:
    """Both ends of the centre line on the written sheet, in the piece's frame: the sheet is shifted, so the way between."""
    read = lines(finish_piece(piece, Finish(), Scope("cm"), "T"))
    found: list[svgelements.Path] = read["centre"]
    first, last = found[0].point(0.0), found[-1].point(1.0)
    return np.array([last.x - first.x, last.y - first.y])


def stays(before: Piece, after: Piece) -> None:
    """The centre's ends are where they were, and on the sheet it points straight up."""
    one, two = (piece.edge("centre").runs for piece in (before, after))
    assert math.dist(one[0].path.start, two[0].path.start) < 1e-9 and math.dist(one[-1].path.end, two[-1].path.end) < 1e-9
    way, old = centre(after), centre(before)
    assert np.abs(way - old).max() < 1e-3


def filled(value: Any, piece: Piece) -> Any:
    if isinstance(value, dict):
        return {key: filled(part, piece) for key, part in value.items()}
    end = "centre_hem" if piece.is_hip_length else "centre_waist"
    return {"LOWER": lower(piece), "CENTRE": end}.get(value, value)


@pytest.mark.parametrize("name", BLOCKS)
@pytest.mark.parametrize("on", ["front", "back"])
@pytest.mark.parametrize("kind", SLASHES)
def test_a_slash_leaves_the_centre_alone(name: str, on: str, kind: str) -> None:
    block = pattern_of(name)
    before = block.piece(on)
    step = {"do": "fullness.slash", "on": on, **filled(SLASHES[kind], before)}
    stays(before, worked([step], block).pattern.piece(on))


@pytest.mark.parametrize("name", BLOCKS)
@pytest.mark.parametrize("on", ["front", "back"])
@pytest.mark.parametrize("more", [{}, {"darts": "feed"}, {"count": 1}, {"count": 5, "by": "2 cm"}])
def test_the_starting_values_of_a_flare_do_everywhere(name: str, on: str, more: dict[str, Any]) -> None:
    """They were refused where a dart stood in the way, and turned CF by 5 to 34 degrees where not."""
    block = pattern_of(name)
    before = block.piece(on)
    found = worked([{"do": "fullness.flare", "on": on, **more}], block)
    after = found.pattern.piece(on)
    stays(before, after)
    flares = sum(after.intake(dart.id) for dart in after.darts if dart.use is Use.FLARE)
    longer = after.edge(lower(after)).sewn_length + flares - before.edge(lower(before)).sewn_length
    wanted = more.get("count", 3) * float(str(more.get("by", "3 cm")).split()[0]) * 10.0
    if "darts" in more:  # a dart gives what it has
        assert 60.0 < longer < wanted + 0.5
    else:
        assert longer == pytest.approx(wanted, abs=1e-6)
    uneven = max((abs(one - two) for one, two in (before.legs(dart.id) for dart in before.darts)), default=0.0)
    for edge, role in before.roles:
        if role not in ("waist", "hem"):  # legs that were not equal are made so
            assert after.edge(edge).sewn_length == pytest.approx(before.edge(edge).sewn_length, abs=1e-6 + uneven)
    assert all(account.is_whole for account in accounts(found.pattern, block))


@pytest.mark.parametrize("station", ["mid_shoulder", "mid_armhole", "side_bust", "french", "mid_neck", "centre_bust"])
@pytest.mark.parametrize("name", ["two darts 93", "side and waist 91", "drafted 124"])
def test_a_flare_goes_round_a_dart_wherever_it_opens(name: str, station: str) -> None:
    upper = "shoulder" if name.startswith("two") else "side"
    merged = [{"do": "dart.merge", "on": "front", "darts": ["waist", upper]}, move("waist", station)]
    block = pattern_of(name)
    before = worked(merged, block).pattern.piece("front")
    found = worked([*merged, {"do": "fullness.flare", "on": "front"}], block)
    after = found.pattern.piece("front")
    stays(before, after)
    assert after.angle("waist") == pytest.approx(before.angle("waist"), abs=1e-9)
    assert after.dart_edge("waist") == before.dart_edge("waist")
    grows = after.edge("waist").sewn_length - before.edge("waist").sewn_length
    assert grows == pytest.approx(90.0, abs=1e-6)


@pytest.mark.parametrize("name", ["side and waist 91", "side and waist 140", "drafted 88"])
def test_a_dart_in_the_way_feeds_the_slashes(name: str) -> None:
    """What the side dart gives is gone from it, and stays open in the waist: the account says so."""
    block = pattern_of(name)
    found = worked([{"do": "fullness.flare", "on": "front", "darts": "feed", "by": "2 cm"}], block)
    after, before = found.pattern.piece("front"), block.piece("front")
    flares = [dart for dart in after.darts if dart.use is Use.FLARE]
    assert flares
    left = after.angle("side") if after.has_dart("side") and after.dart("side").use is Use.DART else 0.0
    assert left < before.angle("side")
    given = sum(after.angle(dart.id) for dart in flares)
    assert left + given == pytest.approx(before.angle("side"), abs=1e-9)


@pytest.mark.parametrize("name", BLOCKS)
@pytest.mark.parametrize("count", [1, 2, 4])
def test_slashes_hang_straight_down(name: str, count: int) -> None:
    """A slash of a hair shows where it was cut: its hinge lies straight above its beginning, as far from CB."""
    found = worked([{"do": "fullness.flare", "on": "back", "by": "0.01 mm", "count": count}], pattern_of(name))
    piece = found.pattern.piece("back")
    joints = [run.path.end for index, run in enumerate(piece.runs) if piece.runs[piece.after(index)].source.edge == "spread"]
    assert len(joints) == count
    upper = [run.path.end for run in piece.runs if piece.role(run.edge) in ("neckline", "shoulder", "armhole", "side_seam")]
    for joint in joints:
        assert min(abs(float(end[0] - joint[0])) for end in upper) < 0.1
