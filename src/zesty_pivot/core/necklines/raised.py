"""Raised: front and back stand up round the neck."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity import format_length

_LEAN = 0.25  # of the rise, towards the neck; the same on front and back, so that both seams are equal


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """The raised top edge, and the seam down from it to where it runs into the shoulder."""
    rise, inset = asked["rise"], asked["inset"]
    if inset > bodice.shoulder.length:
        what = f"{format_length(inset, bodice.unit)} along the shoulder is off it"
        advice = f"Enter up to {format_length(bodice.shoulder.length, bodice.unit)}."
        raise PlaceError(what, where=bodice.piece.name, advice=advice)
    low, out = bodice.shoulder.point_at(inset), bodice.shoulder.direction_at(inset)
    square = np.array([out[1], -out[0]])  # up from the shoulder
    peak = low + square * rise - out * (inset * 0.5 + rise * _LEAN)
    inner = (peak - square * rise * 0.45, low - out * min(rise, inset + 20.0) * 0.35)
    seam = Path(np.array([[peak, inner[0], inner[1], low]]))
    start = bodice.nape + np.array([0.0, -rise])
    way = seam.start_direction
    # Square to the seam, so that the edge runs on without a corner where front and back meet.
    into = np.array([-way[1], way[0]])
    path = rounded(start, bodice.square(bodice.natural), peak, into, hug=0.6)
    return Drawn((EdgePart(path), EdgePart(seam, "shoulder")), bends=False)


# 1 to 2 cm in on the shoulder, up 3 to 6 cm: common practice, no source.
SHAPE = NeckShape(
    "raised", "Raised", "stands up round the neck",
    {"rise": lambda _f, _n: 30.0, "inset": lambda _f, _n: 15.0},
    draw, kind="raise", backs=("round",), order=190,
)  # fmt: skip
