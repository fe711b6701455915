"""A form made from measurements: its girths, shoulders, neck and the lengths of front and back are those that were taken."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.measure.estimates import Estimate, estimates
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.record import record
from zesty_pivot.core.stand.form_shape import Heights, shaped
from zesty_pivot.core.stand.surface import Surface

SLOPE = 16.0  # degrees that the shoulders fall: between drops of 1 and 1 1/2 in (TRADE, half blocks)
ROUNDS = 12  # of setting heights by the lengths that they give
STILL = 0.2  # mm
LEAN, LEAN_OF_CHILD = 30.0, 6.0  # mm that the chest is pushed forward or back at most

Points = NDArray[np.float64]


@record
class Length:
    """A length of the form beside the measurement that it is made by, mm."""

    name: str
    mm: float
    asked: float


@record(eq=False)
class Form:
    """A form. `surface` is its skin, `heights` its levels; `measures` what it is made by, mm; `guessed` those of them that were
    not taken; `lengths` what its back and front lengths came out as."""

    surface: Surface
    heights: Heights
    measures: Mapping[str, float]
    guessed: tuple[Estimate, ...]
    lengths: tuple[Length, ...]

    @property
    def is_child(self) -> bool:
        """Whether it is a child's, without a bust."""
        return self.heights.bust is None

    @property
    def levels(self) -> dict[str, float]:
        """The heights of the girths, mm above the waist."""
        at = self.heights
        chest = at.chest if at.bust is None else at.bust
        found = {"over_bust": at.over_bust, "bust": chest, "under_bust": at.under_bust, "waist": 0.0, "hip": at.hip}
        return {name: height for name, height in found.items() if height is not None}

    @property
    def bust_point(self) -> Points | None:
        """The left bust point as worn (x > 0), (3,) mm."""
        at = self.heights
        return None if at.bust is None else self.front_at(self.measures["span"] / 2.0, at.bust)

    def front_at(self, x: float, height: float, *, is_back: bool = False) -> Points:
        """The point of the front (or back) so far from its middle, mm."""
        section = self.surface.section(height)
        half = (
            section[: len(section) // 2 + 1]
            if not is_back
            else np.concatenate([section[len(section) // 2 :], section[:1]])[::-1]
        )
        return np.array([x, float(np.interp(x, half[::-1, 0], half[::-1, 1])), height])


def has_bust_point(block: Pattern) -> bool:
    """Whether a block has a bust point; one that has none is put on a child's form."""
    return any("bust_point" in piece.landmarks for piece in block.pieces)


def form_of(measures: Mapping[str, float], *, is_child: bool = False, slope: float = SLOPE) -> Form:
    """A form of a body with these measurements (mm, by the names of `measure`); what is missing is estimated and told. `slope`
    is how far the shoulders fall, degrees. The last few are kept. Raises KeyError without a bust."""
    return _form_of(tuple(sorted(measures.items())), is_child, slope)


@lru_cache(maxsize=12)
def _form_of(lengths: tuple[tuple[str, float], ...], is_child: bool, slope: float) -> Form:
    measures = dict(lengths)
    guessed = estimates(measures, is_child=is_child)
    all_ = {**{name: one.mm for name, one in guessed.items()}, **measures}
    used = _used(is_child=is_child)
    known = {name: float(all_[name]) for name in MEASUREMENTS if name in all_}
    form, reached = _stood(known, slope, is_child=is_child)
    told = tuple(one for name, one in guessed.items() if name in used)
    return Form(form[0], form[1], known, told, reached)


def _used(*, is_child: bool) -> tuple[str, ...]:
    common = ("bust", "waist", "hip", "shoulder", "across_chest", "across_back", "fwl", "bwl", "hip_depth", "armhole", "neck")
    return common if is_child else (*common, "over_bust", "under_bust", "sh_bp", "sh_under_bust", "span")


def _stood(known: Mapping[str, float], slope: float, *, is_child: bool) -> tuple[tuple[Surface, Heights], tuple[Length, ...]]:
    """The form whose back and front lengths come out as measured, as nearly as a body can have them."""
    up, bust, lean = known["bwl"] - 8.0, known["bwl"] - 0.93 * known.get("sh_bp", known["bust"] / 4.0), 0.0
    for _ in range(ROUNDS):
        at = _heights(known, slope, up, None if is_child else bust, lean)
        surface = shaped(known, at)
        lengths = _lengths(known, surface, at)
        off = {one.name: one.asked - one.mm for one in lengths}
        if max(map(abs, off.values())) < STILL:
            break
        up += off["bwl"]
        if not is_child:
            # Higher above it, or farther before it: the bust goes down by what its length lacks, the chest forward by the rest.
            bust += off["bwl"] - 0.9 * off["sh_bp"]
            bust = float(np.clip(bust, 0.25 * up, 0.62 * up))
        most = LEAN_OF_CHILD if is_child else LEAN
        lean = float(np.clip(lean + 0.8 * (off["fwl"] - off["bwl"]), -most, most))
    return (surface, at), lengths


def _heights(known: Mapping[str, float], slope: float, up: float, bust: float | None, lean: float) -> Heights:
    neck = known["neck"] / (2.0 * np.pi)
    tip = up - np.tan(np.radians(slope)) * max(known["shoulder"] / 2.0 - neck, 20.0)
    under_arm = tip - known["armhole"] / 2.0
    pit, nape = up - 1.15 * neck, up - 0.36 * neck
    if bust is None:
        return Heights(
            up, tip, pit, nape, float(np.clip(under_arm, 0.3 * up, 0.7 * up)), None, None, None, -known["hip_depth"], lean
        )
    under = max(bust - max(known["sh_under_bust"] - known["sh_bp"], 40.0), 0.35 * bust)
    over = min(max(under_arm + 25.0, bust + 50.0), pit - 40.0)
    return Heights(up, tip, pit, nape, under_arm, over, bust, under, -known["hip_depth"], lean)


def _lengths(known: Mapping[str, float], surface: Surface, at: Heights) -> tuple[Length, ...]:
    """What a tape shows that is laid from the shoulder at the neck down to the waist, behind and in front."""
    x = known["bust"] / 12.0
    back = Length("bwl", _down(surface, at, x, x, 0.0, is_back=True), known["bwl"])
    if at.bust is None:
        return back, Length("fwl", _down(surface, at, x, x, 0.0), known["fwl"])
    to_bust = _down(surface, at, x, known["span"] / 2.0, at.bust)
    rest = _taut_down(surface, known["span"] / 2.0, at.bust)
    return back, Length("sh_bp", to_bust, known["sh_bp"]), Length("fwl", to_bust + rest, known["fwl"])


def _down(surface: Surface, at: Heights, x: float, to_x: float, to: float, *, is_back: bool = False) -> float:
    """From the shoulder seam at x down to a height, taut over what stands out."""
    top = _ridge(surface, at, x)
    heights = np.linspace(top, to, 60)
    across = np.linspace(x, to_x, 60)
    deep = _profile(surface, across, heights, is_back)
    deep[0] = float(np.interp(top, surface.low + surface.step * np.arange(len(surface.ahead)), surface.ahead))
    return _taut(np.stack([heights, -deep if is_back else deep], axis=1), to_x - x)


def _taut_down(surface: Surface, x: float, top: float) -> float:
    heights = np.linspace(top, 0.0, 40)
    return _taut(np.stack([heights, _profile(surface, np.full(40, x), heights, False)], axis=1), 0.0)


def _ridge(surface: Surface, at: Heights, x: float) -> float:
    """How high the shoulder lies at x."""
    heights = np.linspace(at.tip - 20.0, at.neck + 10.0, 200)
    wide = surface.at(np.zeros(200), heights)[:, 0]
    above = np.flatnonzero(wide >= x)
    return float(heights[above[-1]]) if len(above) else float(at.neck)


def _profile(surface: Surface, across: Points, heights: Points, is_back: bool) -> Points:
    """How far to the front the surface lies at places across and heights: at the front, or at the back."""
    angles = np.full(len(across), -np.pi / 2.0 if is_back else np.pi / 2.0)
    for _ in range(30):
        here = surface.at(angles, heights)
        radius = np.hypot(here[:, 0], here[:, 1])
        wanted = np.arccos(np.clip(across / np.maximum(radius, 1e-6), -1.0, 1.0))
        moved = (-wanted if is_back else wanted) - angles
        angles = angles + 0.7 * moved
        if np.abs(moved).max() < 1e-6:
            break
    return np.array(surface.at(angles, heights)[:, 1])


def _taut(line: Points, sideways: float) -> float:
    """The length of a thread drawn tight over a profile (height, depth) from its first to its last point; `sideways` is how far
    it goes across meanwhile."""
    hull = [0]
    for k in range(1, len(line)):
        while len(hull) > 1 and _is_under(line[hull[-2]], line[hull[-1]], line[k]):
            hull.pop()
        hull.append(k)
    return float(np.hypot(np.hypot(*np.diff(line[hull], axis=0).T).sum(), sideways))


def _is_under(first: Points, middle: Points, last: Points) -> bool:
    share = (middle[0] - first[0]) / (last[0] - first[0])
    return bool(middle[1] <= first[1] + share * (last[1] - first[1]))
