"""Free: a curve of the designer's own through a few points."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import through
from zesty_pivot.core.necklines.frame import Frame


def point_of(frame: Frame, asked: Asked, point: tuple[float, float]) -> np.ndarray:
    """A point given by shares: of the way from the centre to the width, and from the neck point's height to the depth."""
    return np.array([asked["width"] * point[0], frame.top + asked["depth"] * point[1]])


def draw(frame: Frame, asked: Asked) -> Drawn:
    """Square at the centre, through the points, to the shoulder."""
    x, depth = asked["width"], asked["depth"]
    inner = [point_of(frame, asked, point) for point in asked.points]
    points = [frame.start(depth), *inner, frame.on_shoulder(x)]
    return Drawn((EdgePart(through(points, frame.square(depth), frame.into(x))),))


SHAPE = NeckShape(
    "free", "Free curve", "through points that are dragged",
    {"width": lambda f, _n: f.wide(4.0), "depth": lambda f, _n: f.deep(5.0)},
    draw, points=((0.45, 0.97), (0.8, 0.75)), order=210,
)  # fmt: skip
