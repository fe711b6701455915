"""Strapless edge: from the centre to low on the armhole."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.off_shoulder import draw

# 7 to 8 in down, to low on the armhole: common practice, no source.
SHAPE = NeckShape(
    "strapless", "Strapless", "straight or sweetheart, to low on the armhole",
    {
        "depth": lambda f, _n: f.trade.deep(7.5),
        "under": lambda f, _n: f.armhole.length * 0.75,
    },
    draw, "armhole", at_end=("round", "heart"), backs=("round",), order=150,
)  # fmt: skip
