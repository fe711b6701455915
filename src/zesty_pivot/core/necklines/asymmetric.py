"""Asymmetric: deep on one side of the front, drawn on the unfolded front."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """From the shoulder of the other side to that of the deep side, which is drawn at x > 0: level at the lowest point, `bow`
    mm beside the centre, and square to both shoulders."""
    x = asked["width"]
    middle = float(bodice.nape[0])
    stop, into = bodice.shoulder.at(x), bodice.shoulder.into(x)
    over = np.array([-1.0, 1.0])
    start = np.array([2.0 * middle, 0.0]) + stop * over
    low = np.array([middle + asked["bow"], bodice.top + asked["depth"]])
    level = np.array([1.0, 0.0])
    first = rounded(start, into * over, low, -level, hug=0.62)
    last = rounded(low, level, stop, into, hug=0.62)
    return Drawn((EdgePart(Path.chain([first, last])),), bends=False)


# 3 1/2 to 4 in wide, 6 1/2 to 7 deep on one side: common practice, no source.
SHAPE = NeckShape(
    "asymmetric", "Asymmetric", "deep on one side, as worn",
    {
        "width": lambda f, _n: f.trade.wide(3.75),
        "depth": lambda f, _n: f.trade.deep(6.75),
        "bow": lambda _f, n: 0.25 * n["width"],
    },
    draw, kind="whole", more={"bow": "Lowest point beside the centre"}, order=120,
)  # fmt: skip
