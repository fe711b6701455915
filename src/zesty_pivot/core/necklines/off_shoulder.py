"""Off the shoulder: from the centre to the armhole below its tip."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.sweetheart import lobe
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity import format_length


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """A long curve; at the centre round, or a slight V or sweetheart."""
    depth, under = asked["depth"], asked["under"]
    if not 5.0 <= under <= bodice.armhole.length - 5.0:
        most = format_length(bodice.armhole.length - 5.0, bodice.unit)
        advice = f"Enter {format_length(5.0, bodice.unit)} to {most}."
        raise PlaceError("the edge does not end on the armhole", where=bodice.piece.name, advice=advice)
    start, stop = bodice.start(depth), bodice.armhole.point_at(under)
    size = math.dist(start, stop)
    if asked.end == "heart" and not bodice.is_back:
        mid = start + (stop - start) * 0.55 + np.array([0.0, -size * 0.08])
        rest = Path(np.array([[mid, mid + (stop - mid) / 3.0, stop - (stop - mid) / 3.0, stop]]))
        return Drawn((EdgePart(Path.chain([lobe(start, mid), rest])),), "armhole", is_pointed=True, bends=False)
    if asked.end == "point" and not bodice.is_back:
        return Drawn((EdgePart(Path.straight(start, stop)),), "armhole", is_pointed=True, bends=False)
    way = (stop - start) / size
    out = bodice.square(depth)
    path = Path(np.array([[start, start + out * size * 0.45, stop - way * size * 0.3, stop]]))
    return Drawn((EdgePart(path),), "armhole", bends=False)


# 5 in below the shoulder on the armhole, 3 below the round neck at the centre: common practice, no source.
SHAPE = NeckShape(
    "off_shoulder", "Off shoulder", "to the armhole, below its tip",
    {
        "depth": lambda f, _n: f.trade.deep(6.0),
        "under": lambda f, _n: f.armhole.length * 0.45,
    },
    draw, "armhole", at_end=("round", "point", "heart"), backs=("round",), order=140,
)  # fmt: skip
