"""Off the shoulder: from the centre to the armhole below its tip."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import of_curves
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.sweetheart import lobe
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity import format_length


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """A long curve; at the centre round, or a slight V or sweetheart."""
    depth, under = asked["depth"], asked["under"]
    whole = bodice.armhole.length
    if not (5.0 <= under <= whole - 5.0 or abs(under - whole) < 1e-6):  # or to its end, the underarm
        most = format_length(whole - 5.0, bodice.unit)
        advice = f"Enter {format_length(5.0, bodice.unit)} to {most}, or 100% for the underarm."
        raise PlaceError("the edge does not end on the armhole", where=bodice.piece.name, advice=advice)
    start, stop = bodice.start(depth), bodice.armhole.point_at(under)
    size = math.dist(start, stop)
    if asked.end == "heart" and not bodice.is_back:
        mid = start + (stop - start) * 0.55 + np.array([0.0, -size * 0.08])
        rest = Path(np.array([[mid, mid + (stop - mid) / 3.0, stop - (stop - mid) / 3.0, stop]]))
        return Drawn((EdgePart(Path.chain([lobe(start, mid), rest])),), "armhole", is_pointed=True, bends=False)
    if asked.end == "point" and not bodice.is_back:
        return Drawn((EdgePart(Path.straight(start, stop)),), "armhole", is_pointed=True, bends=False)
    return Drawn((EdgePart(_curve(bodice, start, bodice.square(depth), stop)),), "armhole", bends=False)


def _curve(bodice: BodiceHalf, start: Vector, out: Vector, stop: Vector) -> Path:
    """Square to the centre, then straight at the armhole; into its hollow, near the underarm, from as far below as it takes to
    keep to the piece."""
    way = stop - start
    size = math.hypot(way[0], way[1])
    paths = [
        Path(np.array([[start, start + out * size * wide, stop - end, stop]]))
        for wide, end in ((0.45, way * 0.3), *((0.35, np.array([0.3, -below]) * size) for below in _BELOW))
    ]
    return next((path for path in paths if _is_clear(path, bodice)), paths[-1])


def _is_clear(path: Path, bodice: BodiceHalf) -> bool:
    """Whether a curve meets the armhole nowhere but where it ends."""
    met = [spot[:2] for edge in bodice.armhole.paths for spot in of_curves(path.cubics, edge.cubics)]
    return all(path.length - path.distance_of(segment, t) < 0.5 for segment, t in met)


# How far below its end a curve into the armhole's hollow comes from, as shares of its length. Our own choice.
_BELOW = (0.0, 0.05, 0.1)


# 5 in below the shoulder on the armhole, 3 below the round neck at the centre: common practice, no source.
SHAPE = NeckShape(
    "off_shoulder", "Off shoulder", "to the armhole, below its tip",
    {
        "depth": lambda f, _n: f.trade.deep(6.0),
        "under": lambda f, _n: f.armhole.length * 0.45,
    },
    draw, "armhole", at_end=("round", "point", "heart"), backs=("round",), order=140,
)  # fmt: skip
