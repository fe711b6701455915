"""How the half of a peplum is drawn: as part of a circle, as a strip to gather, or as one to pleat."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Fullness, LetLine, Lies, Mark, Origin, Piece, Taking
from zesty_pivot.core.procedures.sectors import HEM, INNER, START, STOP, WHOLE, Sector
from zesty_pivot.core.procedures.strips import STRIP, Crossing, ringed
from zesty_pivot.core.record import replace


def slashed_part(slashes: int, spread: float, depth: float) -> float:
    """The part of a circle that strips become when they are slashed and spread: each slash opens by an angle of
    2 asin(spread / 2 depth), hinged at the seam. Source: the chord of an angle. Raises StepError where none opens so far."""
    if spread >= depth:
        what = "the slashes are spread further than the peplum is deep"
        raise StepError(what, advice="Spread them less, or slash more often.")
    return slashes * 2.0 * math.asin(spread / (2.0 * depth)) / WHOLE


def shaped_part(waist: float, hip: float, down: float) -> float:
    """The part of a circle whose edge is `waist` and that is `hip` round `down` mm below it, a cone: (hip - waist) / 2 pi down.

    Raises StepError where it would not widen.
    """
    if hip <= waist + 1.0:
        what = "a shaped peplum would not widen: the hip with its ease is no more than the waist"
        raise StepError(what, advice="Give the hip that it goes over, such as hip + 2 in.")
    return (hip - waist) / (WHOLE * down)


def gathered_half(one: Sector, notches: list[Crossing], ratio: float, told: str) -> Piece:
    """A strip for a half, `ratio` times as long as its seam."""
    long = one.inner * ratio
    marks = [
        Mark("gather", "text", at=(long / 2.0, min(8.0, one.depth / 4.0)), text=told),
        Mark("thread", "thin", Path.straight(np.array([0.0, 2.0]), np.array([long, 2.0]))),
    ]
    return _strip(one, long, [(name, at * ratio) for name, at in notches], marks)


def pleated_half(one: Sector, notches: list[Crossing], pleats: int, underlay: float) -> Piece:
    """A strip for a half with knife pleats, evenly spaced, `underlay` mm deep; their folds point to the side."""
    each = one.inner / pleats
    if underlay > each:
        raise StepError("the pleats are deeper than their spacing", advice="Make them less deep, or fewer.")
    strip = _strip(one, one.inner, notches, [])
    lines = []
    for number in range(pleats):
        share = (number + 0.5) / pleats
        start, stop = Origin(f"{one.name}.{INNER}", share), Origin(f"{one.name}.{HEM}", 1.0 - share)
        lines.append(LetLine(start, stop, (2.0 * underlay, 2.0 * underlay), Lies.AFTER))
    full = Fullness(f"{one.name}.pleats", Taking.PLEATS, tuple(lines), style="knife pleat", held=(True, False))
    return replace(strip, fullness=(full,))


def _strip(one: Sector, long: float, notches: list[Crossing], marks: list[Mark]) -> Piece:
    stop = one.depth if one.to_depth is None else one.to_depth
    corners = [np.array(at) for at in ((0.0, 0.0), (long, 0.0), (long, stop), (0.0, one.depth))]
    handle = np.array([long / 3.0, 0.0])
    hem = Path(np.array([[corners[2], corners[2] - handle, corners[3] + handle, corners[3]]]))
    start, role = (START, "centre") if not one.whole else ("end_back", STRIP)
    edges = [
        (INNER, STRIP, Path.straight(*corners[:2])), ("end" if one.whole else STOP, STRIP, Path.straight(*corners[1:3])),
        (HEM, STRIP, hem), (start, role, Path.straight(corners[3], corners[0])),
    ]  # fmt: skip
    x = long * 0.15
    grain = ((x, one.depth * 0.2), (x, min(one.depth, stop) * 0.8))
    fold = START if one.on_fold else None
    return ringed(one.name, edges, grain, fold=fold, notches=notches, marks=marks, body=one.body)
