"""Width taken at the top given back outside, on six blocks: a fair armhole, and no width where none was taken."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import shapely

from tests.core.steps.test_even_intake import apart
from tests.core.steps.test_fair_lines import turns
from tests.drafted import ROOM, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.recipe import Derivation

EVERY = 2.0  # mm between the points of a polyline


def cut(name: str, **asked: Any) -> Derivation:
    return worked([{"do": "line.princess", "on": "front", "ease": "0", **asked}], block_file.pattern(room_block(name)))


def natural(name: str) -> float:
    """How far the darts alone open the upper end, mm."""
    made = cut(name, give_back="none").pattern
    lines = [[run.path for run in made.piece(f"front_{of}").runs if run.edge == "princess"] for of in ("centre", "side")]
    return math.dist(lines[0][0].start, lines[1][-1].end)


def points(piece: Piece, role: str) -> np.ndarray:
    found: np.ndarray = np.concatenate([run.path.flatten(0.0005) for run in piece.runs if piece.role(run.edge) == role])
    return found


def evenly(line: np.ndarray) -> np.ndarray:
    line = line[np.concatenate([[True], np.hypot(*np.diff(line, axis=0).T) > 1e-6])]
    at = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    places = np.arange(0.0, at[-1], EVERY)
    found: np.ndarray = np.stack([np.interp(places, at, line[:, k]) for k in (0, 1)], axis=1)
    return found


def fairness(piece: Piece) -> tuple[float, float]:
    """The armhole's least radius over 4 mm (mm), and how far it bends the other way in all (radians)."""
    by = turns(evenly(points(piece, "armhole")))
    way = math.copysign(1.0, float(by.sum()))
    return float(2.0 * EVERY / np.abs(by[:-1] + by[1:]).max()), float(np.clip(-way * by, 0.0, None).sum())


def width(pattern: Pattern, y: float) -> float:
    """What both panels measure across at a height, by Shapely."""
    level = shapely.LineString([(-900.0, y), (1500.0, y)])
    rings = [shapely.Polygon(np.concatenate([run.path.flatten(0.01) for run in p.runs])) for p in pattern.come_from("front")]
    return float(sum(shapely.intersection(shapely.make_valid(ring), level).length for ring in rings))


@pytest.mark.parametrize("where", ["outside", "underarm"])
@pytest.mark.parametrize("name", ROOM)
def test_the_armhole_stays_fair(name: str, where: str) -> None:
    """It had a radius of 16 mm and three inflections."""
    top = natural(name) + 25.4
    found = cut(name, top=f"{top} mm", give_back=where)
    side = found.pattern.piece("front_side")
    before, after = fairness(block_file.pattern(room_block(name)).piece("front")), fairness(side)
    assert after[0] > 0.85 * before[0]
    assert after[1] < before[1] + math.radians(1.0)
    plain = cut(name, give_back="none", top=f"{top} mm").pattern.piece("front_side")
    ways = [line[-1] - line[-2] for line in (points(plain, "armhole"), points(side, "armhole"))]  # at the underarm
    assert [math.atan2(way[1], way[0]) for way in ways] == [pytest.approx(math.atan2(ways[0][1], ways[0][0]), abs=0.01)] * 2
    shoulders = [sum(p.edge("shoulder").sewn_length for p in made.pattern.come_from("front")) for made in (found, cut(name))]
    assert shoulders[0] == pytest.approx(shoulders[1], abs=0.15)  # the plain line's ends are led to meet as well


@pytest.mark.parametrize("name", ROOM)
def test_the_bust_is_no_wider_for_what_the_shoulder_lost(name: str) -> None:
    """A shoulder intake given back at the underarm as well widened the bust by 2.7 cm."""
    top = natural(name) + 25.4
    front = block_file.pattern(room_block(name)).piece("front")
    bust = front.levels["bust"]
    for dart in front.darts:
        if front.dart_edge(dart.id) == "side_seam":  # shut, it swings the bust line of the side down to its lower leg
            bust = max(bust, *(float(at[1]) for at in front.mouth(dart.id)))
    plain, both = (cut(name, top=f"{top} mm", give_back=where) for where in ("none", "underarm"))
    for y in (bust + 0.01, bust + 40.0):
        assert width(both.pattern, y) == pytest.approx(width(plain.pattern, y), abs=0.1)


@pytest.mark.parametrize("name", ROOM)
def test_what_the_chest_lost_goes_out_at_the_underarm(name: str) -> None:
    """A hollow taken in at the chest line: the underarm goes out by what the seam took at its height on the block; with a side
    dart shut it lies lower on the panel, and got back as good as nothing."""
    chest = room_block(name).pieces[0].levels["chest"] + 0.01
    under = float(block_file.pattern(room_block(name)).piece("front").corner("underarm")[1])
    plain = panels(cut(name, give_back="none"))
    asked = {"top": f"{natural(name) + 25.4} mm", "chest": f"{apart(plain, chest) + 20.0} mm"}
    none, out = (panels(cut(name, give_back=where, **asked)) for where in ("none", "underarm"))
    one, two = (made[1].corner("underarm") for made in (none, out))
    sides = [made[1].edge("side_seam").sewn_length for made in (none, out)]
    assert sides[1] == pytest.approx(sides[0], abs=0.05)  # swung out, not drawn longer than its partner
    there = apart(none, under) - apart(panels(cut(name, give_back="none", smooth="0")), under)  # the block's width is kept
    block = block_file.pattern(room_block(name)).piece("front")
    ways = [points(piece, "armhole")[-1] - points(piece, "armhole")[-2] for piece in (block, none[1])]
    swung = math.atan2(ways[1][1], ways[1][0]) - math.atan2(ways[0][1], ways[0][0])  # with the shut dart
    along = (two - one) @ (math.cos(swung), math.sin(swung))
    assert along == pytest.approx(max(there, 0.0), abs=0.2)  # the last chords of the armhole are not quite its end


def panels(made: Derivation) -> tuple[Piece, Piece]:
    return made.pattern.piece("front_centre"), made.pattern.piece("front_side")
