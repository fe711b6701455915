"""Notches that are cut into the edge of a piece: found where the outline goes in and comes back to run on, and filled."""

from __future__ import annotations

import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.intake.photo.picture import opencv
from zesty_pivot.core.intake.traced import Array, Point

# All our own choices, for notches as cutters make them: 3 to 8 mm deep, up to 5 mm wide.
SHORTEST, LONGEST = 5.0, 20.0  # mm, the way in and out
WIDEST = 5.5  # mm between its lips
DEEPEST, SHALLOWEST = 9.0, 2.0  # mm
RUNS_ON = math.radians(35.0)  # the outline's direction before and after
LOOK = 6.0  # mm that tell it


def without_notches(ring: Array) -> tuple[Array, tuple[Point, ...]]:
    """A closed outline (m, 2) of even steps with its notches filled by straight lines, and where they were: the middle
    between their lips, mm."""
    count = len(ring)
    step = float(np.hypot(*np.diff(np.concatenate([ring, ring[:1]]), axis=0).T).mean())
    look = max(2, round(LOOK / step))
    found: list[tuple[float, int, int]] = []
    inwards = 1.0 if _swept(ring) > 0.0 else -1.0
    for size in range(round(SHORTEST / step), round(LONGEST / step) + 1):
        ends = np.roll(ring, -size, axis=0)
        chord = np.hypot(*(ends - ring).T)
        for first in np.flatnonzero((chord <= WIDEST) & (chord < 0.55 * size * step)).tolist():
            last = (first + size) % count
            depth = _depth(ring, first, size, inwards)
            if not SHALLOWEST <= depth <= DEEPEST:
                continue
            before = ring[first] - ring[(first - look) % count]
            after = ring[(last + look) % count] - ring[last]
            cross, dot = before[0] * after[1] - before[1] * after[0], float(before @ after)
            if abs(math.atan2(cross, dot)) <= RUNS_ON and _lies_between(ring[first], ring[last], before, after):
                found.append((float(chord[first]) - 0.3 * depth + 0.02 * size * step, first, size))
    taken = np.zeros(count, bool)
    notches: list[tuple[int, int]] = []
    for _score, first, size in sorted(found):
        span = np.arange(first - look, first + size + look + 1) % count
        if not taken[span].any():
            taken[span] = True
            notches.append((first, size))
    if not notches:
        return ring, ()
    filled = ring.copy()
    places = []
    for first, size in notches:
        start, end = _lips(ring, first, size, look)
        inside = np.arange(1, size)
        filled[(first + inside) % count] = start + (end - start) * (inside / size)[:, None]
        filled[first], filled[(first + size) % count] = start, end
        places.append((float(start[0] + end[0]) / 2.0, float(start[1] + end[1]) / 2.0))
    return filled, tuple(places)


def notches_in(gaps: NDArray[np.uint8], ring: Array, fine: float) -> tuple[Point, ...]:
    """Notches among what is narrowly cut into the edge of a piece or drawn on it (a mask of `fine` pixels to a millimetre):
    as long as notches are, and open to the edge. What is longer is a dart or a line."""
    cv2 = opencv()
    low, high = ring.min(axis=0) - 4.0, ring.max(axis=0) + 4.0
    (x0, y0), (x1, y1) = np.maximum(low * fine, 0).astype(int), (high * fine).astype(int)
    count, _labels, stats, middles = cv2.connectedComponentsWithStats(np.ascontiguousarray(gaps[y0:y1, x0:x1]), connectivity=8)
    edge = shapely.LinearRing(ring)
    found: list[Point] = []
    for number in range(1, count):
        _x, _y, wide, tall, area = stats[number].tolist()
        extent = math.hypot(wide, tall) / fine
        if not SHALLOWEST + 0.5 <= extent <= DEEPEST + 2.0 or area < 1.0 * fine**2:
            continue
        at = shapely.Point((middles[number] + [x0, y0]) / fine)
        if edge.distance(at) <= DEEPEST / 2.0 + 0.5:
            where = edge.interpolate(edge.project(at))
            found.append((float(where.x), float(where.y)))
    return tuple(found)


def _lips(ring: Array, first: int, size: int, look: int) -> tuple[Array, Array]:
    """The two lips, laid on the line on which the outline runs before and after: rounding pulls them inwards."""
    count = len(ring)
    before = ring[np.arange(first - 2 * look, first - 2) % count]
    after = ring[np.arange(first + size + 3, first + size + 2 * look + 1) % count]
    around = np.concatenate([before, after])
    middle = around.mean(axis=0)
    _u, _s, rows = np.linalg.svd(around - middle, full_matrices=False)
    way = rows[0]
    start, end = ring[first], ring[(first + size) % count]
    bow = np.abs((around - middle) @ np.array([-way[1], way[0]])).max()
    if bow > 0.6:  # on a curve they stay
        return start, end
    return middle + way * float((start - middle) @ way), middle + way * float((end - middle) @ way)


def _swept(ring: Array) -> float:
    after = np.roll(ring, -1, axis=0)
    return float((ring[:, 0] * after[:, 1] - after[:, 0] * ring[:, 1]).sum())


def _depth(ring: Array, first: int, size: int, inwards: float) -> float:
    """How deep the way between two places goes into the piece, mm."""
    part = ring[np.arange(first, first + size + 1) % len(ring)]
    chord = part[-1] - part[0]
    length = float(np.hypot(*chord))
    if length < 1e-9:
        return float(np.hypot(*(part - part[0]).T).max())
    off = (part - part[0]) @ np.array([-chord[1], chord[0]]) / length * inwards
    return float(off.max()) if off.max() > -off.min() else 0.0


def _lies_between(first: Array, last: Array, before: Array, after: Array) -> bool:
    """Whether the second lip lies ahead of the first: the way goes on there."""
    return float((last - first) @ (before + after)) > 0.0
