"""Wrap (surplice): each front laps over to past the far waist dart."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.necklines.base import MARK, Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.quantity.units import IN


def mark(bodice: BodiceHalf, asked: Asked) -> tuple[Vector, Vector]:
    """The wrap's end, turned over to the near side, and the point of the lower edge under it: so far past the axis of the waist
    dart and up from the waist, on the flat piece with that dart open."""
    far = _axis(bodice) + asked["past"]
    hits = bodice.lower.crossing(np.array([far, 0.0]), np.array([0.0, 1.0]))
    if not hits:
        raise PlaceError("the wrap goes past the side", where=bodice.piece.name, advice="Let it end nearer.")
    floor = bodice.lower.point_at(hits[0])
    waist = bodice.levels["waist"] if bodice.piece.is_hip_length else float(floor[1])
    peak = np.array([far, waist - asked["up"]])
    if peak[1] > floor[1] - 5.0:
        raise PlaceError("the wrap ends below the lower edge", where=bodice.piece.name, advice="Let it end higher.")
    return peak, floor


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """From the lower edge of the far side, x < 0, up to the wrap's end, and in a slight curve to the near shoulder."""
    turned = np.array([-1.0, 1.0])
    middle = np.array([2.0 * float(bodice.nape[0]), 0.0])
    marked = next((piece for piece in (bodice.piece, bodice.more) if piece is not None and MARK in piece.landmarks), None)
    if marked is not None:  # darts have been put away since, or the side panel has been laid to the other
        peak = marked.pivot(MARK)
        floor = np.array([peak[0], peak[1] + max(asked["up"], 5.0)])
    else:
        peak, floor = mark(bodice, asked)
    end = Path.straight(middle + floor * turned, middle + peak * turned)
    curve = edge_from(end.end, bodice.shoulder.at(asked["width"]))
    return Drawn((EdgePart(end, "opening"), EdgePart(curve)), is_pointed=True, bends=False)


def edge_from(peak: Vector, stop: Vector) -> Path:
    """The wrap's edge from its end on the far side to the near shoulder, a little full."""
    way = stop - peak
    aside = np.array([-way[1], way[0]]) * 0.06
    return Path(np.array([[peak, peak + way / 3.0 + aside, stop - way / 3.0 + aside, stop]]))


def _axis(bodice: BodiceHalf) -> float:
    """How far the waist dart's axis is from the centre at the waist: the middle of its mouth; without one, of the block's; else
    below the bust point."""
    for piece in (bodice.piece, bodice.drafted):
        for dart in piece.darts:
            if piece.role(piece.dart_edge(dart.id)) == "waist" and dart.pivot == "bust_point":
                return float(np.mean([end[0] for end in piece.mouth(dart.id)]))
    return float(bodice.pin()[0])


# 4 in wide, from the neck point to 2 in past the far waist dart's axis, 2 in up: common practice, no source.
SHAPE = NeckShape(
    "wrap", "Wrap", "each front laps over the other",
    {"width": lambda f, _n: f.trade.wide(4.0), "past": lambda _f, _n: 2.0 * IN, "up": lambda _f, _n: 2.0 * IN},
    draw, kind="whole", order=170, mark=mark,
)  # fmt: skip
