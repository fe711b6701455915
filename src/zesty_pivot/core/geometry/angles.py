"""Angles and directions. Radians; positive turns clockwise on the paper (x right, y down)."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]


def unit(vector: Vector) -> Vector:
    """The direction of a (2,) vector, length 1. A zero vector stays zero."""
    size = math.hypot(vector[0], vector[1])
    return vector / size if size > 0.0 else vector * 0.0


def clockwise(vector: Vector) -> float:
    """The angle of a (2,) vector from +x towards +y, in (-pi, pi]."""
    return math.atan2(vector[1], vector[0])


def between(first: Vector, second: Vector) -> float:
    """The signed turn from one (2,) direction to another, in (-pi, pi], positive clockwise."""
    cross = first[0] * second[1] - first[1] * second[0]
    return math.atan2(cross, first[0] * second[0] + first[1] * second[1])


def lines_cross(one: Vector, way: Vector, two: Vector, other: Vector, *, least: float) -> Vector | None:
    """Where the line through `one` along `way` crosses the line through `two` along `other`, all (2,); None where the cross
    product of the two ways is smaller than `least`, that is, where they run nearly alike."""
    cross = float(way[0] * other[1] - way[1] * other[0])
    if abs(cross) < least:
        return None
    off = two - one
    return np.asarray(one + way * (float(off[0] * other[1] - off[1] * other[0]) / cross))
