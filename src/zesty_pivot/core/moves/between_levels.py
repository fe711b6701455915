"""Intake between levels: two lines moved aside so that it changes evenly from one asked intake to the next."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Mapping, Sequence

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.shaping import Knot, fair_slopes
from zesty_pivot.core.piece.heights import crossings
from zesty_pivot.core.record import record

APART = 8.0  # mm between heights at which the intake is held, at most. Our own choice
ROUNDS = 3  # times that what is off is put right: each leaves less than a tenth of it
STEP = 0.5  # mm to either side over which a rate is measured
CLOSE = 0.02  # mm that it may be off: a fifth of what can be seen on paper


@record
class Aim:
    """A height (y, mm) where two lines are `apart` mm; `is_asked` where that is more or less than the darts give. `uneven` is
    how much (mm) more than half of what is taken comes off the left line."""

    y: float
    apart: float
    is_asked: bool
    uneven: float = 0.0


Lines = tuple[list[Path], list[Path]]
Knots = tuple[list[Knot], list[Knot]]


@record
class Course:
    """How far two lines are apart and how unevenly that is taken: at `heights` (y and mm) between asked intakes, and how fast
    both change (mm a mm) at the heights of the intakes themselves."""

    heights: tuple[tuple[float, float, float], ...]
    rates: tuple[tuple[float, float, float], ...]


def course(aims: Sequence[Aim], pivots: Sequence[float]) -> Course | None:
    """A monotone cubic through all asked intakes, so that between two that are equal it is the same everywhere; None where
    there are no two on one side of a pivot. Towards a pivot, where the intake is none, the darts decide."""
    marks = sorted([*aims, *(Aim(y, 0.0, is_asked=False) for y in pivots)], key=lambda aim: aim.y)
    if len(marks) < 2 or any(after.y - before.y < 1.0 for before, after in itertools.pairwise(marks)):
        return None
    at, apart, uneven = ([getattr(mark, name) for mark in marks] for name in ("y", "apart", "uneven"))
    slopes, leans = fair_slopes(at, apart), fair_slopes(at, uneven)
    heights: list[tuple[float, float, float]] = []
    rates: dict[float, tuple[float, float]] = {}
    for number, (above, below) in enumerate(itertools.pairwise(marks)):
        if above.y in pivots or below.y in pivots or not (above.is_asked or below.is_asked):
            continue
        size = below.y - above.y
        count = math.ceil(size / APART)
        for t in (np.arange(1, count) / count).tolist():
            h, u = (
                _hermite(t, of[number], rate[number] * size, of[number + 1], rate[number + 1] * size)
                for of, rate in ((apart, slopes), (uneven, leans))
            )
            heights.append((above.y + t * size, h, u))
        rates[above.y], rates[below.y] = (slopes[number], leans[number]), (slopes[number + 1], leans[number + 1])
    return Course(tuple(heights), tuple((y, rate, lean) for y, (rate, lean) in rates.items())) if heights else None


def _hermite(t: float, a: float, m: float, b: float, n: float) -> float:
    return a * (2 * t**3 - 3 * t**2 + 1) + m * (t**3 - 2 * t**2 + t) + b * (3 * t**2 - 2 * t**3) + n * (t**3 - t**2)


Slopes = dict[float, Vector]


def held(
    stretches: tuple[Sequence[Path], Sequence[Path]],
    knots: Knots,
    wanted: Course,
    draw: Callable[[Knots, tuple[Slopes, Slopes]], Lines],
) -> Lines:
    """Two lines as `draw` gives them, with knots added to both until they are as far apart as is wanted.

    `stretches` are the lines (the left one first) before they are moved aside, `knots` where they are moved to.
    """
    places: dict[float, tuple[float, float]] = {}
    aside: dict[float, float] = {}
    for y, apart, _uneven in wanted.heights:
        met = _met(stretches, y)
        if met is not None and all(_is_clear(at, mine) for at, mine in zip(met, knots, strict=False)):
            places[y], aside[y] = met[:2], apart - met[2]
    slopes = _slopes(stretches, wanted)
    asked = {y: apart for y, apart, _uneven in wanted.heights}
    more = {y: uneven for y, _apart, uneven in wanted.heights}
    for _ in range(ROUNDS):
        left, right = ({y: by / 2.0 + way * more[y] for y, by in aside.items()} for way in (1.0, -1.0))
        to = _with(knots[0], places, left, 0), _with(knots[1], places, right, 1)
        lines = draw(to, (_evenly(to[0], places, 0) | slopes[0], _evenly(to[1], places, 1) | slopes[1]))
        found = {y: _met(lines, y) for y in places}
        off = {y: asked[y] - met[2] for y, met in found.items() if met is not None}
        if max((abs(by) for by in off.values()), default=0.0) <= CLOSE:
            break
        aside = {y: by + off.get(y, 0.0) for y, by in aside.items()}
    return lines


def _is_clear(at: float, knots: Sequence[Knot]) -> bool:
    """Whether a place on a line keeps clear of its knots: a line that has to do two things within a few mm swings."""
    return all(abs(at - s) > APART / 2.0 for s, _by in knots)


def _met(lines: tuple[Sequence[Path], Sequence[Path]], y: float) -> tuple[float, float, float] | None:
    """Where a height crosses both lines: the distance along each, and how far they are apart there."""
    hits = [crossings(line, y) for line in lines]
    return (hits[0][0][0], hits[1][0][0], hits[1][0][1] - hits[0][0][1]) if all(hits) else None


def _slopes(stretches: tuple[Sequence[Path], Sequence[Path]], wanted: Course) -> tuple[Slopes, Slopes]:
    """How fast each line must go aside at the asked intakes: its part of what the darts do not give."""
    found: tuple[Slopes, Slopes] = ({}, {})
    for y, rate, lean in wanted.rates:
        above, at, below = (_met(stretches, y + by) for by in (-STEP, 0.0, STEP))
        if above is None or at is None or below is None:
            continue  # an end of the lines
        more = rate - (below[2] - above[2]) / (2.0 * STEP)
        for side, way in ((0, -1.0), (1, 1.0)):
            down = 2.0 * STEP / (below[side] - above[side])
            found[side][at[side]] = np.array([(way * more / 2.0 - lean) * down, 0.0])
    return found


def _evenly(knots: Sequence[Knot], places: Mapping[float, tuple[float, float]], side: int) -> Slopes:
    """How fast a line goes aside at the heights between: as a parabola through the knots on both sides does, without a wave."""
    known = sorted(knots, key=lambda knot: knot[0])
    at = [s for s, _by in known]
    rates = np.gradient(np.array([by for _s, by in known]), at, axis=0)
    between = {there[side] for there in places.values()}
    return {s: rate for s, rate in zip(at, rates, strict=True) if s in between}


def _with(
    knots: Sequence[Knot], places: Mapping[float, tuple[float, float]], aside: Mapping[float, float], side: int
) -> list[Knot]:  # fmt: skip
    """One line's knots with those at the heights: what it is taken aside there, and up or down as the knots around."""
    known = sorted(knots, key=lambda knot: knot[0])
    way = 1.0 if side else -1.0
    found = [*knots]
    for y, at in places.items():
        down = float(np.interp(at[side], [s for s, _by in known], [by[1] for _s, by in known]))
        found.append((at[side], np.array([way * aside[y], down])))
    return found
