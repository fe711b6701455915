"""Free: a curve of the designer's own through a few points."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import through
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def point_of(bodice: BodiceHalf, asked: Asked, point: tuple[float, float]) -> np.ndarray:
    """A point given by shares: of the way from the centre to the width, and from the neck point's height to the depth."""
    return np.array([asked["width"] * point[0], bodice.top + asked["depth"] * point[1]])


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """Square at the centre, through the points, to the shoulder."""
    x, depth = asked["width"], asked["depth"]
    inner = [point_of(bodice, asked, point) for point in asked.points]
    points = [bodice.start(depth), *inner, bodice.shoulder.at(x)]
    return Drawn((EdgePart(through(points, bodice.square(depth), bodice.shoulder.into(x))),))


SHAPE = NeckShape(
    "free", "Free curve", "through points that you drag",
    {"width": lambda f, _n: f.trade.wide(4.0), "depth": lambda f, _n: f.trade.deep(5.0)},
    draw, points=((0.45, 0.97), (0.8, 0.75)), order=210,
)  # fmt: skip
