"""Where curves meet: with a straight line by the roots of a cubic, with each other by boxes and Newton."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.geometry.tolerance import JOIN_TOL

Array = NDArray[np.float64]

# A cubic's leading coefficient under this share of the next: one root lies far off. Our own choice.
_FAR = 1e-3

_ROOT_SLACK = 1e-9  # a root this little outside [0, 1] is the end itself
# What makes both halves of a cubic out of it, by de Casteljau: (2, 4, 4).
_HALF = np.array([[1.0, 0.0, 0.0, 0.0], [0.5, 0.5, 0.0, 0.0], [0.25, 0.5, 0.25, 0.0], [0.125, 0.375, 0.375, 0.125]])
_HALVES = np.stack([_HALF, _HALF[::-1, ::-1]])
_MAX_BOXES = 4096  # more candidate pairs than this and the curves run along each other


def with_line(
    cubics: Array, on: Array, towards: Array, reach: tuple[float, float] = (-math.inf, math.inf)
) -> list[tuple[int, float, float]]:
    """Crossings of cubics (n, 4, 2) with the endless line `on + s towards`: (segment, t, s), s in mm if `towards` has
    length 1. With `reach`, segments that lie wholly before or beyond it are left out. Near-duplicates at joints are
    kept: they lie on two segments.

    A segment that lies along the line has no single crossing and is left out.
    """
    normal = np.array([-towards[1], towards[0]])
    heights = (cubics - on) @ normal
    found: list[tuple[int, float, float]] = []
    close = (heights.min(axis=1) <= JOIN_TOL) & (heights.max(axis=1) >= -JOIN_TOL)
    if reach != (-math.inf, math.inf):
        along = (cubics - on) @ towards
        close &= (along.max(axis=1) >= reach[0]) & (along.min(axis=1) <= reach[1])
    for index in np.flatnonzero(close):
        h = heights[index]
        if np.abs(h).max() <= JOIN_TOL:
            continue
        for t in _roots(h):
            point = bezier.point(cubics[index], t)
            found.append((int(index), t, float((point - on) @ towards)))
    return found


def _roots(heights: Array) -> list[float]:
    """Parameters in [0, 1] where a cubic Bernstein polynomial (4,) is zero."""
    a, b, c, d = heights.tolist()
    if abs(b - a - (d - a) / 3.0) + abs(d - c - (d - a) / 3.0) <= 1e-12 * (abs(a) + abs(d)):
        t = a / (a - d) if a != d else -1.0
        return [min(1.0, max(0.0, t))] if -_ROOT_SLACK <= t <= 1.0 + _ROOT_SLACK else []
    power = (d - 3.0 * c + 3.0 * b - a, 3.0 * (c - 2.0 * b + a), 3.0 * (b - a), a)
    size = max(abs(a), abs(b), abs(c), abs(d))
    found: list[float] = []
    for root in _real_roots(*(0.0 if abs(p) < 1e-13 * size else p for p in power)):
        t = _polish(power, root)
        if -_ROOT_SLACK <= t <= 1.0 + _ROOT_SLACK:
            t = min(1.0, max(0.0, t))
            if all(abs(t - other) > 1e-9 for other in found):
                found.append(t)
    return sorted(found)


def _real_roots(a: float, b: float, c: float, d: float) -> list[float]:
    """The real roots of a t^3 + b t^2 + c t + d: Viete's trigonometric form for three, Cardano's for one (textbook
    algebra). A touching pair that rounding has parted from the axis is kept as one root."""
    if a == 0.0:
        return _quadratic_roots(b, c, d)
    if 2.0 * (3.0 * abs(a) + 2.0 * abs(b)) <= abs(c):
        return [_only_root(a, b, c, d)]
    if abs(a) <= _FAR * abs(b):
        return _roots_but_the_far_one(a, b, c, d)
    p, q, r = b / a, c / a, d / a
    shift = p / 3.0
    u, v = q / 3.0 - shift * shift, shift**3 - shift * q / 2.0 + r / 2.0
    # y^3 + 3 u y + 2 v = 0 with t = y - shift
    level = v * v + u**3
    noise = 1e-12 * max(v * v, abs(u) ** 3, 1e-300)
    if level > noise:
        root = math.sqrt(level)
        first = math.cbrt(-v + root) if v < 0.0 else math.cbrt(-v - root)
        return [first - (u / first if first else 0.0) - shift]
    if u == 0.0:
        return [-shift]
    reach = math.sqrt(-u)
    angle = math.acos(max(-1.0, min(1.0, -v / reach**3))) / 3.0
    return [2.0 * reach * math.cos(angle + turn * 2.0 * math.pi / 3.0) - shift for turn in (0, 1, 2)]


def _only_root(a: float, b: float, c: float, d: float) -> float:
    """The one root that can lie in [0, 1] of a cubic that rises or falls all the way there: its slope is within half of c."""
    t = -d / c
    for _ in range(60):
        step = (((a * t + b) * t + c) * t + d) / ((3.0 * a * t + 2.0 * b) * t + c) if -1.0 <= t <= 2.0 else 0.0
        t -= step
        if abs(step) <= 1e-15:
            break
    return t


def _roots_but_the_far_one(a: float, b: float, c: float, d: float) -> list[float]:
    """The roots of a cubic that is nearly a quadratic, but for the one far off, which is divided out from the low end: the
    closed forms lose all digits there (0.92 for 0.66 with a = 2e-10 b)."""
    s = -a / b  # the far root's inverse
    for _ in range(4):
        s -= (((d * s + c) * s + b) * s + a) / ((3.0 * d * s + 2.0 * c) * s + b)
    # (s t - 1) (u t^2 + v t + w), compared with the cubic from below
    w = -d
    v = s * w - c
    return _quadratic_roots(s * v - b, v, w)


def _quadratic_roots(a: float, b: float, c: float) -> list[float]:
    if a == 0.0:
        return [-c / b] if b != 0.0 else []
    level = b * b - 4.0 * a * c
    if level < -1e-12 * max(b * b, abs(4.0 * a * c)):
        return []
    # The sum that does not cancel first, the other root by the product of both.
    half = -(b + math.copysign(math.sqrt(max(level, 0.0)), b)) / 2.0
    return [half / a, c / half] if half != 0.0 else [0.0]


def _polish(power: tuple[float, float, float, float], t: float) -> float:
    """A few Newton steps: the closed forms lose digits where roots lie close together."""
    a, b, c, d = power
    for _ in range(4):
        slope = (3.0 * a * t + 2.0 * b) * t + c
        if slope == 0.0:
            return t
        step = (((a * t + b) * t + c) * t + d) / slope
        if abs(step) > 1e-3:
            return t
        t -= step
    return t


def of_curves(first: Array, second: Array) -> list[tuple[int, float, int, float]]:
    """Crossings of two chains of cubics: (segment, t, segment, t) on each, merged by distance (JOIN_TOL).

    Boxes of the control points are halved until only crossings are left, then Newton finishes.
    Raises GeometryError when the curves run along each other for a stretch.
    """
    hits: list[tuple[int, float, int, float]] = []
    places: list[Array] = []
    for i, j in np.argwhere(_touch(_hulls(first)[:, None], _hulls(second)[None, :])).tolist():
        for t, u in _pair(first[i], second[j]):
            place = bezier.point(first[i], t)
            if all(np.hypot(*(place - known)) > JOIN_TOL for known in places):
                hits.append((i, t, j, u))
                places.append(place)
    return hits


def _pair(one: Array, other: Array) -> list[tuple[float, float]]:
    # Stretches of both whose boxes touch, and where they begin; all are as long.
    a, b, size = one[None], other[None], 1.0
    begin = np.zeros((1, 2))
    for _ in range(14):
        size /= 2.0
        first, second = _HALVES[:, None] @ a, _HALVES[:, None] @ b
        v, u, which = np.nonzero(_touch(_hulls(first)[None, :], _hulls(second)[:, None]))
        if len(which) == 0:
            return []
        if len(which) > _MAX_BOXES:
            raise GeometryError("two lines run along each other", advice="Move one of them apart.")
        a, b, begin = first[u, which], second[v, which], begin[which] + np.stack([u, v], axis=1) * size
    found: list[tuple[float, float]] = []
    for t, u in {(round(t, 3), round(u, 3)) for t, u in (begin + size / 2.0).tolist()}:
        hit = _newton(one, other, t, u)
        if hit is not None:
            found.append(hit)
    return found


def _hulls(cubics: Array) -> Array:
    """Boxes (..., 2, 2: low and high corner) of the control points of cubics (..., 4, 2)."""
    return np.stack([cubics.min(axis=-2), cubics.max(axis=-2)], axis=-2)


def _touch(one: Array, other: Array) -> NDArray[np.bool_]:
    """Which boxes (..., 2, 2) touch those opposite."""
    low, high = one[..., 0, :], one[..., 1, :]
    touch: NDArray[np.bool_] = np.logical_and.reduce(
        (low <= other[..., 1, :] + JOIN_TOL) & (other[..., 0, :] <= high + JOIN_TOL), axis=-1
    )
    return touch


def _newton(one: Array, other: Array, t: float, u: float) -> tuple[float, float] | None:
    for _ in range(30):
        gap = _at(one, t) - _at(other, u)
        slopes = np.stack([_slope(one, t), -_slope(other, u)], axis=1)
        if abs(float(np.linalg.det(slopes))) < 1e-12:
            break
        step = np.linalg.solve(slopes, -gap)
        t, u = float(np.clip(t + step[0], -0.01, 1.01)), float(np.clip(u + step[1], -0.01, 1.01))
        if np.abs(step).max() < 1e-15:
            break
    t, u = min(1.0, max(0.0, t)), min(1.0, max(0.0, u))
    gap = _at(one, t) - _at(other, u)
    return (t, u) if np.hypot(gap[0], gap[1]) <= JOIN_TOL else None


def _at(cubic: Array, t: float) -> Array:
    return bezier.point(cubic, t)


def _slope(cubic: Array, t: float) -> Array:
    return bezier.slope(cubic, t)
