"""Wrap (surplice): each front laps over to past the far waist dart."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.frame import IN, Frame


def draw(frame: Frame, asked: Asked) -> Drawn:
    """From the lower edge of the far side, x < 0, straight up, and in a slight curve to the near shoulder."""
    x = asked["width"]
    middle = float(frame.nape[0])
    stop = frame.on_shoulder(x)
    far = 2.0 * middle - (float(frame.pin()[0]) + asked["past"])
    waist = frame.top + (frame.level("waist") if "waist" in frame.levels else frame.lowest)
    peak = np.array([far, waist - asked["up"]])
    floor = _floor(frame, 2.0 * middle - far, 2.0 * middle)
    if peak[1] >= floor[1] - 5.0:
        raise PlaceError("the wrap ends below the lower edge", where=frame.piece.name, advice="Let it end higher.")
    way = stop - peak
    aside = np.array([-way[1], way[0]]) * 0.06
    curve = [peak, peak + way / 3.0 + aside, stop - way / 3.0 + aside, stop]
    return Drawn(
        (EdgePart(Path.straight(floor, peak), "opening"), EdgePart(Path(np.array([curve])))), is_pointed=True, bends=False
    )


def _floor(frame: Frame, x: float, twice: float) -> np.ndarray:
    """The point of the lower edge of the far side straight below."""
    lower = frame.lower
    hits = lower.crossing(np.array([x, 0.0]), np.array([0.0, 1.0]))
    if not hits:
        raise PlaceError("the wrap goes past the side", where=frame.piece.name, advice="Let it end nearer.")
    at = lower.point_at(hits[0])
    return np.array([twice - at[0], at[1]])


# 4 in wide, from the neck point to 2 in past the far waist dart's axis, 2 in up: common practice, no source.
SHAPE = NeckShape(
    "wrap", "Wrap", "each front laps over the other",
    {"width": lambda f, _n: f.wide(4.0), "past": lambda _f, _n: 2.0 * IN, "up": lambda _f, _n: 2.0 * IN},
    draw, kind="whole", order=170,
)  # fmt: skip
