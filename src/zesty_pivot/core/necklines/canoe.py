"""Canoe (boat): a long shallow curve to near the shoulder tip."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, NeckShape, Part
from zesty_pivot.core.necklines.frame import Frame


def draw(frame: Frame, asked: Asked) -> Drawn:
    """Square at the centre, nearly straight, its end bent over a short way to cross the shoulder."""
    x, depth = asked["width"], asked["depth"]
    start, stop = frame.start(depth), frame.on_shoulder(x)
    out, size = frame.square(depth), math.dist(start, stop)
    way = (stop - start) / size
    return Drawn((Part(Path(np.array([[start, start + out * size * 0.45, stop - way * size * 0.3, stop]]))),))


# To 1 in (1/2 to 1 1/2) from the shoulder tip, natural depth and 1 in: common practice, no source.
SHAPE = NeckShape(
    "canoe", "Canoe", "long and shallow, to 1 in from the shoulder tip",
    {
        "width": lambda f, _n: f.wide(6.5),
        "depth": lambda f, _n: f.natural + f.scaled(1.0),
        "turn": lambda f, _n: f.scaled(1.0),
    },
    draw, order=80,
)  # fmt: skip
