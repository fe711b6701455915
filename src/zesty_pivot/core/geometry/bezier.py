"""Cubic Bezier segments as plain arrays, vectorised. `cubics` is (n, 4, 2): n cubics, control points in mm.

A straight line is the cubic whose inner points lie at its thirds. These functions trust their input:
finite float64 arrays of the stated shape, checked once at the public edge (`Path`, the file readers).
"""

from __future__ import annotations

import functools
import math

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.geometry.tolerance import LENGTH_TOL, STRAIGHT_NOISE

Array = NDArray[np.float64]

_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(20)
_NODES = (_NODES + 1.0) / 2.0
_WEIGHTS = _WEIGHTS / 2.0
_MAX_HALVINGS = 40


def _basis(at: Array) -> Array:
    """The derivative's Bernstein basis at parameters (m,): (m, 3)."""
    return np.stack([(1.0 - at) ** 2, 2.0 * at * (1.0 - at), at**2], axis=-1)


_NODE_BASIS = _basis(_NODES)
# Both halves at their nodes, and what adds each half up: (40, 3) and (40,).
_HALF_BASIS = np.concatenate([_basis(_NODES / 2.0), _basis((1.0 + _NODES) / 2.0)])
_HALF_WEIGHTS = np.concatenate([_WEIGHTS, _WEIGHTS]) / 2.0


def line(start: Array, end: Array) -> Array:
    """One straight segment as a cubic, (4, 2)."""
    steps = np.array([0.0, 1.0, 2.0, 3.0])[:, None] / 3.0
    cubic: Array = np.asarray(start) + (np.asarray(end) - np.asarray(start)) * steps
    cubic[3] = end
    return cubic


def points(cubics: Array, at: Array) -> Array:
    """Points at the parameters `at` (m,) of every cubic: (n, m, 2)."""
    t = np.asarray(at)
    s = 1.0 - t
    basis = np.stack([s * s * s, 3.0 * s * s * t, 3.0 * s * t * t, t * t * t], axis=-1)
    found: Array = basis @ cubics
    return found


def derivatives(cubics: Array, at: Array) -> Array:
    """First derivatives by the parameter at `at` (m,) of every cubic: (n, m, 2)."""
    t = np.asarray(at)
    s = 1.0 - t
    basis = np.stack([s * s, 2.0 * s * t, t * t], axis=-1)
    found: Array = basis @ (3.0 * (cubics[:, 1:] - cubics[:, :-1]))
    return found


def point(cubic: Array, at: float) -> Array:
    """The point at one parameter of one cubic (4, 2): (2,)."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = cubic.tolist()
    s = 1.0 - at
    a, b, c, d = s * s * s, 3.0 * s * s * at, 3.0 * s * at * at, at * at * at
    return np.array([a * ax + b * bx + c * cx + d * dx, a * ay + b * by + c * cy + d * dy])


def slope(cubic: Array, at: float) -> Array:
    """The first derivative at one parameter of one cubic (4, 2): (2,)."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = cubic.tolist()
    s = 1.0 - at
    a, b, c = 3.0 * s * s, 6.0 * s * at, 3.0 * at * at
    return np.array([a * (bx - ax) + b * (cx - bx) + c * (dx - cx), a * (by - ay) + b * (cy - by) + c * (dy - cy)])


