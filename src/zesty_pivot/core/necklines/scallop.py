"""Scallop: the way from the shoulder to the centre in equal arcs."""

from __future__ import annotations

import itertools
import math

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape, Numbers
from zesty_pivot.core.necklines.curves import arc_over
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """Arcs over equal chords of the straight line between both ends, standing out into the opening."""
    start, stop = bodice.start(asked["depth"]), bodice.shoulder.at(asked["width"])
    count = asked.arcs
    ends = [start + (stop - start) * (number / count) for number in range(count)] + [stop]
    paths = [arc_over(one, two, asked["lobe"]) for one, two in itertools.pairwise(ends)]
    return Drawn((EdgePart(Path.chain(paths)),), is_pointed=True, bends=False, turns=True)


def _lobe(bodice: BodiceHalf, numbers: Numbers) -> float:
    """An arc so high that the lowest one does not lean over the centre."""
    across, tall = numbers["width"], numbers["depth"] - float(bodice.shoulder.at(numbers["width"])[1]) + bodice.top
    return 0.8 * math.hypot(across, tall) / numbers["arcs"] / 2.0 * math.tan(math.atan2(across, tall) / 2.0)


# 3 1/2 in wide, 7 deep, three equal arcs: common practice, no source.
SHAPE = NeckShape(
    "scallop", "Scallop", "equal arcs",
    {
        "width": lambda f, _n: f.trade.wide(4.0),
        "depth": lambda f, _n: f.trade.deep(6.5),
        "lobe": lambda f, n: _lobe(f, n),
    },
    draw, arcs=True, order=100,
)  # fmt: skip
