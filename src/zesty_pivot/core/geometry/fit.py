"""Cubics through many points: least squares with the points' places improved in turn, parted where one cubic is not enough."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.geometry.angles import Vector, between, unit

Array = NDArray[np.float64]

_ROUNDS = 8  # how often the parameters are improved
_KINK = math.radians(4.0)  # a turn at a parting beyond this is a corner of the points' own, and stays
_HELD = 1e-7  # of the weight of all points: what holds an inner point of the cubic back where nothing else does
_LEAST = 5  # points that a stretch has before it is parted


def fitted(points: Array, tolerance: float, start: Vector | None = None, end: Vector | None = None) -> tuple[Array, float]:
    """Cubics (n, 4, 2) from the first to the last of the points (m, 2), m >= 2, none of which lies farther than `tolerance` mm
    from them; and the largest distance. `start` and `end` are unit directions to keep at the ends.

    Smooth where the points are: one direction on both sides of a parting, unless they turn there by over 4 degrees.
    """
    off = _off_line(points)
    if off <= tolerance and _keeps(points, start, end):
        return bezier.line(points[0], points[-1])[None], off
    cubic, errors = _one(points, start, end)
    worst = float(errors.max(initial=0.0))
    if worst <= tolerance or len(points) <= _LEAST:
        return cubic[None], worst
    at = int(np.clip(errors.argmax(), 3, len(points) - 4)) if len(points) >= 7 else len(points) // 2
    before, after = _direction(points[: at + 1][::-1]) * -1.0, _direction(points[at:])
    if abs(between(before, after)) <= _KINK:
        before = after = unit(before + after)
    left, one = fitted(points[: at + 1], tolerance, start, before)
    right, two = fitted(points[at:], tolerance, after, end)
    return np.concatenate([left, right]), max(one, two)


def straight(points: Array) -> tuple[Array, Array]:
    """The straight line nearest to points (m, 2): a point on it and its unit direction, from the first towards the last."""
    middle = points.mean(axis=0)
    _u, _s, rows = np.linalg.svd(points - middle, full_matrices=False)
    along = rows[0]
    return middle, along if float((points[-1] - points[0]) @ along) >= 0.0 else -along


def noise(points: Array) -> float:
    """The standard deviation (mm) of points (m, 2) from a smooth line through their neighbours: what a parabola over seven
    of them leaves, the median over all. Nothing for fewer than nine."""
    if len(points) < 9:
        return 0.0
    windows = np.lib.stride_tricks.sliding_window_view(points, 7, axis=0).transpose(0, 2, 1)  # (m - 6, 7, 2)
    steps = np.hypot(*np.diff(windows, axis=1).transpose(2, 0, 1))
    t = np.concatenate([np.zeros((len(windows), 1)), np.cumsum(steps, axis=1)], axis=1)
    t = t / np.maximum(t[:, -1:], 1e-12) * 2.0 - 1.0
    basis = np.stack([np.ones_like(t), t, t * t], axis=-1)
    solved = np.linalg.pinv(basis) @ windows
    left = windows - basis @ solved
    chord = windows[:, -1] - windows[:, 0]
    across = np.stack([-chord[:, 1], chord[:, 0]], axis=1) / np.maximum(np.hypot(chord[:, 0], chord[:, 1]), 1e-12)[:, None]
    off = np.einsum("ijk,ik->ij", left, across)
    # Of seven values four are free once a parabola is taken out.
    return float(np.median(np.sqrt((off**2).sum(axis=1) / 4.0)))


def _off_line(points: Array) -> float:
    chord = points[-1] - points[0]
    size = math.hypot(chord[0], chord[1])
    if size == 0.0:
        return float(np.hypot(*(points - points[0]).T).max())
    off: float = np.abs((points - points[0]) @ np.array([-chord[1], chord[0]])).max() / size
    along = (points - points[0]) @ chord / size
    return max(float(off), float(-along.min()), float(along.max() - size))


def _keeps(points: Array, start: Vector | None, end: Vector | None) -> bool:
    chord = unit(points[-1] - points[0])
    return all(one is None or abs(between(one, chord)) <= 1e-3 for one in (start, end))


def _direction(points: Array) -> Vector:
    """The direction in which a run of points begins: of the parabola through its first few."""
    few = points[: min(5, len(points))]
    if len(few) < 3:
        return unit(few[-1] - few[0])
    t = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(few, axis=0).T))])
    if t[-1] <= 0.0:
        return unit(points[-1] - points[0])
    basis = np.stack([t, t * t], axis=-1)
    solved, *_ = np.linalg.lstsq(basis, few - few[0], rcond=None)
    found = unit(solved[0])
    return found if float(np.hypot(*found)) > 0.0 else unit(few[-1] - few[0])


def _one(points: Array, start: Vector | None, end: Vector | None) -> tuple[Array, Array]:
    """One cubic through the ends, nearest to the points, and each point's distance from it."""
    steps = np.hypot(*np.diff(points, axis=0).T)
    total = float(steps.sum())
    if len(points) <= _LEAST:  # too few to tell the direction of both ends
        start = _direction(points) if start is None else start
        end = -_direction(points[::-1]) if end is None else end
    t = np.concatenate([[0.0], np.cumsum(steps)]) / total if total > 0.0 else np.linspace(0.0, 1.0, len(points))
    cubic = _solved(points, t, start, end, total)
    for _ in range(_ROUNDS):
        t = _nearer(cubic, points, t)
        cubic = _solved(points, t, start, end, total)
    off = bezier.points(cubic[None], t)[0] - points
    return cubic, np.hypot(off[:, 0], off[:, 1])


