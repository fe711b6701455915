"""Gathered edges: the edge through the strips of a slashed piece drawn as one smooth line, raised in the middle when asked."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import unit
from zesty_pivot.core.moves.folded_edge import NOTHING
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.record import replace

ALONE = 15.0  # mm to either side that the edge is led over a single slash. Our own choice

Item = tuple[Run, tuple[int, int] | None]


def smoothed(items: Sequence[Item], raised_mm: float) -> tuple[Run, ...]:
    """The ring with each row of strips drawn through: `items` are runs with the slash passed before each. Every run keeps its
    provenance, so a place of the cloth is found again on the gathered edge.

    A row ends where the edge does, where a dart opens, and half a strip beyond its outer slashes, where gathers start and stop.
    Through it run cubics that pass the middles of the gaps; they leave and arrive as the edge beyond does.
    """
    count = len(items)
    joined = [_is_gap(items, k) for k in range(count)]
    if not any(joined):
        return tuple(run for run, _gap in items)
    first = next(k for k in range(count) if not joined[k])
    found: list[Run] = []
    row: list[int] = []
    for step in range(count):
        index = (first + step) % count
        if row and not joined[index]:
            found += _drawn([items[k] for k in row], raised_mm)
            row = []
        row.append(index)
    found += _drawn([items[k] for k in row], raised_mm)
    return tuple(found)


def _is_gap(items: Sequence[Item], index: int) -> bool:
    """Whether the edge is led over a slash before a run."""
    run, gap = items[index]
    before = items[index - 1][0]
    if gap is None or before.mouth is not None or (before.edge, before.source.line) != (run.edge, run.source.line):
        return False
    return bool(np.abs(run.path.start - before.path.end).max() > NOTHING)


def _drawn(row: Sequence[Item], raised_mm: float) -> list[Run]:
    """A row drawn through; its first and last strip only as far as half a strip, where the stretch ends."""
    runs = [run for run, _gap in row]
    if len(runs) == 1:
        return runs
    is_first_end = row[1][1] is not None and row[1][1][1] == 0
    half = max(run.path.length for run in runs[1:-1]) / 2.0 if len(runs) > 2 else ALONE
    before, first = _split(runs[0], runs[0].path.length - half)
    last, after = _split(runs[-1], half)
    runs[0], runs[-1] = first or runs[0], last or runs[-1]
    knots = [runs[0].path.start, *((a.path.end + b.path.start) / 2.0 for a, b in itertools.pairwise(runs))]
    knots.append(runs[-1].path.end)
    ways = [runs[0].path.start_direction]
    for one, two in itertools.pairwise(runs):
        along = unit(one.path.end_direction + two.path.start_direction)
        ways.append(along * (one.path.length + two.path.length) / 2.0 + (two.path.start - one.path.end))
    ways.append(runs[-1].path.end_direction)
    spans = np.array([math.dist(a, b) for a, b in itertools.pairwise(knots)])
    shares = np.concatenate([[0.0], np.cumsum(spans)]) / spans.sum()
    lift, slope = np.zeros(len(knots)), np.zeros(len(knots))
    if raised_mm > 0.0 and is_first_end:
        # 16 x^2 (1 - x)^2 is 1 in the middle and leaves the edge without a corner at both ends.
        lift = raised_mm * 16.0 * shares**2 * (1.0 - shares) ** 2
        slope = raised_mm * 32.0 * shares * (1.0 - shares) * (1.0 - 2.0 * shares) / spans.sum()
    made: list[Run] = []
    tops, leads = [], []
    for knot, way, up, steep in zip(knots, ways, lift, slope, strict=True):
        along = unit(way)
        outwards = np.array([along[1], -along[0]])
        tops.append(knot + outwards * up)
        leads.append(unit(along + outwards * steep))
    for k, run in enumerate(runs):
        reach = math.dist(tops[k], tops[k + 1]) / 3.0
        curve = np.array([[tops[k], tops[k] + leads[k] * reach, tops[k + 1] - leads[k + 1] * reach, tops[k + 1]]])
        made.append(replace(run, path=Path(curve)))
    return [*([before] if before and first else []), *made, *([after] if after and last else [])]


def _split(run: Run, at: float) -> tuple[Run | None, Run | None]:
    """The two parts of a run at a distance (mm); the whole is the second part before its start, the first behind its end."""
    size = run.path.length
    if at <= JOIN_TOL:
        return None, run
    if at >= size - JOIN_TOL:
        return run, None
    one, two = run.path.split_at(at)
    before, after = run.source.parted(at / size)
    return Run(run.edge, one, before), Run(run.edge, two, after, run.mouth)
