"""Curves of which necklines are made."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector, unit

_LEAST, _MOST = 0.2, 0.95  # shares of the way to the corner that a curve's handles may have


def rounded(start: Vector, out: Vector, stop: Vector, into: Vector, corner: float | None = None, hug: float = 0.62) -> Path:
    """One curve that leaves `start` along `out` and reaches `stop` from `into` (both directions away from their points), so
    that it passes the corner where these two ways meet at `corner` mm; or with handles a share `hug` of the ways. Where the
    ways do not meet ahead, handles of a third.

    The middle of a cubic with handles k of the ways to its corner lies (4 - 3k)/8 of |start + stop - 2 corner| off it.
    """
    met = meeting(start, out, stop, into)
    if met is None:
        size = math.dist(start, stop) / 3.0
        return Path(np.array([[start, start + out * size, stop + into * size, stop]]))
    if corner is not None:
        chord = math.hypot(*(start + stop - 2.0 * met))
        hug = (4.0 - 8.0 * corner / chord) / 3.0 if chord > JOIN_TOL else _MOST
    hug = min(max(hug, _LEAST), _MOST)
    return Path(np.array([[start, start + (met - start) * hug, stop + (met - stop) * hug, stop]]))


def meeting(start: Vector, out: Vector, stop: Vector, into: Vector) -> Vector | None:
    """Where two rays meet, or None where they do not."""
    det = out[0] * into[1] - out[1] * into[0]
    if abs(det) < 1e-9:
        return None
    gap = stop - start
    s = (gap[0] * into[1] - gap[1] * into[0]) / det
    t = (gap[0] * out[1] - gap[1] * out[0]) / det
    if s <= JOIN_TOL or t <= JOIN_TOL:
        return None
    point: Vector = start + out * s
    return point


def bent(path: Path, into: Vector, reach: float) -> Path:
    """A line whose last `reach` mm are bent so that it ends along `into` (the way back from its end); at most half of it."""
    way = path.end_direction
    if abs(float(into[0] * way[1] - into[1] * way[0])) < 1e-9 and float(into @ way) < 0.0:
        return path
    reach = min(reach, path.length / 2.0)
    kept, _tail = path.split_at(path.length - reach)
    met = meeting(kept.end, kept.end_direction, path.end, into)
    if met is not None and max(math.dist(met, kept.end), math.dist(met, path.end)) < 2.0 * reach:
        last = Path(np.array([[kept.end, kept.end + (met - kept.end) * 0.6, path.end + (met - path.end) * 0.6, path.end]]))
    else:
        size = math.dist(kept.end, path.end) * 0.4
        last = Path(np.array([[kept.end, kept.end + kept.end_direction * size, path.end + into * size, path.end]]))
    return Path.chain([kept, last])


def turned_end(path: Path, into: Vector) -> Path:
    """A line whose last cubic ends along `into` (the way back from its end), its points where they were."""
    cubics = path.cubics.copy()
    cubics[-1, 2] = path.end + into * math.dist(cubics[-1, 2], path.end)
    return Path(cubics)


def arc_over(start: Vector, stop: Vector, height: float) -> Path:
    """A circular arc over a chord, `height` mm high to the left of its way; one cubic, off the circle by less than a
    thousandth of its height up to a half circle. Source: the standard handles 4/3 tan(angle/4) of the radius (textbook)."""
    chord = stop - start
    size = math.hypot(*chord)
    along = chord / size
    left = np.array([along[1], -along[0]])
    if abs(height) <= JOIN_TOL:
        return Path.straight(start, stop)
    half = 2.0 * math.atan2(2.0 * abs(height), size)
    radius = size / (2.0 * math.sin(half))
    handle = 4.0 / 3.0 * math.tan(half / 2.0) * radius
    side = left * math.copysign(1.0, height)
    first = along * math.cos(half) + side * math.sin(half)
    last = along * math.cos(half) - side * math.sin(half)
    return Path(np.array([[start, start + first * handle, stop - last * handle, stop]]))


def through(points: Sequence[Vector], first: Vector | None, last: Vector | None) -> Path:
    """A smooth curve through points: at each the direction from its neighbour before to the one behind it, at the ends as given
    (`last` leads back from the end)."""
    ways: list[Vector] = []
    for number, point in enumerate(points):
        if number == 0:
            ways.append(first if first is not None else unit(points[1] - point))
        elif number == len(points) - 1:
            ways.append(-last if last is not None else unit(point - points[-2]))
        else:
            ways.append(unit(points[number + 1] - points[number - 1]))
    cubics = []
    for number in range(len(points) - 1):
        start, stop = points[number], points[number + 1]
        size = math.dist(start, stop) / 3.0
        cubics.append([start, start + ways[number] * size, stop - ways[number + 1] * size, stop])
    return Path(np.array(cubics))
