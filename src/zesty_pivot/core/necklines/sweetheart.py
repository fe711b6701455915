"""Sweetheart: straight down, then a convex curve to a point at the centre."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def lobe(start: Vector, stop: Vector) -> Path:
    """The convex curve from the dip at the centre up and out to where the straight side begins."""
    wide, tall = stop[0] - start[0], start[1] - stop[1]
    one = start + np.array([wide * 0.12, -tall * 0.72])
    return Path(np.array([[start, one, stop - np.array([wide * 0.55, tall * 0.06]), stop]]))


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """The curve, then straight up to the shoulder."""
    x = asked["width"]
    start, stop = bodice.start(asked["depth"]), bodice.shoulder.at(x)
    side = np.array([x, min(bodice.top + asked["drop"], start[1] - 1.0)])
    return Drawn((EdgePart(Path.chain([lobe(start, side), Path.straight(side, stop)])),), is_pointed=True, bends=False)


# 4 in wide, 6 to 7 in deep, straight down 4: common practice, no source.
SHAPE = NeckShape(
    "sweetheart", "Sweetheart", "straight down, then a convex curve",
    {
        "width": lambda f, _n: f.trade.wide(4.0),
        "depth": lambda f, _n: f.trade.deep(6.5),
        "drop": lambda f, _n: f.trade.deep(4.0),
    },
    draw, order=60,
)  # fmt: skip
