"""Where darts turn: the bust point from the darts' axes or a mark, the tips of a back's darts."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.geometry.angles import between, unit
from zesty_pivot.core.intake.guesses import Guess, Sure
from zesty_pivot.core.intake.inside import Eye
from zesty_pivot.core.intake.parts import CutDart
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import record

# All our own choices.
ACROSS = math.radians(12.0)  # axes that cross at less say little of where
NEAR_AXIS = 4.0  # mm from a dart's axis that a mark of the bust point lies at most
PAST = (-6.0, 60.0)  # mm beyond a drawn point, along the axis, that the bust point lies
AGREE = 6.0  # mm: axes that pass the point they settle on this closely agree
SET_BACK = 25.4  # mm that a lone dart is taken to stop short of the bust point: 1 in, common practice, no source
TOGETHER = 2.0  # mm: drawn points that lie this near are one pivot


@record(eq=False)
class Axis:
    """A dart's middle line: from the middle of its mouth towards its drawn point; (2,) mm and a unit direction."""

    start: Array
    point: Array

    @property
    def way(self) -> Array:
        """The direction inwards."""
        return unit(self.point - self.start)

    def off(self, at: Array) -> float:
        """How far a place lies beside the line, mm."""
        way = self.way
        return abs(float((at - self.start) @ np.array([-way[1], way[0]])))

    def past(self, at: Array) -> float:
        """How far a place lies beyond the drawn point, along the line, mm."""
        return float((at - self.point) @ self.way)


def axis_of(dart: CutDart) -> Axis:
    """The axis of a dart that is cut in: from the middle of its mouth to its drawn point, however the paper was stretched."""
    return Axis((dart.mouth[0] + dart.mouth[1]) / 2.0, dart.point)


def axis_of_eye(eye: Eye) -> Axis:
    """The axis of a fish-eye, upwards: the corners first and third are its ends, the higher one is the point."""
    low, high = sorted((eye.corners[0], eye.corners[2]), key=lambda at: -float(at[1]))
    return Axis(low, high)


def bust_point(axes: Sequence[Axis], marks: Sequence[Array], said: Array | None) -> tuple[Array, Guess] | None:
    """The bust point of a front by its darts' axes, a mark, or what a person says; None where nothing tells."""
    if said is not None:
        return said, Guess("bust_point", "", Sure.SAID, "you put it there")
    marked = [at for at in marks if any(axis.off(at) <= NEAR_AXIS and PAST[0] <= axis.past(at) <= PAST[1] for axis in axes)]
    if marked:
        best = min(marked, key=lambda at: sum(axis.off(at) for axis in axes))
        return best, Guess("bust_point", "", Sure.SURE, "it is marked, and a dart points at it")
    if not axes:
        return (marks[0], Guess("bust_point", "", Sure.LIKELY, "the only point that is marked")) if len(marks) == 1 else None
    for one, two in itertools.combinations(axes, 2):
        if math.dist(one.point, two.point) <= TOGETHER:
            return (one.point + two.point) / 2.0, Guess("bust_point", "", Sure.SURE, "two darts end there")
    crossing = _settled(axes)
    if crossing is not None:
        at, count = crossing
        sure = Sure.SURE if count >= 2 else Sure.LIKELY
        return at, Guess("bust_point", "", sure, f"the axes of {count} darts cross there")
    only = axes[0]
    at = only.point + only.way * SET_BACK
    why = "one dart alone does not tell how far it stops short; an inch is taken"
    return at, Guess("bust_point", "", Sure.UNSURE, why)


def _settled(axes: Sequence[Axis]) -> tuple[Array, int] | None:
    """The place that the most axes pass, found from each two that cross, by least squares over those that agree."""
    best: list[Axis] = []
    for one, two in itertools.combinations(axes, 2):
        if not ACROSS <= abs(between(one.way, two.way)) <= math.pi - ACROSS:
            continue
        at = nearest_to([one, two])
        mine = [axis for axis in axes if axis.off(at) <= AGREE and PAST[0] <= axis.past(at) <= PAST[1] * 1.6]
        if len(mine) > len(best):
            best = mine
    return (nearest_to(best), len(best)) if len(best) >= 2 else None


def nearest_to(axes: Sequence[Axis]) -> Array:
    """The place that lies nearest to all of some lines, (2,) mm: the least squares of the distances."""
    normals = np.array([[-axis.way[1], axis.way[0]] for axis in axes])
    heights = np.array([normal @ axis.start for normal, axis in zip(normals, axes, strict=True)])
    found, *_ = np.linalg.lstsq(normals, heights, rcond=None)
    return np.asarray(found)


def turns_about(axis: Axis, at: Array) -> bool:
    """Whether a dart turns about a pivot: its axis passes it, not far beyond its drawn point."""
    return axis.off(at) <= AGREE and PAST[0] <= axis.past(at) <= 2.0 * PAST[1]
