"""Keyhole with a yoke: the opening ends on a seam from the centre to the middle of the armhole."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.keyhole import HOLE
from zesty_pivot.core.necklines.round_neck import draw

# 3 1/2 in wide, the seam 7 in down: common practice, no source.
SHAPE = NeckShape(
    "keyhole_yoke", "Keyhole, yoke", "the opening ends on a yoke seam",
    {
        "width": lambda f, _n: f.trade.wide(3.5),
        "depth": lambda f, _n: f.trade.deep(3.25),
        "corner": lambda _f, n: 0.25 * min(n["width"], n["depth"]),
        "drop": lambda f, _n: f.trade.deep(7.0),
        **HOLE,
        "hole_height": lambda _f, n: 0.5 * (n["drop"] - n["depth"] - n["hole_start"]),
    },
    draw, more={"drop": "Yoke seam below the neck point"}, order=95,
)  # fmt: skip
