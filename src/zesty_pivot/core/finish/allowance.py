"""The cut line: every stretch of the outline shifted outwards by its allowance, corners mitred or squared.

A polyline from here on: an offset of a cubic is no cubic.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.bezier import derivatives, flatten_counts, points
from zesty_pivot.core.record import record

Array = NDArray[np.float64]

# A mitre reaching further than this many allowances past the corner is squared off. Common practice, no source.
MITRE_LIMIT = 1.8

FLATNESS = 0.01  # mm that the polylines of seam and cut line are off their curves
MOST_POINTS = 512  # on one cubic
WITHIN = 0.05  # mm that a seam may be nearer to its cut line than its allowance: what the design asks of exported sheets
GRID = 1e-6  # mm that the corners of the bands are rounded to where they are joined
SPECK = 1e-3  # mm2; less is noise along an edge
FILLED = 25.0  # mm2; a smaller hole between allowances that meet is cut as one with them
NARROWER = "Give the edges there a smaller allowance, or move them apart."

_SMOOTH = math.radians(0.5)  # a turn under this is no corner; the offset runs through it


@record
class Stretch:
    """A stretch of the outline with its allowance in mm."""

    path: Path
    allowance: float


def cut_ring(stretches: Sequence[Stretch]) -> Array:
    """The closed cut line (m, 2) mm round a clockwise outline given as stretches in order; where two do not meet, as at a step
    in a seam, the straight line between them belongs to the outline.

    Every part of the outline lies inside it by its allowance. Where the shifted lines alone do not do that (a hollow or a
    finger narrower than its allowances) the bands of all stretches are joined to one region, and its rim is the cut line.
    Raises GeometryError when that is no single closed line.
    """
    parts = [part for stretch in _meeting(stretches) for part in _smooth_parts(stretch)]
    bands = [_band(part) for part in parts]
    ring = _ring(parts, [outer for _inner, outer in bands])
    if shapely.is_valid(shapely.Polygon(ring)) and _fits(bands, ring):
        return ring
    ring = _joined(parts, bands)
    if not _fits(bands, ring):
        raise GeometryError("its seam allowances do not fit around it", advice=NARROWER)
    return ring


def _meeting(stretches: Sequence[Stretch]) -> list[Stretch]:
    """The stretches with straight ones in between where two do not meet."""
    found: list[Stretch] = []
    for one, two in zip(stretches, (*stretches[1:], stretches[0]), strict=True):
        found.append(one)
        if np.abs(one.path.end - two.path.start).max() > JOIN_TOL:
            found.append(Stretch(Path.straight(one.path.end, two.path.start), max(one.allowance, two.allowance)))
    return found


def _ring(parts: list[Stretch], lines: list[Array]) -> Array:
    """The shifted lines led to their corners."""
    lines = list(lines)
    for index, part in enumerate(parts):
        after = (index + 1) % len(parts)
        lines[index], lines[after] = _met(part, parts[after], lines[index], lines[after], same=index == after)
    return _apart(np.concatenate(lines))


def _apart(ring: Array) -> Array:
    """A closed polyline without points that follow their neighbour at the distance of noise."""
    kept: Array = ring[np.hypot(*np.diff(ring, axis=0, append=ring[:1]).T) > 1e-7]
    return kept


def _joined(parts: list[Stretch], bands: list[tuple[Array, Array]]) -> Array:
    """The rim of the outline's area with the bands of all its stretches, each a row of small tiles, and the tips of its
    corners. Raises GeometryError when the area crosses itself or the bands close over an open place."""
    area = shapely.Polygon(_apart(np.concatenate([inner for inner, _outer in bands])))
    if not area.is_valid:
        raise GeometryError("its outline crosses itself", advice="Mend the outline first.")
    tiles: list[shapely.Geometry] = [area]
    for part, (inner, outer) in zip(parts, bands, strict=True):
        if part.allowance > 0.0:
            tiles += list(_tiles(inner, outer))
    for index, part in enumerate(parts):
        after = (index + 1) % len(parts)
        tip = _tip(part, parts[after], bands[index][1][-1], bands[after][1][0])
        if tip is None and abs(between(part.path.end_direction, parts[after].path.start_direction)) > _SMOOTH:
            continue  # a corner that goes in: the bands overlap
        spots = [part.path.end[None], bands[index][1][-1:], *([] if tip is None else [tip]), bands[after][1][:1]]
        tiles.append(shapely.MultiPoint(np.vstack(spots)).convex_hull)  # without a tip a hair, so that smooth joints close
    # Without a grid GEOS 3.14 was seen to lose a whole tile of 125 mm2 among thin ones; a nanometre is far under JOIN_TOL.
    united = shapely.union_all(tiles, grid_size=GRID)
    whole = [part for part in shapely.get_parts(united) if part.geom_type == "Polygon" and part.area > SPECK]
    if len(whole) != 1:
        raise GeometryError("its cut line breaks up into several", advice=NARROWER)
    region = whole[0]
    if any(shapely.Polygon(hole).area > FILLED for hole in region.interiors):
        raise GeometryError("its seam allowances close over an open place", advice=NARROWER)
    rim: Array = np.asarray(region.exterior.coords)[:-1]
    return rim if region.exterior.is_ccw == area.exterior.is_ccw else np.ascontiguousarray(rim[::-1])


def _fits(bands: list[tuple[Array, Array]], ring: Array) -> bool:
    """Whether the bands from the seam to its allowance lie inside a closed cut line, within WITHIN mm."""
    roomy = shapely.Polygon(ring).buffer(WITHIN)
    shapely.prepare(roomy)
    return bool(shapely.covers(roomy, np.concatenate([_tiles(inner, outer) for inner, outer in bands])).all())


def _tiles(inner: Array, outer: Array) -> NDArray[np.object_]:
    """The band between a polyline and its shifted one as convex tiles, one a segment. Where a hollow is tighter than the
    allowance the shifted points run backwards: the hull is the tile all the same."""
    corners = np.stack([inner[:-1], inner[1:], outer[1:], outer[:-1]], axis=1)
    found: NDArray[np.object_] = shapely.convex_hull(shapely.multipoints(corners))
    return found


def _smooth_parts(stretch: Stretch) -> list[Stretch]:
    """A stretch parted at the corners inside it; what has no length is left out."""
    cubics = stretch.path.cubics[stretch.path.lengths > JOIN_TOL]
    if not len(cubics):
        return []
    starts = [0]
    for index in range(1, len(cubics)):
        before, after = Path(cubics[index - 1 : index]), Path(cubics[index : index + 1])
        if abs(between(before.end_direction, after.start_direction)) > _SMOOTH:
            starts.append(index)
    return [Stretch(Path(cubics[a:b]), stretch.allowance) for a, b in zip(starts, [*starts[1:], len(cubics)], strict=True)]


def _band(part: Stretch) -> tuple[Array, Array]:
    """The polyline of a smooth stretch and the shifted one, point by point: each moved along its own outward normal. Where the
    stretch bends sharply there are as many points as the shifted one needs, which is longer there."""
    counts = flatten_counts(part.path.cubics, FLATNESS) + 1
    # A chord of the shifted line, turning by an angle t at a reach a, is off by a (1 - cos(t / 2)).
    most = 2.0 * math.acos(1.0 - FLATNESS / max(part.allowance, 1.0))
    inner: list[Array] = []
    normals: list[Array] = []
    for cubic, first in zip(part.path.cubics, counts.tolist(), strict=True):
        count = first
        here, out = _with_normals(cubic, count)
        while count < MOST_POINTS and _turns(out).max(initial=0.0) > most:
            count *= 2
            here, out = _with_normals(cubic, count)
        inner.append(here)
        normals.append(out)
    line = np.concatenate(inner)
    return line, line + np.concatenate(normals) * part.allowance


def _with_normals(cubic: Array, count: int) -> tuple[Array, Array]:
    """Points of a cubic at `count` equal steps of its parameter, and the unit normals outwards there, (count + 1, 2) each."""
    at = np.arange(count + 1) / count
    here, slopes = points(cubic[None], at)[0], derivatives(cubic[None], at)[0]
    sizes = np.hypot(slopes[:, 0], slopes[:, 1])
    if (sizes < 1e-9).any():
        slopes = np.gradient(here, axis=0)
        sizes = np.hypot(slopes[:, 0], slopes[:, 1])
    # The ring runs clockwise, so outwards is to the left of the way: (dy, -dx).
    return here, np.stack([slopes[:, 1], -slopes[:, 0]], axis=1) / sizes[:, None]


def _turns(normals: Array) -> Array:
    """The angles (radians) between unit normals that follow each other."""
    one, two = normals[:-1], normals[1:]
    turns: Array = np.abs(np.arctan2(one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0], (one * two).sum(axis=1)))
    return turns


def _met(one: Stretch, two: Stretch, first: Array, second: Array, *, same: bool) -> tuple[Array, Array]:
    """Two neighbouring shifted lines led to their corner."""
    turn = between(one.path.end_direction, two.path.start_direction)
    if same or abs(turn) <= _SMOOTH or abs(turn) >= math.pi - _SMOOTH:
        return first, second
    tip = _tip(one, two, first[-1], second[0])
    if tip is not None:
        return np.vstack([first, tip]), second
    return _trimmed(first, second, one.path.end)


def _tip(one: Stretch, two: Stretch, end: Vector, start: Vector) -> Array | None:
    """What lies between the end of one shifted line and the start of the next at a corner that sticks out: the mitre, or two
    points where a mitre would reach too far. None at a corner that goes in, and where they run on smoothly."""
    ahead, back = one.path.end_direction, two.path.start_direction
    cross = ahead[0] * back[1] - ahead[1] * back[0]
    if abs(cross) <= math.sin(_SMOOTH):
        return None
    gap = start - end
    reach = float((gap[0] * back[1] - gap[1] * back[0]) / cross)
    mitre: Array = end + ahead * reach
    if reach < -1e-9 or float((mitre - start) @ back) > 1e-9:
        return None
    if math.dist(mitre, one.path.end) <= MITRE_LIMIT * max(one.allowance, two.allowance):
        return mitre[None]
    return np.stack([end + ahead * two.allowance, start - back * one.allowance])


def _trimmed(first: Array, second: Array, corner: Vector) -> tuple[Array, Array]:
    """Two shifted lines cut where they cross, at the crossing nearest to the corner; as they are when they do not."""
    one, two = shapely.LineString(first), shapely.LineString(second)
    crossings = [p for p in shapely.get_parts(shapely.intersection(one, two)) if p.geom_type == "Point"]
    if not crossings:
        return first, second
    best = min(crossings, key=lambda p: math.dist((p.x, p.y), corner))
    at = np.array([best.x, best.y])
    kept_one = first[: _count_before(first, one.project(best))]
    kept_two = second[_count_before(second, two.project(best)) :]
    return np.vstack([kept_one, at]), np.vstack([at, kept_two])


def _count_before(line: Array, distance: float) -> int:
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    return int(np.searchsorted(run, distance, side="right"))
