"""Camisole: a top edge to a strap point on the dart line, from there down to a lowered underarm."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity.units import IN


def strap_point(bodice: BodiceHalf, asked: Asked) -> np.ndarray:
    """The middle of the seat on which the strap is sewn, over the bust point or the axis of the back's waist dart: as wide as
    the strap and as much below the point of the edge."""
    return np.array([asked["width"], bodice.top + asked["drop"] + asked["strap"]])


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """The top edge, square at the centre, and the edge under the arm."""
    first = bodice.side
    lower = asked["lower"]
    if not 0.0 <= lower < first.length - 1.0:
        raise PlaceError(
            "the underarm would be lowered off the end of the side seam", where=bodice.piece.name, advice="Lower it less."
        )
    start, peak, stop = bodice.start(asked["depth"]), strap_point(bodice, asked), first.point_at(lower)
    if peak[1] > start[1] - 1.0 or not start[0] + 5.0 < peak[0] < stop[0] - 5.0:
        raise PlaceError("the strap point does not lie above the edge", where=bodice.piece.name, advice="Set it higher.")
    out = bodice.square(asked["depth"])
    half = np.array([asked["strap"] / 2.0, 0.0])
    inner, outer = peak - half, peak + half
    wide, tall = inner[0] - start[0], start[1] - inner[1]
    top = Path(np.array([[start, start + out * wide * 0.5, inner + np.array([-wide * 0.3, tall * 0.55]), inner]]))
    down = stop - outer
    along = first.direction_at(lower)  # square to it, front and back meet without a corner; letting out turns both
    inwards = np.array([-along[1], along[0]])
    size = math.hypot(*down)
    arm = Path(np.array([[outer, outer + np.array([down[0] * 0.12, down[1] * 0.55]), stop + inwards * size * 0.45, stop]]))
    return Drawn((EdgePart(Path.chain([top, Path.straight(inner, outer)])), EdgePart(arm, "armhole")), "side_seam", bends=False)


def _over_dart(bodice: BodiceHalf) -> float:
    """The dart line: the bust point's, on the back that of the waist dart."""
    for name in ("bust_point", "waist_tip", "blade_point"):
        if name in bodice.piece.landmarks:
            return float(bodice.piece.pivot(name)[0])
    return bodice.neck_x * 1.2


# The strap point on the dart line, 3/4 in above the chest line; 1/2 in above the bust line at the centre; the armhole lowered
# 1/2 in and widened 1/4, the lower edge out 1 1/4 in; straps 1/4 in wide, the tip a seat of that width: common practice, no
# source.
SHAPE = NeckShape(
    "camisole", "Camisole", "straps from the dart line",
    {
        "width": lambda f, _n: _over_dart(f),
        "depth": lambda f, _n: f.bust - f.trade.scaled(0.5),
        "drop": lambda f, n: min(f.chest - f.trade.scaled(0.75), n["depth"] - 20.0),
        "lower": lambda _f, _n: 0.5 * IN,
        "widen": lambda _f, _n: 0.25 * IN,
        "flare": lambda _f, _n: 1.25 * IN,
        "strap": lambda _f, _n: 0.25 * IN,
    },
    draw, "side_seam", backs=("round", "razor"),
    more={"width": "Strap from the centre", "drop": "Strap point below the neck point"}, order=160,
)  # fmt: skip
