"""Offset: a line beside a line, everywhere at one distance."""

from __future__ import annotations

import itertools
import math

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector

EVERY = 5.0  # mm of a curve for each cubic of the line beside it, which is within 1e-3 mm of its distance for turns of cloth


def beside(path: Path, by: float) -> Path:
    """A line `by` mm to the right of a path's way (inside a piece), cubic by cubic: ends moved along their normals, tangents
    scaled by one less the curvature times the distance.

    Source: the derivative of an offset curve, C'(t)(1 - k d); Tiller and Hanson 1984, from memory.
    """
    made = []
    for number in range(len(path.cubics)):
        segment = Path(path.cubics[number : number + 1])
        count = max(1, math.ceil(segment.length / EVERY))
        for part in range(count):
            stretch = segment.between(segment.length * part / count, segment.length * (part + 1) / count)
            made += [_moved(cubic, by) for cubic in stretch.cubics]
    for one, two in itertools.pairwise(made):
        two[0] = one[3]
    return Path(np.array(made))


def begun_at(path: Path, start: Vector) -> Path:
    """A path whose first point is exactly this one, which it was but for rounding."""
    cubics = path.cubics.copy()
    cubics[0, 0] = start
    return Path(cubics)


def _moved(cubic: np.ndarray, by: float) -> np.ndarray:
    first, second = cubic[1] - cubic[0], cubic[3] - cubic[2]
    bend = cubic[0] - 2.0 * cubic[1] + cubic[2], cubic[1] - 2.0 * cubic[2] + cubic[3]
    path, ends = Path(cubic[None]), []
    for at, way, turn, along in (
        (cubic[0], first, bend[0], path.start_direction), (cubic[3], second, bend[1], path.end_direction),
    ):  # fmt: skip
        size, normal = math.hypot(*way), np.array([-along[1], along[0]])
        if size == 0.0:  # a handle that lies in its end
            ends.append((at + normal * by, way))
            continue
        # Of a cubic the curvature at an end is 2/3 of the cross of tangent leg and second difference, by the leg's cube.
        curvature = 2.0 / 3.0 * float(way[0] * turn[1] - way[1] * turn[0]) / size**3
        ends.append((at + normal * by, way * (1.0 - curvature * by)))
    (start, out), (stop, into) = ends
    return np.array([start, start + out, stop - into, stop])
