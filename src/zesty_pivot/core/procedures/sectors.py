"""Parts of a circle: flounces, tiers, peplums. The inner edge is sewn on, the hem hangs.

A part p of a circle (1/2, 1, 2 ...) round an edge W long has the inner radius r = W / (2 pi p), its hem at a depth d is
2 pi p (r + d) long. Source: the circle's circumference; W/(2 pi) for a full, W/pi for a half and 2W/pi for a quarter circle are
the trade's figures of it.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Body, Mark, Piece
from zesty_pivot.core.procedures.strips import STRIP, Crossing, ringed
from zesty_pivot.core.record import record

STEP = math.radians(7.5)  # of an arc in one cubic: within 1e-7 mm of the circle at 1 m
WHOLE = 2.0 * math.pi
INNER, HEM, START, STOP = "seam", "hem_edge", "centre", "side"  # the edges of a part of a circle


@record
class Sector:
    """One piece of it: the inner edge (mm), its part of a circle, its depth at the start and, where it is not the same, at the
    stop; `level` is what is taken off at the bias places (mm), where cloth drops most. It begins at a centre line that is drawn
    upright, unless it is `whole`, drawn about its middle."""

    name: str
    inner: float
    part: float
    depth: float
    to_depth: float | None = None
    level: float = 0.0
    whole: bool = True
    body: Body = Body.NONE
    on_fold: bool = False

    @property
    def angle(self) -> float:
        """The angle that it spans, radians."""
        return WHOLE * self.part

    @property
    def radius(self) -> float:
        """Of the inner edge, mm."""
        return self.inner / self.angle

    def hem_radius(self, angle: float, share: float) -> tuple[float, float]:
        """Of the hem at an angle from the grain and a share of the way from start to stop; and its slope over the angle."""
        stop = self.depth if self.to_depth is None else self.to_depth
        eased, slope = (1.0 - math.cos(math.pi * share)) / 2.0, math.pi / 2.0 * math.sin(math.pi * share) / self.angle
        off, falls = self.level * math.sin(2.0 * angle) ** 2, 2.0 * self.level * math.sin(4.0 * angle)
        return self.radius + self.depth + (stop - self.depth) * eased - off, (stop - self.depth) * slope - falls


def sector(one: Sector, *, notches: Sequence[Crossing] = (), marks: Sequence[Mark] = (), narrow: bool = False) -> Piece:
    """The piece. Raises StepError where it would lie over itself."""
    if one.part > 1.0 - 1e-9:
        what = f"one piece of {one.part:g} circles would lie over itself"
        raise StepError(what, advice="Make it of more pieces, each less than a circle.")
    low = -one.angle / 2.0 if one.whole else 0.0
    high = low + one.angle

    def at_hem(angle: float) -> tuple[float, float]:
        return one.hem_radius(angle, (angle - low) / one.angle)

    top = _arc(lambda _angle: (one.radius, 0.0), low, high)
    hem = _arc(at_hem, low, high).reversed()
    start = "end_back" if one.whole else START
    edges = [
        (INNER, STRIP, top), ("end" if one.whole else STOP, STRIP, Path.straight(top.end, hem.start)),
        (HEM, STRIP, hem), (start, STRIP if one.whole else "centre", Path.straight(hem.end, top.start)),
    ]  # fmt: skip
    middle = (low + high) / 2.0 if one.whole else one.angle * 0.25
    at = np.array([math.sin(middle), math.cos(middle)])
    inside, deep = at * (one.radius + one.depth * 0.15), one.depth * (0.3 if narrow else 0.7)
    way = np.array([1.0, 0.0]) if narrow else np.array([0.0, 1.0])
    far = _within(inside, way, deep, one)
    grain = ((float(inside[0]), float(inside[1])), (float(far[0]), float(far[1])))
    return ringed(one.name, edges, grain, fold=START if one.on_fold else None, notches=notches, marks=marks, body=one.body)


def _within(start: np.ndarray, way: np.ndarray, long: float, one: Sector) -> np.ndarray:
    """The end of a grain line from a point, no further than the hem's smallest depth."""
    deep = one.radius + 0.9 * min(one.depth, one.depth if one.to_depth is None else one.to_depth)
    for share in (1.0, 0.8, 0.6, 0.4, 0.2):
        end = start + way * long * share
        if math.hypot(*end) < deep:
            return end
    return start + way * long * 0.1


def _arc(radius: Callable[[float], tuple[float, float]], low: float, high: float) -> Path:
    """A line about the origin from an angle to another (from straight down towards +x): `radius` gives its distance and the
    slope of that. Each cubic has the ends and the directions of its stretch (for a circle, handles of 4/3 tan(a/4))."""
    count = max(1, math.ceil((high - low) / STEP))
    each = (high - low) / count
    handle = 4.0 / 3.0 * math.tan(each / 4.0)
    found = []
    for number in range(count):
        ends = []
        for angle in (low + number * each, low + (number + 1) * each):
            r, slope = radius(angle)
            out, along = np.array([math.sin(angle), math.cos(angle)]), np.array([math.cos(angle), -math.sin(angle)])
            ends.append((out * r, out * slope + along * r))
        (a, da), (b, db) = ends
        found.append([a, a + da * handle, b - db * handle, b])
    return Path(np.array(found))


def across(one: Sector) -> float:
    """How wide (mm) a cloth must be for it at least, its grain along its middle or square to it."""
    half = one.angle / 2.0 * (1.0 if one.whole else 2.0 if one.on_fold else 1.0)
    outer = one.radius + max(one.depth, one.to_depth or 0.0)
    wide = 2.0 * outer * math.sin(min(half, math.pi / 2.0))
    tall = outer - (one.radius if half < math.pi / 2.0 else outer) * math.cos(half)
    return min(wide, tall)
