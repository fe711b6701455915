"""Fairness of a line: how tightly it bends, and how often it bends the other way."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.geometry.angles import between
from zesty_pivot.core.geometry.path import Path
from zesty_pivot.core.record import record

# Places of a cubic where its curvature is read: cubics of a drawn line bend little each.
_PLACES = np.linspace(0.0, 1.0, 9)
_CORNER = math.radians(0.2)  # a turn (radians) at a joint under which it is smooth


@record
class Bend:
    """A stretch of a line that bends one way: from where to where (mm along the line), by how much (radians, positive towards
    +y from +x)."""

    start: float
    stop: float
    turn: float

    @property
    def stands_off(self) -> float:
        """How far (mm) it is from straight, as an arc: an eighth of turn times length."""
        return abs(self.turn) * (self.stop - self.start) / 8.0


def tightest(paths: Sequence[Path]) -> tuple[float, float]:
    """The least radius (mm) of a line laid end to end, and where (mm along it); a corner has radius 0."""
    at, curvature = _curvatures(paths)
    index = int(np.argmax(np.abs(curvature)))
    most = float(abs(curvature[index]))
    return (math.inf if most == 0.0 else 1.0 / most), float(at[index])


def bends(paths: Sequence[Path], turn: float, stands_off: float) -> list[Bend]:
    """A line's stretches that bend one way and the other by turns; those that turn by less (radians) or stand off by less (mm)
    are not seen and count with their neighbours."""
    at, curvature = _curvatures(paths)
    sizes = np.diff(at)
    turns = (curvature[:-1] + curvature[1:]) / 2.0 * sizes
    found: list[Bend] = []
    for start, stop, by in zip(at[:-1].tolist(), at[1:].tolist(), turns.tolist(), strict=True):
        if stop <= start:
            continue
        if found and (found[-1].turn >= 0.0) == (by >= 0.0):
            found[-1] = Bend(found[-1].start, stop, found[-1].turn + by)
        else:
            found.append(Bend(start, stop, by))

    def seen(bend: Bend) -> float:
        return min(abs(bend.turn) / turn, bend.stands_off / stands_off)

    while len(found) > 1:
        index = min(range(len(found)), key=lambda number: seen(found[number]))
        if seen(found[index]) >= 1.0:
            break
        low, high = max(index - 1, 0), min(index + 2, len(found))
        found[low:high] = [Bend(found[low].start, found[high - 1].stop, sum(bend.turn for bend in found[low:high]))]
    return found


def _curvatures(paths: Sequence[Path]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Curvatures (1/mm) along a line and where (mm); at a corner between two cubics, an infinite one."""
    cubics = np.concatenate([path.cubics for path in paths])
    lengths = np.concatenate([path.lengths for path in paths])
    t = _PLACES[:, None, None]
    one, two, three = (np.diff(cubics, axis=1)[:, k] for k in range(3))
    slope = 3.0 * ((1 - t) ** 2 * one + 2 * t * (1 - t) * two + t * t * three)
    rate = 6.0 * ((1 - t) * (two - one) + t * (three - two))
    speed = np.hypot(slope[..., 0], slope[..., 1])
    cross = slope[..., 0] * rate[..., 1] - slope[..., 1] * rate[..., 0]
    curvature = np.divide(cross, speed**3, out=np.zeros_like(cross), where=speed > 1e-9)
    ends = np.concatenate([[0.0], np.cumsum(lengths)])
    at = ends[:-1] + _PLACES[:, None] * lengths
    for number in range(len(cubics) - 1):
        corner = between(slope[-1, number], slope[0, number + 1])
        if abs(corner) > _CORNER:
            curvature[-1, number] = math.copysign(math.inf, corner)
    return at.T.ravel(), curvature.T.ravel()
