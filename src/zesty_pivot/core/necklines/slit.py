"""Slit: a round neck slit on the centre, straight or a little open at the top."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.round_neck import draw as draw_round
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """The round neck alone where the slit is straight, else with the wedge that it opens by."""
    (part,) = draw_round(bodice, asked).parts
    wide = asked["open"]
    if wide <= 0.0:
        return Drawn((part,))
    hits = with_line(part.path.cubics, np.array([wide, 0.0]), np.array([0.0, 1.0]))
    if not hits or asked["slit"] <= asked["depth"] + 1.0:
        raise GeometryError("the slit does not open at the neckline", advice="Make it longer, or open it less.")
    _before, rest = part.path.split_at(part.path.distance_of(hits[0][0], hits[0][1]))
    return Drawn((EdgePart(Path.chain([Path.straight(bodice.start(asked["slit"]), rest.start), rest])),), is_pointed=True)


# 3 in wide and deep, slit to 7 in; straight, or open 1/4 to 1/2 in at the top: common practice, no source.
SHAPE = NeckShape(
    "slit", "Slit", "round, slit on the centre",
    {
        "width": lambda f, _n: f.trade.wide(3.25),
        "depth": lambda f, _n: f.trade.deep(3.25),
        "corner": lambda _f, n: 0.41 * min(n["width"], n["depth"]),
        "slit": lambda f, _n: f.trade.deep(7.0),
        "open": lambda _f, _n: 0.0,
    },
    draw, order=110,
)  # fmt: skip
