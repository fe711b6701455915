"""The grain line of a part: along its own fold, else as the body's straight grain ran, else square to its lower edge."""

from __future__ import annotations

import itertools
import math

import numpy as np
import shapely

from zesty_pivot.core.geometry import unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.piece import Point
from zesty_pivot.core.piece.region import all_cubics, cloth, contains, outline

Grain = tuple[Point, Point]

SHORT_OF = 0.2  # of the cloth along it that a grain line ends short of both outlines. Common practice, no source
PLACES = 12  # places across a piece where a longer line is looked for
LONG_ENOUGH = 0.6  # of the longest line: then the one through the widest place is taken. Our own choice
SAME = 1e-6  # radians between two directions that are one


def fold_direction(piece: Piece) -> Vector | None:
    """The direction of a piece's fold, (2,); None for a piece that does not lie on one, or whose fold is bent or opened."""
    if piece.fold is None:
        return None
    runs = [run.path for run in piece.runs if run.edge == piece.fold]
    if any(run.mouth for run in piece.edge(piece.fold).runs[:-1]):
        return None
    points = np.concatenate([path.cubics.reshape(-1, 2) for path in runs])
    along = unit(points[-1] - points[0])
    off = (points - points[0]) @ np.array([-along[1], along[0]])
    return along if np.abs(off).max() <= 0.01 else None


def grain_of_part(part: Piece, whole: Piece, lower: str = "") -> Grain | None:
    """The grain of a part just cut from a piece and not turned since: along its own CF or CB when that is on the fold, else
    parallel to the piece's grain, else square to its edge `lower`. One that it has already, and that runs so, is kept.
    Source: common practice, no source."""
    way = fold_direction(part)
    if way is None and whole.grain is not None:
        way = unit(np.subtract(whole.grain[1], whole.grain[0]))
    if way is None:
        return square_grain(part, lower) if lower else None
    if part.grain is not None and abs(turned(part.grain, way)) <= SAME:
        return part.grain
    return grain_along(part, way)


def turned(grain: Grain, way: Vector) -> float:
    """How far (radians) a grain line is turned from a direction, either way up, in [-pi/2, pi/2]."""
    own = np.subtract(grain[1], grain[0])
    angle = math.atan2(float(way[0] * own[1] - way[1] * own[0]), float(way @ own))
    return (angle + math.pi / 2.0) % math.pi - math.pi / 2.0


def grain_along(piece: Piece, way: Vector) -> Grain | None:
    """A grain line in a direction through the widest place of a piece; where that is short, as on a narrow band, through the
    place where it is longest. None where there is no cloth along it."""
    region = cloth(piece)
    widest = max(shapely.get_parts(region), key=lambda part: float(part.area))
    if widest.area <= 0.0:
        return None
    middle = np.asarray(shapely.maximum_inscribed_circle(widest, tolerance=1.0).coords[0])
    across = np.array([-way[1], way[0]])
    reach = [float((point - middle) @ across) for point in shapely.get_coordinates(widest)]
    asides = [0.0, *(min(reach) + (max(reach) - min(reach)) * k / PLACES for k in range(1, PLACES))]
    found = [line for line in (_through(piece, middle + across * aside, way) for aside in asides) if line is not None]
    if not found:
        return None
    longest = max(found, key=_length)
    return found[0] if _length(found[0]) >= LONG_ENOUGH * _length(longest) else longest


def _length(grain: Grain) -> float:
    return math.dist(*grain)


def square_grain(panel: Piece, edge: str) -> Grain | None:
    """A grain line through a panel's middle, square to the line between the ends of an edge, a fifth short of both outlines;
    None where the panel has no such edge. Source: common practice, no source."""
    runs = [run for run in panel.runs if run.edge == edge]
    if not runs:
        return None
    start, stop = runs[0].path.start, runs[-1].path.end
    across = unit(stop - start)
    return _through(panel, (start + stop) / 2.0, np.array([-across[1], across[0]]))


def _through(panel: Piece, middle: Vector, way: Vector) -> Grain | None:
    """The longest stretch of cloth along a line through a point, a fifth short of both outlines, from above."""
    cubics, _runs, _segments = all_cubics(panel)
    hits = sorted(far for _index, _t, far in with_line(cubics, middle, way))
    ring = outline(panel)
    inside = [
        (two - one, one, two)
        for one, two in itertools.pairwise(hits)
        if two - one > 1.0 and contains(ring, middle + way * (one + two) / 2.0)
    ]
    if not inside:
        return None
    _long, one, two = max(inside)
    (x0, y0), (x1, y1) = middle + way * one, middle + way * two
    ends = [(float(x0 + (x1 - x0) * share), float(y0 + (y1 - y0) * share)) for share in (SHORT_OF, 1.0 - SHORT_OF)]
    ends.sort(key=lambda end: end[1])
    return ends[0], ends[1]
