"""Vest: a deep V that leaves 5 to 6 cm of the shoulder."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.v_neck import draw

# 5 to 6 cm of shoulder left, the front 15 cm deeper than natural: common practice, no source.
SHAPE = NeckShape(
    "vest", "Vest", "a deep V; 5.5 cm of the shoulder is left",
    {
        "width": lambda f, _n: max(f.tip_x - 55.0, f.neck_x + 5.0),
        "depth": lambda f, _n: min(f.natural + 150.0, f.bust),
        "bow": lambda _f, _n: 0.0,
    },
    draw, order=55,
)  # fmt: skip
