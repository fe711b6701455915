"""One shoulder: front and back unfolded, from one shoulder to the other underarm."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import unit
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity.units import IN


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """From below the underarm of the bare side, x < 0, over the centre at the depth to the shoulder that stays, x > 0. Square
    to the side seam and to the shoulder, so that front and back run on into each other."""
    x = asked["width"]
    middle = float(bodice.nape[0])
    stop, into = bodice.shoulder.at(x), bodice.shoulder.into(x)
    under, along = bodice.side.point_at(asked["lower"]), bodice.side.direction_at(asked["lower"])
    start = np.array([2.0 * middle - under[0], under[1]])
    low = np.array([middle, bodice.top + asked["depth"]])
    way = unit(unit(low - start) + unit(stop - low))
    first, last = float(np.hypot(*(low - start))) / 3.0, float(np.hypot(*(stop - low))) / 3.0
    inwards = np.array([along[1], along[0]])  # square to the side seam, turned over
    return Drawn((
        EdgePart(Path(np.array([
            [start, start + inwards * first, low - way * first, low],
            [low, low + way * last, stop + into * last, stop],
        ]))),
    ), bends=False)  # fmt: skip


# The neck width and 1/2 in, about 6 in deep, to the far underarm: common practice, no source.
SHAPE = NeckShape(
    "one_shoulder", "One shoulder", "from one shoulder to the other underarm",
    {"width": lambda f, _n: f.trade.wide(3.5), "depth": lambda f, _n: min(f.trade.deep(6.0), f.chest),
     "lower": lambda _f, _n: 0.5 * IN},
    draw, kind="whole", backs=("round",), order=130,
)  # fmt: skip