def _solved(points: Array, t: Array, start: Vector | None, end: Vector | None, total: float) -> Array:
    """The inner points of the cubic by least squares. Each is sought as a way from the third of the chord, and long ways are
    held back a little, so that places which fall together cannot throw it far off."""
    s = 1.0 - t
    first, last = points[0], points[-1]
    plain = bezier.line(first, last)
    if start is not None:
        plain[1] = first + start * total / 3.0
    if end is not None:
        plain[2] = last - end * total / 3.0
    b1, b2 = 3.0 * s * s * t, 3.0 * s * t * t
    rest = points - np.stack([s**3, b1, b2, t**3], axis=-1) @ plain
    nothing = np.zeros_like(t)
    columns, ways = [], []
    for index, (basis, way) in enumerate(((b1, start), (b2, end)), 1):
        for along in (np.array([1.0, 0.0]), np.array([0.0, 1.0])) if way is None else (way,):
            columns.append(
                np.stack([basis * along[0], basis * along[1]], axis=-1).ravel() if along.any() else np.tile(nothing, 2)
            )
            ways.append((index, along))
    matrix = np.stack(columns, axis=-1)
    held = matrix.T @ matrix + np.eye(len(columns)) * _HELD * len(points)
    solved = np.linalg.solve(held, matrix.T @ rest.ravel())
    cubic = plain.copy()
    for (index, along), by in zip(ways, solved, strict=True):
        cubic[index] = cubic[index] + along * by
    for index, way, origin, sign in ((1, start, first, 1.0), (2, end, last, -1.0)):
        # A handle that points backwards or is longer than the line makes a loop.
        if way is not None and not 0.02 * total < sign * float((cubic[index] - origin) @ way) < total:
            cubic[index] = origin + sign * way * total / 3.0
    return cubic


def _nearer(cubic: Array, points: Array, t: Array) -> Array:
    """The parameters improved by one Newton step towards the nearest places."""
    at = bezier.points(cubic[None], t)[0]
    slope = bezier.derivatives(cubic[None], t)[0]
    second = 6.0 * (np.outer(1.0 - t, cubic[2] - 2.0 * cubic[1] + cubic[0]) + np.outer(t, cubic[3] - 2.0 * cubic[2] + cubic[1]))
    off = at - points
    top = (off * slope).sum(axis=1)
    below = (slope**2).sum(axis=1) + (off * second).sum(axis=1)
    moved = np.where(np.abs(below) > 1e-12, t - top / np.where(np.abs(below) > 1e-12, below, 1.0), t)
    moved = np.clip(moved, 0.0, 1.0)
    moved[0], moved[-1] = 0.0, 1.0
    return np.asarray(np.maximum.accumulate(moved))
