"""Round: a quarter curve that passes the corner of its square at 1 in."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """The curve in the box of its width and depth: square at the centre, upright at the shoulder, past the box's corner. The
    back goes on from there."""
    stop = bodice.shoulder.at(asked["width"])
    start, out = bodice.start(asked["depth"]), bodice.square(asked["depth"])
    return Drawn((EdgePart(rounded(start, out, stop, np.array([0.0, 1.0]), asked["corner"])),), bends=False)


# 3 to 4 in wide and deep, a quarter circle (sqrt(2) - 1 of its radius out of the corner); many pass it at 1 in: common
# practice, no source.
SHAPE = NeckShape(
    "round", "Round", "a quarter curve",
    {
        "width": lambda f, _n: f.trade.wide(3.5),
        "depth": lambda f, _n: f.trade.deep(4.0),
        "corner": lambda _f, n: 0.41 * min(n["width"], n["depth"]),
    },
    draw, order=10,
)  # fmt: skip
