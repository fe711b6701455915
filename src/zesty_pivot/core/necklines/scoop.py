"""Scoop: a deep box whose corner is rounded between 1 in past the middle of each side."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """Straight to past the middle of the lower side, round, straight up to the shoulder."""
    x, depth, past = asked["width"], asked["depth"], asked["corner"]
    start, stop = bodice.start(depth), bodice.shoulder.at(x)
    out, up = bodice.square(depth), np.array([0.0, -1.0])
    tall = float(start[1] - stop[1])
    flat = start + out * min(x / 2.0 + past, x * 0.9)
    side = stop - up * min(tall / 2.0 + past, tall * 0.9)
    curve = rounded(flat, out, side, -up)
    paths = [Path.straight(start, flat), curve, Path.straight(side, stop)]
    return Drawn((EdgePart(Path.chain(paths)),), bends=False)


# 4 in wide, 6 in deep: common practice, no source.
SHAPE = NeckShape(
    "scoop", "Scoop", "a deep box, its corner rounded",
    {
        "width": lambda f, _n: f.trade.wide(4.0),
        "depth": lambda f, _n: f.trade.deep(6.0),
        "corner": lambda f, _n: f.trade.scaled(1.0),
    },
    draw, more={"corner": "Corner rounded from past the middles by"}, order=40,
)  # fmt: skip
