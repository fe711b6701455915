"""The cut line: every stretch of the outline shifted outwards by its allowance, corners mitred or squared.

A polyline from here on: an offset of a cubic is no cubic.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.bezier import derivatives, flatten_counts, points

Array = NDArray[np.float64]

# A mitre reaching further than this many allowances past the corner is squared off. Common practice, no source.
MITRE_LIMIT = 1.8

_SMOOTH = math.radians(0.5)  # a turn under this is no corner; the offset runs through it


@dataclass(frozen=True)
class Stretch:
    """A stretch of the outline with its allowance in mm."""

    path: Path
    allowance: float


def cut_ring(stretches: Sequence[Stretch]) -> Array:
    """The closed cut line (m, 2) mm round a clockwise outline given as stretches that meet end to end.

    Raises nothing: loops where a hollow is tighter than its allowance are cut off.
    """
    parts = [part for stretch in stretches for part in _smooth_parts(stretch)]
    lines = [_offset(part) for part in parts]
    for index, part in enumerate(parts):
        after = (index + 1) % len(parts)
        lines[index], lines[after] = _met(part, parts[after], lines[index], lines[after], same=index == after)
    ring = np.concatenate(lines)
    ring = ring[np.hypot(*np.diff(ring, axis=0, append=ring[:1]).T) > 1e-7]
    polygon = shapely.Polygon(ring)
    if polygon.is_valid:
        return np.asarray(ring)
    mended = shapely.make_valid(polygon)
    largest = max(
        (g for g in shapely.get_parts(mended) if g.geom_type in ("Polygon", "MultiPolygon")), key=lambda g: float(g.area)
    )
    largest = max(shapely.get_parts(largest), key=lambda g: float(g.area))
    outer: Array = np.asarray(largest.exterior.coords)[:-1]
    return outer


def _smooth_parts(stretch: Stretch) -> list[Stretch]:
    """A stretch parted at the corners inside it."""
    cubics = stretch.path.cubics
    starts = [0]
    for index in range(1, len(cubics)):
        before, after = Path(cubics[index - 1 : index]), Path(cubics[index : index + 1])
        if abs(between(before.end_direction, after.start_direction)) > _SMOOTH:
            starts.append(index)
    return [Stretch(Path(cubics[a:b]), stretch.allowance) for a, b in zip(starts, [*starts[1:], len(cubics)], strict=True)]


def _offset(part: Stretch) -> Array:
    """The shifted polyline of a smooth stretch: each point moved along its own outward normal."""
    found: list[Array] = []
    for cubic, count in zip(part.path.cubics, flatten_counts(part.path.cubics, 0.01) + 1, strict=True):
        at = np.arange(count + 1) / count
        here, slopes = points(cubic[None], at)[0], derivatives(cubic[None], at)[0]
        sizes = np.hypot(slopes[:, 0], slopes[:, 1])
        if (sizes < 1e-9).any():
            slopes = np.gradient(here, axis=0)
            sizes = np.hypot(slopes[:, 0], slopes[:, 1])
        # The ring runs clockwise, so outwards is to the left of the way: (dy, -dx).
        normals = np.stack([slopes[:, 1], -slopes[:, 0]], axis=1) / sizes[:, None]
        found.append(here + normals * part.allowance)
    return np.concatenate(found)


def _met(one: Stretch, two: Stretch, first: Array, second: Array, *, same: bool) -> tuple[Array, Array]:
    """Two neighbouring shifted lines led to their corner."""
    if same:
        return first, second
    corner, ahead, back = one.path.end, one.path.end_direction, two.path.start_direction
    turn = between(ahead, back)
    if abs(turn) <= _SMOOTH or abs(turn) >= math.pi - _SMOOTH:
        return first, second
    cross = ahead[0] * back[1] - ahead[1] * back[0]
    gap = second[0] - first[-1]
    reach = float((gap[0] * back[1] - gap[1] * back[0]) / cross)
    mitre = first[-1] + ahead * reach
    lead = float((mitre - second[0]) @ back)
    if reach >= -1e-9 and lead <= 1e-9:
        limit = MITRE_LIMIT * max(one.allowance, two.allowance)
        if math.dist(mitre, corner) <= limit:
            return np.vstack([first, mitre]), second
        return np.vstack([first, first[-1] + ahead * two.allowance, second[0] - back * one.allowance]), second
    return _trimmed(first, second, corner, mitre)


def _trimmed(first: Array, second: Array, corner: Vector, mitre: Vector) -> tuple[Array, Array]:
    """Two shifted lines cut where they cross, at the crossing nearest to the corner."""
    one, two = shapely.LineString(first), shapely.LineString(second)
    crossings = [p for p in shapely.get_parts(shapely.intersection(one, two)) if p.geom_type == "Point"]
    if not crossings:
        return np.vstack([first, mitre]), second
    best = min(crossings, key=lambda p: math.dist((p.x, p.y), corner))
    at = np.array([best.x, best.y])
    kept_one = first[: _count_before(first, one.project(best))]
    kept_two = second[_count_before(second, two.project(best)) :]
    return np.vstack([kept_one, at]), np.vstack([at, kept_two])


def _count_before(line: Array, distance: float) -> int:
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    return int(np.searchsorted(run, distance, side="right"))
