"""The shape of a form: level sections over the height, each as large as its girth says, with the bust laid on in front.

How wide a body is for its depth, where its middle lies and how the bust runs out are proportions of dress forms as remembered:
common practice, no source. Girths, widths and heights come from the measurements.
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import PchipInterpolator
from scipy.optimize import brentq

from zesty_pivot.core.record import record
from zesty_pivot.core.stand.surface import Surface, taut

STEP = 3.0  # mm between rows
ANGLES = 320
NECK_UP, BELOW = 60.0, 160.0  # mm the form goes on above the neck points and below the hip
FINE = 1e-4  # of a girth: how well a section is fitted, a tenth of it by the last step
PIT = 0.94  # of the neck's radius: how far its front lies before the shoulder line, at the pit
RIDGE = -38.0  # mm: the shoulder line lies so far behind the middle of the waist
BUST_MOST = 75.0  # mm that the bust is laid on at most
# Width to depth, and the share of the depth that lies before the middle.
ROUND = {
    "hip": (1.45, 0.45),
    "waist": (1.38, 0.50),
    "under_bust": (1.34, 0.50),
    "bust": (1.36, 0.50),
    "over_bust": (1.40, 0.49),
}
OF_CHILD = {"hip": (1.25, 0.50), "waist": (1.22, 0.52), "bust": (1.30, 0.48)}
UPPER = 0.72  # of the way from the neck's pit to the chest: how full it is half way down
FULL = 2.9  # the same of the chest before the arms
SQUARE = 2.3  # exponent of the sections: 2 would be an ellipse
ANGLE = np.linspace(0.0, 2.0 * np.pi, ANGLES, endpoint=False)

Points = NDArray[np.float64]


@record
class Heights:
    """Levels above the waist, mm: neck points, shoulder tips, front and back of the neck, above the bust, bust, under-bust,
    hip; those of the bust are not there on a child, whose chest is at `chest`. `ahead` is how far the chest is pushed to the
    front from where it usually is."""

    neck: float
    tip: float
    pit: float
    nape: float
    chest: float
    over_bust: float | None
    bust: float | None
    under_bust: float | None
    hip: float
    ahead: float


def shaped(measures: Mapping[str, float], at: Heights) -> Surface:
    """The surface of a body with these measurements (mm) at these heights."""
    return _Shaping(measures, at).surface()


class _Shaping:
    def __init__(self, measures: Mapping[str, float], at: Heights) -> None:
        self._measures, self._at = measures, at
        self._bust = 0.0

    def surface(self) -> Surface:
        low, high = self._at.hip - BELOW, self._at.neck + NECK_UP
        rows = np.arange(low, high + STEP, STEP)
        ahead = self._ahead(rows)
        levels = self._levels()
        if self._at.bust is not None:
            self._bust = self._laid_on(levels)
        sizes = {name: self._fitted(name, *levels[name]) for name in levels}
        wide, front, back = (PchipInterpolator(*keys, extrapolate=True)(rows) for keys in self._profiles(sizes))
        base = _superellipse(wide[:, None], (front - ahead)[:, None], (ahead - back)[:, None], *self._squareness(rows))
        return Surface.over(low, STEP, base + self._mounds(base, rows), ahead)

    # Sections.

    def _levels(self) -> dict[str, tuple[float, float, float]]:
        """Of each measured level its height and its front and back depth for a half width of one."""
        rounds = ROUND if self._at.bust is not None else OF_CHILD
        heights = {
            "hip": self._at.hip, "waist": 0.0, "under_bust": self._at.under_bust,
            "bust": self._at.chest if self._at.bust is None else self._at.bust, "over_bust": self._at.over_bust,
        }  # fmt: skip
        found = {}
        for name, (ratio, share) in rounds.items():
            height = heights[name]
            assert height is not None
            found[name] = (height, 2.0 / ratio * share, 2.0 / ratio * (1.0 - share))
        return found

    def _girth(self, half: float, height: float, front: float, back: float) -> float:
        """The girth of a section so wide, with the bust laid on."""
        row = np.array([height])
        base = _superellipse(
            np.array([[half]]), np.array([[half * front]]), np.array([[half * back]]), *[np.array([[SQUARE]])] * 2
        )
        radius = (base + self._mounds(base, row))[0]
        return taut(np.stack([radius * np.cos(ANGLE), radius * np.sin(ANGLE)], axis=1))

    def _fitted(self, name: str, height: float, front: float, back: float) -> tuple[float, float, float]:
        """Half width, front and back depth at a level, so that its girth is right."""
        girth = self._measures[name]
        half = float(brentq(lambda h: self._girth(h, height, front, back) - girth, girth / 20.0, girth / 3.0, xtol=1e-3))
        return half, half * front, half * back

    def _laid_on(self, levels: Mapping[str, tuple[float, float, float]]) -> float:
        """How far the bust stands out of the chest: what the chest lacks of the bust's girth."""
        under, bust = self._measures["under_bust"], self._measures["bust"]
        height, front, back = levels["bust"]
        half = float(brentq(lambda h: self._girth(h, height, front, back) - (under + 0.35 * (bust - under)), 20.0, bust / 3.0))

        def lacks(mm: float) -> float:
            self._bust = mm
            return self._girth(half, height, front, back) - bust

        return float(brentq(lacks, 0.0, BUST_MOST, xtol=1e-3)) if lacks(0.0) < 0.0 < lacks(BUST_MOST) else BUST_MOST

    def _mounds(self, base: Points, rows: Points) -> Points:
        """What the bust adds to the radius; it runs out wider towards the middle and above."""
        if self._at.bust is None or self._bust == 0.0:
            return np.zeros_like(base)
        span = self._measures["span"]
        x = np.hypot(base * np.cos(ANGLE), 0.12 * span)  # no crease between the two
        off = x - span / 2.0
        across = np.where(off < 0.0, 0.41, 0.235) * span
        up = rows[:, None] - self._at.bust
        down = np.where(up > 0.0, 78.0, 38.0)
        front = np.clip(np.sin(ANGLE) / 0.5, 0.0, 1.0)
        return np.asarray(self._bust * np.exp(-0.5 * ((off / across) ** 2 + (up / down) ** 2)) * front**2 * (3.0 - 2.0 * front))

    # Over the height.

    def _ahead(self, rows: Points) -> Points:
        """How far the middle of the sections lies before that of the waist."""
        at = self._at
        chest = at.bust if at.bust is not None else at.chest
        keys = [at.hip - BELOW, at.hip, 0.0, 0.85 * chest, 0.5 * (chest + at.tip), at.pit, at.neck, at.neck + NECK_UP]
        middle = [0.0, 0.0, 6.0, at.ahead - 4.0, 0.7 * at.ahead - 22.0, RIDGE - 10.0, RIDGE, RIDGE + 18.0]
        return np.asarray(PchipInterpolator(keys, middle)(rows))

    def _squareness(self, rows: Points) -> tuple[Points, Points]:
        """The exponents of the sections in front and behind (rows, 1): rounder towards shoulders and neck; the chest before the
        arms is full."""
        at = self._at
        top = at.over_bust if at.over_bust is not None else at.chest
        keys = [top, 0.4 * top + 0.6 * at.tip, at.tip]
        front, back = np.interp(rows, keys, [SQUARE, FULL, 2.0]), np.interp(rows, keys, [SQUARE, 2.1, 2.0])
        return front[:, None], back[:, None]

    def _profiles(self, sizes: Mapping[str, tuple[float, float, float]]) -> list[tuple[list[float], list[float]]]:
        """Heights and half widths, heights and where the front lies, heights and where the back lies."""
        at, measures = self._at, self._measures
        levels = self._levels()
        lower = sorted((levels[name][0], *sizes[name]) for name in sizes)
        lowest = (at.hip - BELOW, *sizes["hip"])
        body = [lowest, *lower]
        neck = measures["neck"] / (2.0 * np.pi)
        half, top = measures["shoulder"] / 2.0, body[-1]
        drop = at.neck - at.tip
        ridge = [(at.tip + share * drop, half + share * (1.1 * neck - half)) for share in (0.15, 0.5, 0.85)]
        middle = (top[0] + at.tip) / 2.0
        across = (measures["across_chest"] + measures["across_back"]) / 4.0
        sides = max(min(across - 4.0, half), min(top[1], half))
        wide = [
            *((row[0], row[1]) for row in body), (middle, sides), (at.tip - 6.0, half), (at.tip, half - 1.0), *ridge,
            (at.neck + 4.0, 1.08 * neck), (at.neck + NECK_UP, 1.0 * neck),
        ]  # fmt: skip
        middle_at = dict(zip((row[0] for row in body), self._ahead(np.array([row[0] for row in body])).tolist(), strict=True))
        pit, nape, end = self._ahead(np.array([at.pit, at.nape, at.neck + NECK_UP])).tolist()
        upper = middle_at[top[0]] + top[2]
        chest = (0.5 * (top[0] + at.pit), UPPER * upper + (1.0 - UPPER) * (pit + PIT * neck))
        front = [
            *((row[0], middle_at[row[0]] + row[2]) for row in body), chest, (at.pit, pit + PIT * neck),
            (at.neck + NECK_UP, end + 1.0 * neck),
        ]  # fmt: skip
        back = [
            *((row[0], middle_at[row[0]] - row[3]) for row in body), (at.nape, nape - 0.60 * neck),
            (at.neck + NECK_UP, end - 0.62 * neck),
        ]  # fmt: skip
        return [tuple(map(list, zip(*keys, strict=True))) for keys in (wide, front, back)]  # type: ignore[misc]


def _superellipse(wide: Points, front: Points, back: Points, before: Points, behind: Points) -> Points:
    """Radii (rows, angles) of sections: |x / wide|^power + |y / depth|^power = 1, with one power before and one behind."""
    deep, power = (np.where(np.sin(ANGLE) >= 0.0, *pair) for pair in ((front, back), (before, behind)))
    sum_ = (np.abs(np.cos(ANGLE)) / wide) ** power + (np.abs(np.sin(ANGLE)) / deep) ** power
    return np.asarray(sum_ ** (-1.0 / power))
