"""Canoe (boat): a long shallow curve to near the shoulder tip."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf

_UNDER = 0.5  # of the bent end, how far below the shoulder it would meet the long curve. Our own choice.


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """Square at the centre, a long curve to just under the shoulder, from there bent up over a short way to cross it square:
    it curves one way all along."""
    x, depth, turn = asked["width"], asked["depth"], asked["turn"]
    start, stop, into = bodice.start(depth), bodice.shoulder.at(x), bodice.shoulder.into(x)
    if turn <= 0.0:
        raise GeometryError(
            "the rounding must be longer than 0", where=bodice.piece.name, advice="Enter a length such as 2 cm."
        )
    under = stop + into * min(_UNDER * turn, 0.5 * max(float(start[1] - stop[1]), 2.0))
    out, size = bodice.square(depth), math.dist(start, under)
    way = (under - start) / size
    long = Path(np.array([[start, start + out * size * 0.45, under - way * size * 0.3, under]]))
    kept, _rest = long.split_at(long.length - min(turn, long.length / 2.0))
    reach = math.dist(kept.end, under) * 0.65
    last = [kept.end, kept.end + kept.end_direction * reach, stop + (under - stop) * 0.65, stop]
    return Drawn((EdgePart(Path.chain([kept, Path(np.array([last]))])),))


# To 1 in (1/2 to 1 1/2) from the shoulder tip, natural depth and 1 in: common practice, no source.
SHAPE = NeckShape(
    "canoe", "Canoe", "long and shallow, to 1 in from the shoulder tip",
    {
        "width": lambda f, _n: f.trade.wide(6.5),
        "depth": lambda f, _n: f.natural + f.trade.scaled(1.0),
        "turn": lambda f, _n: f.trade.scaled(1.5),
    },
    draw, order=80,
)  # fmt: skip
