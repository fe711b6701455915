"""Fair curves: princess lines over the bust on ten blocks of 76 to 140 cm, their bends counted on polylines by NumPy."""

from __future__ import annotations

import functools
import itertools
import math
from typing import Any

import numpy as np
import pytest

from tests.core.steps.panels import checked
from tests.drafted import ROOM, drafted_value, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.recipe import Derivation

DRAFTED = {f"drafted {bust / 10:.0f}": bust for bust in (760.0, 1000.0, 1120.0, 1400.0)}
BLOCKS = [*ROOM, *DRAFTED]
STARTS = ("mid_shoulder", "mid_armhole", "mid_neck")
PASTS = ("0", "-1 cm", "1 cm", "2.5 cm")

EVERY = 2.0  # mm between the points of a polyline
LEAST_SIDE, LEAST_CENTRE = 45.0, 150.0  # mm of radius
SEEN_TURN, SEEN_OFF = math.radians(1.0), 0.3  # mm: a bend of less is not seen, a pencil line is as thick


@functools.lru_cache(maxsize=16)
def block(name: str) -> BlockFile:
    return block_file.from_value(drafted_value(DRAFTED[name]), name) if name in DRAFTED else room_block(name)


def cut(name: str, start: str = "mid_shoulder", **asked: Any) -> Derivation:
    step = {"do": "line.princess", "on": "front", "from": {"station": start}, **asked}
    return worked([step], block_file.pattern(block(name)))


def polyline(panel: Piece) -> np.ndarray:
    """A panel's line as points 2 mm apart, by interpolation on a fine flattening."""
    runs = [run.path.flatten(0.0005) for run in panel.runs if panel.role(run.edge) == "style_line"]
    points = np.concatenate(runs)
    points = points[np.concatenate([[True], np.hypot(*np.diff(points, axis=0).T) > 1e-6])]
    at = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    places = np.arange(0.0, at[-1], EVERY)
    found: np.ndarray = np.stack([np.interp(places, at, points[:, k]) for k in (0, 1)], axis=1)
    return found


def turns(points: np.ndarray) -> np.ndarray:
    """The turn (radians) at each inner point."""
    steps = np.diff(points, axis=0)
    ways = np.arctan2(steps[:, 1], steps[:, 0])
    found: np.ndarray = (np.diff(ways) + np.pi) % (2.0 * np.pi) - np.pi
    return found


def radius(panel: Piece) -> float:
    """The least radius, over 4 mm of the line."""
    by = turns(polyline(panel))
    return float(2.0 * EVERY / np.abs(by[:-1] + by[1:]).max())


def inflections(panel: Piece) -> int:
    """How often the line bends the other way, where that can be seen."""
    found: list[list[float]] = []  # length and turn of stretches that bend one way
    for by in turns(polyline(panel)):
        if found and (found[-1][1] >= 0.0) == (by >= 0.0):
            found[-1][0] += EVERY
            found[-1][1] += by
        else:
            found.append([EVERY, by])
    while len(found) > 1:
        seen = [min(abs(turn) / SEEN_TURN, abs(turn) * size / 8.0 / SEEN_OFF) for size, turn in found]
        least = int(np.argmin(seen))
        if seen[least] >= 1.0:
            break
        near = found[max(least - 1, 0) : least + 2]
        found[max(least - 1, 0) : least + 2] = [[sum(size for size, _t in near), sum(turn for _s, turn in near)]]
    return len(found) - 1


# Every block from every start through the point, and each of these beside it once.
LINES = [
    (name, start, past)
    for n, name in enumerate(BLOCKS)
    for m, start in enumerate(STARTS)
    for k, past in enumerate(PASTS)
    if k == 0 or (n + m + k) % 3 == 0
]


@pytest.mark.parametrize(("name", "start", "past"), LINES)
def test_a_line_over_the_bust_is_fair(name: str, start: str, past: str) -> None:
    """1 cm past the point had a nick of 6 mm with a radius of 1 to 2 mm; there were up to six inflections."""
    found = cut(name, start, past=past).pattern
    centre, side = found.piece("front_centre"), found.piece("front_side")
    assert radius(side) > LEAST_SIDE and radius(centre) > LEAST_CENTRE
    assert inflections(side) <= 2 and inflections(centre) == 0


