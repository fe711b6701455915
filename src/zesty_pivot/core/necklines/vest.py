"""Vest: a deep V that leaves 5 to 6 cm of the shoulder, measured along it."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.v_neck import draw
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def left_of_shoulder(bodice: BodiceHalf, mm: float) -> float:
    """The half width (mm from the centre) that leaves so much of the shoulder, measured along it from its tip."""
    return float(bodice.shoulder.point_at(max(bodice.shoulder.length - mm, 0.0))[0])


# 5 to 6 cm of shoulder left, the front 15 cm deeper than natural: common practice, no source.
SHAPE = NeckShape(
    "vest", "Vest", "a deep V; 5.5 cm of the shoulder is left",
    {
        "width": lambda f, _n: max(left_of_shoulder(f, 55.0), f.neck_x + 5.0),
        "depth": lambda f, _n: min(f.natural + 150.0, f.bust),
        "bow": lambda _f, _n: 0.0,
    },
    draw, order=55,
)  # fmt: skip
