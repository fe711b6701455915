"""Bend: darts led to a point beside their pivot, their mouths kept."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.shaping import ended_at
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.record import replace

_ROUNDS = 20
_STILL = 1e-10  # mm


def bent(piece: Piece, darts: Sequence[str], mark: str, onto: Vector) -> Piece:
    """The piece with a landmark `mark` at a point (2,) mm, and darts that lead there, as where a line passes close beside the
    bust point: their legs are drawn afresh from the ends of their mouths. Equal they become by moving those ends square to
    the edge, one in and one out, so that the edges stay as long as they were. What all this changes at the pivot is an angle
    of a degree or two. Source: common practice, no source."""
    led = tuple(replace(dart, pivot=mark) if dart.id in darts else dart for dart in piece.darts)
    made = replace(piece, darts=led, landmarks={**piece.landmarks, mark: (float(onto[0]), float(onto[1]))})
    for dart in darts:
        made = _equal(made, dart, onto)
    return made


def _equal(piece: Piece, dart: str, pin: Vector) -> Piece:
    """The piece with both ends of a mouth moved square to the edge until they are equally far from a point."""
    index = piece.mouth_run(dart)
    after = piece.after(index)
    runs = list(piece.runs)
    ends = runs[index].path.end, runs[after].path.start
    ways = runs[index].path.end_direction, runs[after].path.start_direction
    square = [np.array([-way[1], way[0]]) for way in ways]

    def moved(by: float) -> tuple[Vector, Vector]:
        return ends[0] + square[0] * by, ends[1] - square[1] * by

    by = 0.0
    for _ in range(_ROUNDS):
        (one, two) = (end - pin for end in moved(by))
        off = math.hypot(*one) - math.hypot(*two)
        rate = float(one @ square[0]) / math.hypot(*one) + float(two @ square[1]) / math.hypot(*two)
        if abs(off) <= _STILL or abs(rate) < 0.1:
            break
        by -= off / rate
    start, stop = moved(by)
    runs[index] = replace(runs[index], path=ended_at(runs[index].path, end=start))
    runs[after] = replace(runs[after], path=ended_at(runs[after].path, start=stop))
    return replace(piece, runs=tuple(runs))
