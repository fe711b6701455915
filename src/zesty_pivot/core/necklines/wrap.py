"""Wrap (surplice): each front laps over to past the far waist dart."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity.units import IN


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """From the lower edge of the far side, x < 0, straight up, and in a slight curve to the near shoulder."""
    x = asked["width"]
    middle = float(bodice.nape[0])
    stop = bodice.shoulder.at(x)
    far = 2.0 * middle - (float(bodice.pin()[0]) + asked["past"])
    waist = bodice.top + (bodice.level("waist") if "waist" in bodice.levels else bodice.lowest)
    peak = np.array([far, waist - asked["up"]])
    floor = _floor(bodice, 2.0 * middle - far, 2.0 * middle)
    if peak[1] >= floor[1] - 5.0:
        raise PlaceError("the wrap ends below the lower edge", where=bodice.piece.name, advice="Let it end higher.")
    way = stop - peak
    aside = np.array([-way[1], way[0]]) * 0.06
    curve = [peak, peak + way / 3.0 + aside, stop - way / 3.0 + aside, stop]
    return Drawn(
        (EdgePart(Path.straight(floor, peak), "opening"), EdgePart(Path(np.array([curve])))), is_pointed=True, bends=False
    )


def _floor(bodice: BodiceHalf, x: float, twice: float) -> np.ndarray:
    """The point of the lower edge of the far side straight below."""
    lower = bodice.lower
    hits = lower.crossing(np.array([x, 0.0]), np.array([0.0, 1.0]))
    if not hits:
        raise PlaceError("the wrap goes past the side", where=bodice.piece.name, advice="Let it end nearer.")
    at = lower.point_at(hits[0])
    return np.array([twice - at[0], at[1]])


# 4 in wide, from the neck point to 2 in past the far waist dart's axis, 2 in up: common practice, no source.
SHAPE = NeckShape(
    "wrap", "Wrap", "each front laps over the other",
    {"width": lambda f, _n: f.trade.wide(4.0), "past": lambda _f, _n: 2.0 * IN, "up": lambda _f, _n: 2.0 * IN},
    draw, kind="whole", order=170,
)  # fmt: skip