def test_the_count_sees_a_wave_and_a_nick() -> None:
    """The counting itself: on a line that is waved, and on one with a corner left in it."""
    sharp = cut("drafted 88", smooth="0").pattern
    assert radius(sharp.piece("front_side")) < 20.0
    waved = cut("drafted 88", bow_above="2 cm", bow_below="-2 cm").pattern
    assert inflections(waved.piece("front_side")) > 2


@pytest.mark.parametrize("past", ["-1 cm", "1 cm", "2.5 cm"])
@pytest.mark.parametrize("name", list(ROOM))
def test_darts_beside_the_line_are_bent_to_it(name: str, past: str) -> None:
    """As hands do: mouths kept, nothing left over; what that does to the angle stands in the account, and is told."""
    block_pattern = block_file.pattern(block(name))
    found = cut(name, past=past, ease="0")
    assert not found.pattern.piece("front_centre").darts and not found.pattern.piece("front_side").darts
    account = next(one for one in accounts(found.pattern, block_pattern) if one.pivot == "bust_point")
    assert account.is_whole and [entry.use for entry in account.placed] == ["seam"]
    assert 0.0 < abs(account.added_deg) < 4.0
    assert any("bent to the line" in note.text for note in found.states[-1].notes)
    front = block_pattern.piece("front")
    point = front.landmarks["bust_point"]
    held = [panel for panel in found.pattern.come_from("front") if "bust_point" in panel.landmarks]
    assert [panel.name for panel in held] == ["front_side" if past.startswith("-") else "front_centre"]
    if not past.startswith("-"):
        assert held[0].landmarks["bust_point"] == pytest.approx(point, abs=1e-6)
    assert waist(found.pattern) == pytest.approx(waist(cut(name, ease="0").pattern), abs=0.7)


def waist(pattern: Pattern) -> float:
    return sum(piece.edge("waist").sewn_length for piece in pattern.come_from("front"))


# The check.


def test_a_corner_and_a_wave_are_found() -> None:
    sharp = [one for one in checked(cut("drafted 88", smooth="0")) if one.check == "fair_lines"]
    assert [(one.piece, one.value, one.limit) for one in sharp] == [("front_side", 0.0, 20.0)]
    assert not [one for one in checked(cut("drafted 88")) if one.check == "fair_lines"]
    waved = cut("side and waist 91", under_bust="5 cm", waist="0", chest="2 cm", top="0", smooth="6 cm")
    found = [one for one in checked(waved) if one.check == "fair_lines"]
    assert found and all(one.value < 20.0 or one.value > 5 for one in found)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
def test_a_trued_waist_of_panels_is_one_curve(name: str, on: str) -> None:
    """The side panel laid to the centre panel at the lower end of the seam, the waist walked from CF to the side: no corner at
    the seam, no bend under 25 mm, no more than the block's own S."""
    trued = {"do": "piece.true_seam", "on": f"{on}_centre", "other": f"{on}_side", "seam": "style_line", "edge": "waist"}
    line = {"do": "line.princess", "on": on}
    pattern = worked([line, trued], block_file.pattern(room_block(name))).pattern
    ends, waists = [], []
    for part, is_side in (("centre", False), ("side", True)):
        panel = pattern.piece(f"{on}_{part}")
        seam = polyline(panel)
        seam = seam[::-1] if is_side else seam
        ends.append((seam[-1], math.atan2(*(seam[-1] - seam[-3])[::-1])))
        waists.append(np.concatenate([run.path.flatten(0.0005) for run in panel.runs if panel.role(run.edge) == "waist"]))
    (to, angle), (start, mine) = ends
    c, s = math.cos(angle - mine), math.sin(angle - mine)
    laid = (waists[1] - start) @ np.array([[c, s], [-s, c]]) + to
    # The seams' last 2 mm are straight lines in `polyline`: the joint is closed over that.
    waist = np.concatenate([laid[:-1], waists[0] + (laid[-1] - waists[0][0])])
    at = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(waist, axis=0).T))])
    keep = np.concatenate([[True], np.diff(at) > 1e-6])
    places = np.arange(0.0, at[-1], 6.0)
    by = turns(np.stack([np.interp(places, at[keep], waist[keep, k]) for k in (0, 1)], axis=1))
    assert 12.0 / np.abs(by[:-1] + by[1:]).max() > 25.0
    seen = [math.copysign(1.0, sum(by[k : k + 6])) for k in range(0, len(by), 6) if abs(sum(by[k : k + 6])) > math.radians(1.5)]
    assert sum(one != two for one, two in itertools.pairwise(seen)) <= 2