def lengths(cubics: Array) -> Array:
    """Arc length of every cubic, (n,) mm: Gauss-Legendre quadrature of |B'(t)|, halved until it agrees.

    Straight lines are measured as chords. Cusps and turning points, where |B'| has a kink that nodes can miss, are
    halved until they are too short to matter.
    """
    steps = cubics[:, 1:] - cubics[:, :-1]
    chords = cubics[:, 3] - cubics[:, 0]
    total = np.hypot(chords[:, 0], chords[:, 1])
    bent = ~_straight(steps, chords)
    if not bent.any():
        return total
    whole = _speeds(_NODE_BASIS @ steps) @ _WEIGHTS * 3.0
    halved = _speeds(_HALF_BASIS @ steps) @ _HALF_WEIGHTS * 3.0
    if np.abs(halved - whole).max() <= LENGTH_TOL and _forward(steps, chords)[bent].all():  # nearly always
        return np.where(bent, halved, total)
    owner = np.flatnonzero(bent)
    total[owner] = 0.0
    work, whole = cubics[owner], whole[owner]
    for _ in range(_MAX_HALVINGS):
        left, right = _halves(work)
        first, second = _quadrature(left), _quadrature(right)
        done = (np.abs(first + second - whole) <= LENGTH_TOL) & _settled(work)
        done |= ~np.isfinite(first + second)  # what is at no place has no length, and would be halved until memory ends
        np.add.at(total, owner[done], (first + second)[done])
        if done.all():
            return total
        rest = ~done
        work = np.concatenate([left[rest], right[rest]])
        whole = np.concatenate([first[rest], second[rest]])
        owner = np.concatenate([owner[rest], owner[rest]])
    np.add.at(total, owner, whole)
    return total


def _settled(cubics: Array) -> NDArray[np.bool_]:
    """Whether a cubic cannot turn back: the derivative's control points all point forward; or it is next to nothing."""
    steps = cubics[:, 1:] - cubics[:, :-1]
    chord = cubics[:, 3] - cubics[:, 0]
    forward = _forward(steps, chord)
    tiny = np.hypot(steps[..., 0], steps[..., 1]).sum(axis=1) <= LENGTH_TOL
    found: NDArray[np.bool_] = forward | tiny
    return found


def _forward(steps: Array, chords: Array) -> NDArray[np.bool_]:
    """Whether all of a cubic's steps (n, 3, 2) go along its chord (n, 2): (n,)."""
    ways = steps[..., 0] * chords[:, :1] + steps[..., 1] * chords[:, 1:]
    found: NDArray[np.bool_] = ways.min(axis=1) > 0.0
    return found


def _speeds(slopes: Array) -> Array:
    found: Array = np.hypot(slopes[..., 0], slopes[..., 1])
    return found


def _quadrature(cubics: Array) -> Array:
    found: Array = _speeds(_NODE_BASIS @ (3.0 * (cubics[:, 1:] - cubics[:, :-1]))) @ _WEIGHTS
    return found


def _halves(cubics: Array) -> tuple[Array, Array]:
    a, b, c, d = cubics[:, 0], cubics[:, 1], cubics[:, 2], cubics[:, 3]
    ab, bc, cd = (a + b) / 2.0, (b + c) / 2.0, (c + d) / 2.0
    abc, bcd = (ab + bc) / 2.0, (bc + cd) / 2.0
    mid = (abc + bcd) / 2.0
    return np.stack([a, ab, abc, mid], axis=1), np.stack([mid, bcd, cd, d], axis=1)


def split(cubic: Array, at: float) -> tuple[Array, Array]:
    """One cubic (4, 2) parted at the parameter `at` by de Casteljau: two of (4, 2)."""
    parts = np.empty((2, 4, 2))
    for axis, (a, b, c, d) in enumerate(cubic.T.tolist()):  # plain floats are several times faster than arrays of two
        ab, bc, cd = a + (b - a) * at, b + (c - b) * at, c + (d - c) * at
        abc, bcd = ab + (bc - ab) * at, bc + (cd - bc) * at
        mid = abc + (bcd - abc) * at
        parts[0, :, axis] = a, ab, abc, mid
        parts[1, :, axis] = mid, bcd, cd, d
    return parts[0], parts[1]


