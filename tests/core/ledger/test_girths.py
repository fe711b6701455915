"""Girths follow the closed piece: what a dart takes is no cloth at any level, wherever it opens."""

from __future__ import annotations

import math

import pytest
import shapely

from tests.drafted import BODIES, EASE, ROOM, body, drafted_value, room_block
from tests.samples import move, worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.piece.heights import cloth_at, level_walk

STATIONS = (
    "centre_bust", "centre_neck", "mid_neck", "mid_shoulder", "shoulder_tip", "mid_armhole", "side_bust", "french",
    "side_waist", "centre_waist", "waist",
)  # fmt: skip


@pytest.mark.parametrize("bust", [760.0, 830.0, 910.0, 1000.0, 1180.0, 1400.0])
def test_a_side_dart_on_the_bust_line_takes_no_cloth(bust: float) -> None:
    """The draft lays off a quarter of the bust and the ease there, to the upper leg: common practice, no source. It was told to
    be narrower by the whole dart: 616 mm round a bust of 914."""
    pattern = block_file.pattern(block_file.from_value(drafted_value(bust), "drafted"))
    front, m = pattern.piece("front"), body(bust)
    upper = front.corner("underarm")[1] + 25.4
    assert front.levels["bust"] > upper  # else the leg slants, and the draft lays off nothing on the bust line
    assert cloth_at(front, front.levels["bust"]) == pytest.approx(bust / 4.0 + EASE, abs=1e-4)
    back = pattern.piece("back")
    y, tip, low = back.levels["bust"], back.landmarks["waist_tip"], m["bwl"]
    bite = 25.4 * (y - tip[1]) / (low - tip[1])  # the back dart at that level, by proportion
    side = back.edge("side_seam").runs[0].path
    x = side.start[0] + (side.end[0] - side.start[0]) * (y - side.start[1]) / (side.end[1] - side.start[1])
    whole = 2.0 * (bust / 4.0 + EASE + x - bite)
    assert girths(pattern, pattern).bust == pytest.approx(whole, abs=1e-3)


def test_the_real_block_with_a_side_dart() -> None:
    """From CF to the bust point and along the dart's leg: measured from the block file, and 914 mm of bust with its ease."""
    value = ROOM["side and waist 91"]()
    front, back = value["pieces"]
    (x, y), mouth = front["landmarks"]["bust_point"], front["darts"][0]["mouth"]
    half = x + math.dist((x, y), mouth[0])
    dart = next(d for d in back["darts"] if d["id"] == "waist")
    outline = shapely.Polygon([(0, 22), (0, 420), (211.75, 416), (232.5, 215.333333), (180, 100)])
    wedge = shapely.Polygon([dart["point"], *dart["mouth"]])
    level = shapely.LineString([(-5, y), (400, y)])
    behind = level.intersection(outline).length - level.intersection(wedge).length
    pattern = block_file.pattern(room_block("side and waist 91"))
    found = girths(pattern, pattern).bust or 0.0
    assert found == pytest.approx(2.0 * (half + behind), abs=0.1) and 914.0 < found < 960.0


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("station", STATIONS)
def test_moving_a_dart_leaves_the_girths(name: str, station: str) -> None:
    pattern = block_file.pattern(room_block(name))
    upper = "shoulder" if name.startswith("two") else "side"
    before = girths(pattern, pattern)
    after = girths(worked([move(upper, station), move("waist", station)], pattern).pattern, pattern)
    assert after.bust == before.bust and after.waist == pytest.approx(before.waist, abs=1e-6)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("station", STATIONS)
def test_a_level_meets_a_dart_at_its_partner_point(name: str, station: str) -> None:
    """Whatever leg a level comes to, it goes on as far from the pivot on the other: no stretch of it lies in a dart."""
    pattern = block_file.pattern(room_block(name))
    upper = "shoulder" if name.startswith("two") else "side"
    piece = worked([move(upper, station), move("waist", station)], pattern).pattern.piece("front")
    pin = piece.pivot("bust_point")
    wedges = [shapely.Polygon([pin, *piece.mouth(dart.id)]).buffer(-1e-3) for dart in piece.darts]
    for level in ("bust", "under_bust"):
        walk = level_walk(piece, piece.levels[level])
        assert walk is not None
        for start, stop in walk.stretches:
            assert not any(wedge.intersects(shapely.LineString([start, stop])) for wedge in wedges)
        for (_a, end), (begin, _b) in zip(walk.stretches, walk.stretches[1:], strict=False):
            assert math.dist(end, pin) == pytest.approx(math.dist(begin, pin), abs=1e-3)


def test_bodies_are_in_order() -> None:
    assert list(BODIES) == sorted(BODIES)
