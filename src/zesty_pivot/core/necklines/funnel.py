"""Funnel: a high raised neckline."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.raised import draw

SHAPE = NeckShape(
    "funnel", "Funnel", "stands high round the neck",
    {"rise": lambda _f, _n: 60.0, "inset": lambda _f, _n: 20.0},
    draw, kind="raise", backs=("round",), order=200,
)  # fmt: skip