def is_straight(cubic: Array) -> bool:
    """Whether a cubic is a plain line: inner points at its thirds, to the noise of the arithmetic."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = cubic.tolist()
    x, y = (dx - ax) / 3.0, (dy - ay) / 3.0
    off = max(abs(bx - ax - x) + abs(dx - cx - x), abs(by - ay - y) + abs(dy - cy - y))
    return bool(off <= STRAIGHT_NOISE)


def are_straight(cubics: Array) -> NDArray[np.bool_]:
    """Which of n cubics are plain lines, (n,)."""
    return _straight(cubics[:, 1:] - cubics[:, :-1], cubics[:, 3] - cubics[:, 0])


def _straight(steps: Array, chords: Array) -> NDArray[np.bool_]:
    off = np.abs(steps[:, ::2] - chords[:, None] / 3.0).sum(axis=1)
    found: NDArray[np.bool_] = off.max(axis=1) <= STRAIGHT_NOISE
    return found


def param_at_length(cubic: Array, length: float, total: float) -> float:
    """The parameter where the arc from the start of one cubic (4, 2) has `length` mm; `total` is its whole.

    Newton's steps on the arc length, kept inside a bracket that shrinks by halving.
    """
    if length >= total:
        return 1.0
    if length <= 0.0:
        return 0.0
    low, high, t = 0.0, 1.0, length / total
    if is_straight(cubic):
        return t
    powers = _powers(3.0 * (cubic[1:] - cubic[:-1]))
    # One quadrature is enough where it agrees with the halved one over the whole; cusps take the slow way.
    plain = _goes_forward(cubic) and abs(_length_to(powers, 1.0) - total) <= LENGTH_TOL
    for _ in range(60):
        reached = _length_to(powers, t) if plain else float(lengths(split(cubic, t)[0][None])[0])
        error = reached - length
        if abs(error) <= LENGTH_TOL * 10.0:
            break
        low, high = (t, high) if error < 0.0 else (low, t)
        ahead = slope(cubic, t)
        speed = math.hypot(ahead[0], ahead[1])
        step = t - error / speed if speed > 0.0 else math.nan
        t = step if low < step < high else (low + high) / 2.0
    return t


def _goes_forward(cubic: Array) -> bool:
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = cubic.tolist()
    x, y = dx - ax, dy - ay
    along = min((bx - ax) * x + (by - ay) * y, (cx - bx) * x + (cy - by) * y, (dx - cx) * x + (dy - cy) * y)
    return bool(along > 0.0)


def _powers(steps: Array) -> tuple[float, ...]:
    """The derivative's control points (3, 2) as c0 + c1 t + c2 t^2: c0x, c1x, c2x, c0y, c1y, c2y."""
    found: list[float] = []
    for a, b, c in steps.T.tolist():
        found += [a, 2.0 * (b - a), a - 2.0 * b + c]
    return tuple(found)


def _length_to(powers: tuple[float, ...], at: float) -> float:
    """The arc length from 0 to a parameter by one quadrature; `powers` are the derivative's, as `_powers` gives them."""
    t = _NODES * at
    c0x, c1x, c2x, c0y, c1y, c2y = powers
    return float(np.hypot((c2x * t + c1x) * t + c0x, (c2y * t + c1y) * t + c0y) @ _WEIGHTS) * at


def flatten_counts(cubics: Array, tolerance: float) -> NDArray[np.int64]:
    """How many chords keep each cubic within `tolerance` mm, (n,).

    From the bound on the control points: with M the largest second difference, the error of n equal
    parts is at most 6 M / (8 n^2). An S-curve cannot fool it, as looking at the middle point would.
    """
    second = cubics[:, 2:] - 2.0 * cubics[:, 1:-1] + cubics[:, :-2]
    largest = np.hypot(second[..., 0], second[..., 1]).max(axis=1)
    parts: NDArray[np.int64] = np.maximum(1, np.ceil(np.sqrt(0.75 * largest / tolerance))).astype(np.int64)
    return parts


def flatten(cubics: Array, tolerance: float) -> Array:
    """A polyline (m, 2) through a chain of cubics, no further than `tolerance` mm from it."""
    counts = flatten_counts(cubics, tolerance).tolist()
    return np.concatenate([cubics[:1, 0], *(_even(count) @ cubic for cubic, count in zip(cubics, counts, strict=True))])


@functools.lru_cache(maxsize=256)
def _even(count: int) -> Array:
    """The Bernstein basis at the ends of `count` equal parts, without the first: (count, 4)."""
    t = np.arange(1, count + 1) / count
    s = 1.0 - t
    return np.stack([s * s * s, 3.0 * s * s * t, 3.0 * s * t * t, t * t * t], axis=-1)
