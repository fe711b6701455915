"""Keyhole, cut in one: a round neck with an opening below it on the centre."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.round_neck import draw

HOLE = {
    "hole_start": lambda f, _n: f.trade.scaled(2.0),
    "hole_width": lambda f, _n: f.trade.scaled(1.5),
    "hole_height": lambda f, _n: f.trade.scaled(1.5),
    "hole_end": lambda f, _n: f.trade.scaled(1.5),
}

# 3 1/2 in wide, 3 to 3 1/2 deep; the opening begins 2 in below, is 3 in across where it is widest and ends 1 1/2 in below
# that, in a V or a C. Beginning, widest place and end are three numbers: common practice, no source.
SHAPE = NeckShape(
    "keyhole", "Keyhole", "round, with an opening on the centre",
    {
        "width": lambda f, _n: f.trade.wide(3.5),
        "depth": lambda f, _n: f.trade.deep(3.25),
        "corner": lambda _f, n: 0.41 * min(n["width"], n["depth"]),
        **HOLE,
    },
    draw, at_end=("round", "point"), order=90,
)  # fmt: skip
