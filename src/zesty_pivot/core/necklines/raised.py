"""Raised: front and back stand up round the neck."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.necklines.frame import Frame
from zesty_pivot.core.quantity import format_length

_LEAN = 0.25  # of the rise, towards the neck; the same on front and back, so that both seams are equal


def draw(frame: Frame, asked: Asked) -> Drawn:
    """The raised top edge, and the seam down from it to where it runs into the shoulder."""
    rise, inset = asked["rise"], asked["inset"]
    if inset > frame.shoulder.length:
        what = f"{format_length(inset, frame.unit)} along the shoulder is off it"
        advice = f"Give up to {format_length(frame.shoulder.length, frame.unit)}."
        raise PlaceError(what, where=frame.piece.name, advice=advice)
    low, out = frame.shoulder.point_at(inset), frame.shoulder.direction_at(inset)
    square = np.array([out[1], -out[0]])  # up from the shoulder
    peak = low + square * rise - out * (inset * 0.5 + rise * _LEAN)
    inner = (peak - square * rise * 0.45, low - out * min(rise, inset + 20.0) * 0.35)
    seam = Path(np.array([[peak, inner[0], inner[1], low]]))
    start = frame.nape + np.array([0.0, -rise])
    way = seam.start_direction
    # Square to the seam, so that the edge runs on without a corner where front and back meet.
    into = np.array([-way[1], way[0]])
    path = rounded(start, frame.square(frame.natural), peak, into, hug=0.6)
    return Drawn((EdgePart(path), EdgePart(seam, "shoulder")), bends=False)


# 1 to 2 cm in on the shoulder, up 3 to 6 cm: common practice, no source.
SHAPE = NeckShape(
    "raised", "Raised", "stands up round the neck",
    {"rise": lambda _f, _n: 30.0, "inset": lambda _f, _n: 15.0},
    draw, kind="raise", backs=("round",), order=190,
)  # fmt: skip
