"""Square: straight down, straight across."""

from __future__ import annotations

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """From the centre across, then up to the shoulder."""
    x, depth = asked["width"], asked["depth"]
    start = bodice.start(depth)
    return Drawn((EdgePart(Path.straight(start, (x, start[1]), bodice.shoulder.at(x))),), bends=False)


# 4 in wide; not too wide or it slips off: common practice, no source.
SHAPE = NeckShape(
    "square", "Square", "straight down, straight across",
    {"width": lambda f, _n: f.trade.wide(4.0), "depth": lambda f, _n: f.trade.deep(4.5)},
    draw, order=20,
)  # fmt: skip
