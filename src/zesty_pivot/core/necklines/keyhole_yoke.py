"""Keyhole with a yoke: the opening ends on, or is widest on, a seam from the centre to the middle of the armhole."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.keyhole import HOLE
from zesty_pivot.core.necklines.round_neck import draw


def seam(start: Vector, out: Vector, stop: Vector, form: str) -> Path:
    """The yoke's seam from the centre, square to it (`out`), to the armhole: a curve, a sweetheart or a straight line."""
    wide, tall = float(stop[0] - start[0]), float(start[1] - stop[1])
    if form == "straight":
        return Path.straight(start, stop)
    if form == "heart":
        top = start + np.array([0.5 * wide, -min(0.2 * wide, 0.7 * max(tall, 10.0))])
        rise = top[1] - start[1]
        first = [start, start + np.array([0.06 * wide, 0.7 * rise]), top - np.array([0.25 * wide, 0.0]), top]
        last = [top, top + np.array([0.2 * wide, 0.0]), stop - np.array([0.2 * wide, 0.3 * (stop[1] - top[1])]), stop]
        return Path(np.array([first, last]))
    return Path(np.array([[start, start + out * wide * 0.55, stop + np.array([-0.2 * wide, 0.5 * tall]), stop]]))


# 3 1/2 in wide, the seam 7 in down, a curve square to the centre; the opening 1 1/2 in out where it crosses the seam, and
# 1 1/2 in longer below it: common practice, no source.
SHAPE = NeckShape(
    "keyhole_yoke", "Keyhole, yoke", "an opening across a yoke seam",
    {
        "width": lambda f, _n: f.trade.wide(3.5),
        "depth": lambda f, _n: f.trade.deep(3.25),
        "corner": lambda _f, n: 0.41 * min(n["width"], n["depth"]),
        "drop": lambda f, _n: f.trade.deep(7.0),
        **HOLE,
        "hole_height": lambda _f, n: (n["drop"] - n["depth"] - n["hole_start"]) * (1.0 if n["through"] else 0.5),
        "hole_end": lambda f, _n: f.trade.scaled(1.5),
    },
    draw, more={"drop": "Yoke seam below the neck point"}, order=95, at_end=("point", "round", "heart"),
    forms=("curve", "heart", "straight"),
)  # fmt: skip
