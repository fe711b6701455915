"""Round: a quarter curve that passes the corner of its square at 1 in."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """The curve, square at the centre and at the shoulder."""
    x, depth = asked["width"], asked["depth"]
    path = rounded(bodice.start(depth), bodice.square(depth), bodice.shoulder.at(x), bodice.shoulder.into(x), asked["corner"])
    return Drawn((EdgePart(path),))


# 3 to 4 in wide and deep, the curve 1 in out of the corner: common practice, no source.
SHAPE = NeckShape(
    "round", "Round", "a quarter curve",
    {
        "width": lambda f, _n: f.trade.wide(3.5),
        "depth": lambda f, _n: f.trade.deep(4.0),
        "corner": lambda _f, n: 0.25 * min(n["width"], n["depth"]),
    },
    draw, order=10,
)  # fmt: skip
