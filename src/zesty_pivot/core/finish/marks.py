"""Marks on a finished piece: notches at the leg ends, drill holes, the grain arrow."""

from __future__ import annotations

import math
from dataclasses import field

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.finish.darts import SewnDart
from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import FishEye
from zesty_pivot.core.record import record

NOTCH = 5.0  # mm, the depth of a notch's stroke. Common practice, no source.
DOUBLE_APART = 6.0  # mm between the strokes of a double notch. Common practice, no source.
DRILL_INSIDE = 12.0  # mm from the sewn point towards the mouth; the trade says 1 to 1.3 cm
DRILL_BESIDE = 3.0  # mm inside the widest place of a fish-eye dart. Common practice, no source.
DRILL_RADIUS = 1.5  # mm, drawn


@record
class Circle:
    """A drill hole's mark: centre (x, y) and radius in mm."""

    at: tuple[float, float]
    radius: float
    id: str
    of_size: int = field(default=0, repr=False)


@record
class Text:
    """A line of writing: its middle (x, y), height of the letters in mm, and its turn in radians clockwise."""

    at: tuple[float, float]
    text: str
    size: float
    turn: float = 0.0
    bold: bool = False
    of_size: int = field(default=0, repr=False)


def notch(end: Vector, point: Vector, ring: NDArray[np.float64]) -> Path:
    """The stroke at a leg's end: on the cut line, in the direction of the leg, NOTCH long."""
    out = unit(end - point)
    ray = shapely.LineString([end, end + out * 200.0])
    hits = shapely.get_coordinates(shapely.intersection(ray, shapely.LinearRing(ring)))
    edge = min(hits, key=lambda hit: math.dist(hit, end)) if len(hits) else end
    return Path.straight(edge, edge - out * NOTCH)


def balance_notches(path: Path, at: float, ring: NDArray[np.float64], *, double: bool) -> tuple[Path, ...]:
    """The strokes of a balance notch square to a seam at an arc length (mm); a double one has two strokes a little apart."""
    places = (at - DOUBLE_APART / 2.0, at + DOUBLE_APART / 2.0) if double else (at,)
    found: list[Path] = []
    for distance in places:
        point, along = path.point_at(distance), path.direction_at(distance)
        outwards = np.array([along[1], -along[0]])  # the piece lies to the right of the way round it
        found.append(notch(point, point - outwards, ring))
    return tuple(found)


def drill(dart: SewnDart) -> Circle:
    """The drill hole inside a dart's sewn point, half way between its legs."""
    first, second = (leg.point_at(max(0.0, leg.length - 2.0 * DRILL_INSIDE)) for leg in dart.legs)
    at = dart.point + unit(np.asarray((first + second) / 2.0 - dart.point)) * DRILL_INSIDE
    return Circle((float(at[0]), float(at[1])), DRILL_RADIUS, f"{dart.dart}.drill")


def drills_inside(eye: FishEye) -> tuple[Circle, ...]:
    """The drill holes of a fish-eye dart: inside its two points, and just inside the two places at its widest."""
    top, right, bottom, left = eye.corners
    found = []
    for name, corner, other, inside in (
        ("top", top, bottom, DRILL_INSIDE), ("bottom", bottom, top, DRILL_INSIDE),
        ("left", left, right, DRILL_BESIDE), ("right", right, left, DRILL_BESIDE),
    ):  # fmt: skip
        at = corner + unit(other - corner) * min(inside, math.dist(corner, other) / 3.0)
        found.append(Circle((float(at[0]), float(at[1])), DRILL_RADIUS, f"{eye.id}.drill.{name}"))
    return tuple(found)


def grain_arrow(grain: tuple[tuple[float, float], tuple[float, float]]) -> tuple[Path, ...]:
    """The grain line with a head at both ends, in proportion on a small piece."""
    start, stop = np.array(grain[0]), np.array(grain[1])
    along = unit(stop - start)
    across = np.array([-along[1], along[0]])
    size = min(7.0, 0.05 * math.dist(grain[0], grain[1]))
    heads = []
    for tip, inwards in ((start, along), (stop, -along)):
        back, side = tip + inwards * size, across * size * 0.37
        heads.append(Path.straight(back + side, tip, back - side))
    return (Path.straight(start, stop), *heads)
