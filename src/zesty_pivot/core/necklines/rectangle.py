"""Rectangle: a wide square, to 2 in from the shoulder tip."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.square_neck import draw

# To the shoulder tip less 2 in, 5 to 6 in deep; 7 is too deep: common practice, no source.
SHAPE = NeckShape(
    "rectangle", "Rectangle", "wide and straight, 2 in from the shoulder tip",
    {"width": lambda f, _n: f.trade.wide(5.5), "depth": lambda f, _n: f.trade.deep(5.0)},
    draw, order=30,
)  # fmt: skip
