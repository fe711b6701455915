"""Queen Anne: slanting out from near the neck to a corner, then a curve to the centre."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """A curve square at the centre to the corner, half of what is left of the shoulder further out, then the slant."""
    x, depth = asked["width"], asked["depth"]
    start, stop = bodice.start(depth), bodice.shoulder.at(x)
    corner = np.array([x + (bodice.tip_x - x) / 2.0, min(bodice.top + asked["drop"], start[1] - 1.0)])
    curve = rounded(start, bodice.square(depth), corner, np.array([0.0, 1.0]), hug=0.6)
    return Drawn((EdgePart(Path.chain([curve, Path.straight(corner, stop)])),), bends=False, is_straight=True)


# 3 in wide, 7 deep, the corner at 4 in down: common practice, no source.
SHAPE = NeckShape(
    "queen_anne", "Queen Anne", "slanting out to a corner, then curved",
    {
        "width": lambda f, _n: f.trade.wide(3.15),
        "depth": lambda f, _n: f.trade.deep(6.5),
        "drop": lambda f, _n: f.trade.deep(4.0),
    },
    draw, order=70,
)  # fmt: skip
