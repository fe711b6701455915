"""The outline that a hand's presses most likely trace: all edges and corners by least squares at once, so that a corner lies
where the edges that meet there say, as far as they know it better than the presses on it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from scipy.interpolate import BSpline

from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import record

ROUNDS = 10  # how often the feet of the places on their edges are found again
ALONE = 8  # and for an edge by itself
MOST_PARTS = 4  # cubics of one edge
PER_PART = 6  # places at least that each of them needs
HELD = 0.3  # of a place's weight: holds it along a curve, where only its distance counts; much less lets curves curl up
DENSE = 64  # chords of a cubic among which a foot is looked for


@record(eq=False)
class PressedEdge:
    """The places between two corners, mm (n, 2), without the corners; and whether they were pressed as a straight edge."""

    places: Array
    is_line: bool


@record(eq=False)
class _Edge:
    """An edge as a smooth spline of cubics, (k + 3, 2) control points for k of them; a straight one has two."""

    controls: Array

    @property
    def spline(self) -> BSpline:
        return BSpline(_knots(len(self.controls) - 3), self.controls, 3)

    def ways(self, at: Array) -> Array:
        """Unit directions at the parameters: (n, 2)."""
        if len(self.controls) == 2:
            found = np.repeat(self.controls[1:] - self.controls[:1], len(at), axis=0)
        else:
            found = self.spline.derivative()(at)
        return np.asarray(found / np.maximum(np.hypot(found[:, 0], found[:, 1]), 1e-12)[:, None])

    def feet(self, places: Array) -> Array:
        """The parameters of the nearest places on it, by its chords."""
        u, basis = _dense(len(self.controls))
        line = basis @ self.controls
        nearest = ((places[:, None] - line) ** 2).sum(axis=2).argmin(axis=1).clip(1, len(u) - 2)
        at, least = np.zeros(len(places)), np.full(len(places), np.inf)
        for k in (nearest - 1, nearest):  # the chords before and after the nearest joint
            way = line[k + 1] - line[k]
            t = (((places - line[k]) * way).sum(axis=1) / np.maximum((way**2).sum(axis=1), 1e-18)).clip(0.0, 1.0)
            off = ((places - line[k] - t[:, None] * way) ** 2).sum(axis=1)
            at, least = np.where(off < least, u[k] + t * u[1], at), np.minimum(off, least)
        return at.clip(0.0, 1.0)

    def chain(self) -> Array:
        """As cubics (k, 4, 2)."""
        if len(self.controls) == 2:
            return bezier.line(self.controls[0], self.controls[1])[None]
        spline = self.spline
        at = spline.t[3:-3]
        third = np.diff(at)[:, None] / 3.0
        here, ways = spline(at), spline.derivative()(at)
        here[0], here[-1] = self.controls[0], self.controls[-1]
        return np.stack([here[:-1], here[:-1] + ways[:-1] * third, here[1:] - ways[1:] * third, here[1:]], axis=1)


def adjusted(corners: Array, counts: Array, stretches: Sequence[PressedEdge]) -> tuple[tuple[Array, ...], float]:
    """The edges as chains of cubics, (k, 4, 2) each, from corner i to corner i + 1, and how far a press strays, mm (a
    standard deviation). `corners` (m, 2) are the places of a closed outline's corners, mm, each the mean of `counts` presses.

    Least squares of the places' distances from their edges, and of the corners' from where they were pressed by the root of
    their count; Gauss and Newton's method, the places' feet found again each round.
    """
    ends = np.roll(corners, -1, axis=0)
    edges = [_alone(start, end, one) for start, end, one in zip(corners, ends, stretches, strict=True)]
    sigma = 0.0
    for _round in range(ROUNDS):
        edges, sigma = _better(corners, np.sqrt(counts), stretches, edges)
    return tuple(edge.chain() for edge in edges), sigma


def _alone(start: Array, end: Array, stretch: PressedEdge) -> _Edge:
    """An edge by its own places, in as many cubics as they warrant: the least n ln(squares / n) + p ln n for n places and p
    values that shape the curve (Schwarz's criterion, BIC; from memory)."""
    if stretch.is_line or len(stretch.places) == 0:
        return _Edge(np.stack([start, end]))
    points = np.concatenate([start[None], stretch.places, end[None]])
    most = max(1, min(MOST_PARTS, len(points) // PER_PART))
    edges = [_fitted(points, parts) for parts in range(1, most + 1)]

    def score(edge: _Edge) -> float:
        off = points - _basis(edge.feet(points), len(edge.controls)) @ edge.controls
        shaping = 2 * len(edge.controls) - 2  # both ends may slide along the curve
        return len(points) * math.log(max(float((off**2).sum()), 1e-9)) + shaping * math.log(len(points))

    return min(edges, key=score)


def _fitted(points: Array, parts: int) -> _Edge:
    """The spline of so many cubics nearest to points, of which the first and the last belong to its ends."""
    steps = np.hypot(*np.diff(points, axis=0).T)
    at = (np.concatenate([[0.0], np.cumsum(steps)]) / max(float(steps.sum()), 1e-9)).clip(0.0, 1.0)
    knots = _knots(parts)
    plain = points[0] + ((knots[1:-3] + knots[2:-2] + knots[3:-1]) / 3.0)[:, None] * (points[-1] - points[0])
    held = 1e-7 * len(points) * np.eye(len(plain))  # what no place tells stays on the chord
    edge = _Edge(plain)
    for _round in range(ALONE):
        basis = _basis(at, len(plain))
        edge = _Edge(plain + np.linalg.solve(basis.T @ basis + held, basis.T @ (points - basis @ plain)))
        at = np.maximum.accumulate(edge.feet(points))
    return edge


def _better(
    corners: Array, weights: Array, stretches: Sequence[PressedEdge], edges: Sequence[_Edge]
) -> tuple[list[_Edge], float]:
    """All edges again, by the feet of their places on them as they are; and how far a press strays."""
    m = len(corners)
    starts = [int(at) for at in np.cumsum([m, *(len(edge.controls) - 2 for edge in edges)])]
    size = 2 * starts[-1]
    mine = [[i, *range(starts[i], starts[i + 1]), (i + 1) % m] for i in range(m)]
    pressed = np.zeros((2 * m, size))
    np.fill_diagonal(pressed, np.repeat(weights, 2))
    rows, wanted = [pressed], [(corners * weights[:, None]).ravel()]
    places = 0
    for stretch, edge, points in zip(stretches, edges, mine, strict=True):
        at = edge.feet(stretch.places)
        basis, ways = _basis(at, len(edge.controls)), edge.ways(at)
        across = np.stack([-ways[:, 1], ways[:, 0]], axis=-1)
        for way, weight in ((across, 1.0), (ways, 0.0 if stretch.is_line else HELD)):
            matrix = np.zeros((len(at), size))
            for number, column in zip(points, basis.T, strict=True):
                matrix[:, 2 * number : 2 * number + 2] += weight * column[:, None] * way
            rows.append(matrix)
            wanted.append(weight * (stretch.places * way).sum(axis=1))
        places += len(at)
    whole, values = np.concatenate(rows), np.concatenate(wanted)
    solved, *_ = np.linalg.lstsq(whole, values, rcond=None)
    left = whole @ solved - values
    sigma = math.sqrt(float((left**2).sum()) / max(1, places + 2 * m - size))
    found: Array = solved.reshape(-1, 2).astype(np.float64)
    return [_Edge(found[numbers]) for numbers in mine], sigma


@lru_cache(maxsize=MOST_PARTS + 1)
def _knots(parts: int) -> Array:
    knots = np.concatenate([np.zeros(3), np.linspace(0.0, 1.0, parts + 1), np.ones(3)])
    knots.flags.writeable = False
    return knots


@lru_cache(maxsize=MOST_PARTS + 1)
def _dense(controls: int) -> tuple[Array, Array]:
    """The joints of an edge's chords, and how much each control point counts there."""
    u = np.linspace(0.0, 1.0, DENSE * max(1, controls - 3) + 1)
    return u, _basis(u, controls)


def _basis(at: Array, controls: int) -> Array:
    """How much each control point counts at the parameters (n,), 0 to 1: (n, controls)."""
    if controls == 2:
        return np.stack([1.0 - at, at], axis=-1)
    if len(at) == 0:
        return np.zeros((0, controls))
    return np.asarray(BSpline.design_matrix(at, _knots(controls - 3), 3).toarray())
