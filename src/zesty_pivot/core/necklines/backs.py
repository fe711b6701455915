"""The back's neckline, which follows the front's width: round, V, square, deep, or as it is."""

from __future__ import annotations

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.necklines.curves import bent, rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf

LEANING = 0.85  # of a square back's side is curved to meet the front's edge

LEAST_BELOW = 8.0  # mm that the centre back lies below where the edge meets the shoulder. Common practice, no source.

NAMES = {"round": "round", "v": "V", "square": "square", "deep": "deep and round", "keep": "as drafted", "razor": "razor"}


def depth_of(bodice: BodiceHalf, kind: str, x: float, front_gain: float) -> float:
    """A back depth (mm below the neck point) to begin with: a quarter of what the front was lowered by, and below where it
    meets the shoulder; deep ones go to above the chest line."""
    met = float(bodice.shoulder.at(x)[1]) - bodice.top
    shallow = max(bodice.natural + max(front_gain, 0.0) * 0.25, met + LEAST_BELOW)
    deep = max(bodice.chest * 0.85, shallow)
    return {"deep": deep, "v": max(bodice.chest * 0.7, shallow), "square": max(bodice.chest * 0.45, shallow)}.get(kind, shallow)


def draw(bodice: BodiceHalf, kind: str, x: float, depth: float, into: Vector, turn: float) -> tuple[Path, bool]:
    """The back's curve from the centre, meeting the shoulder from `into`, and whether it meets the centre in a point."""
    start, stop, out = bodice.start(depth), bodice.shoulder.at(x), bodice.square(depth)
    if kind == "v":
        return bent(Path.straight(start, stop), into, turn), True
    if kind == "square":
        # The whole side leans a little rather than having a knob at the shoulder.
        return bent(Path.straight(start, (x, start[1]), stop), into, float(start[1] - stop[1]) * LEANING), False
    return rounded(start, out, stop, into, hug=0.7 if kind == "deep" else 0.6), False
