"""Redraw by displacement: a line moved aside by given amounts along it, in a smooth curve through them."""

from __future__ import annotations

import bisect
import itertools
from collections.abc import Mapping, Sequence
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path, bezier
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.kept import kept_with

Array = NDArray[np.float64]
Knot = tuple[float, Vector]  # a distance along the line (mm) and how far the line goes aside there (2,) mm


def displaced(
    stretches: Sequence[Path],
    knots: Sequence[Knot],
    rounded: float = 0.0,
    held: tuple[bool, bool] = (False, False),
    *,
    only: Literal[0, -1] | None = None,
    slopes: Mapping[float, Vector] | None = None,
) -> tuple[Path, ...]:
    """Stretches laid end to end, moved aside so that they go by `knots` exactly.

    Between knots each coordinate follows a monotone cubic (PCHIP), so nothing swings past an amount that was asked for. A
    corner between two stretches is rounded over `rounded` mm to either side, dying away over three quarters as much again (at
    most nine tenths of a stretch): both leave it along the mean of their directions, so the line still goes through the
    corner. Every cubic stays one cubic: its ends and tangents are moved (Hermite). Where an end is `held`, the line keeps its
    direction there.
    A knot of nothing at a joint of two stretches leaves the line level there, so what is asked for behind it changes
    nothing before it, and the other way; `only` gives the first (0) or the last (-1) stretch alone. `slopes` are how fast
    the line goes aside (mm a mm) at some of the knots, where the curve through them is not to decide.

    Raises GeometryError when two knots lie at one place.
    """
    starts = [0.0, *np.cumsum([path.length for path in stretches])]
    aside = _Aside(
        sorted(knots, key=lambda knot: knot[0]), _bends(stretches, starts, rounded), held, starts[1:-1], slopes or {}
    )
    chosen = list(zip(stretches, starts, strict=False))
    return Path.measured(_moved(path, start, aside) for path, start in ([chosen[only]] if only is not None else chosen))


def rounding_at(stretches: Sequence[Path], rounded: float, s: float) -> Vector:
    """How far (2,) mm the rounding of corners alone moves a line at a distance along it, as `displaced` does."""
    starts = [0.0, *np.cumsum([path.length for path in stretches])]
    return sum((bend(s, 1)[0] for bend in _bends(stretches, starts, rounded)), np.zeros(2))


def ended_at(path: Path, start: Vector | None = None, end: Vector | None = None) -> Path:
    """A line whose ends are put on other points; the change dies away along it, and the direction at an end
    that stays is kept."""
    first = np.zeros(2) if start is None else start - path.start
    last = np.zeros(2) if end is None else end - path.end
    held = (start is None, end is None)
    (made,) = displaced([path], [(0.0, first), (path.length, last)], held=held)
    cubics = made.cubics.copy()
    if start is not None:
        cubics[0, 0] = start
    if end is not None:
        cubics[-1, 3] = end
    return Path(cubics)


# A corner rounded over so much dies away over three quarters as much again, drawn in two cubics to either side. Our own
# choice: of all that keep the radius, it bends back least.
_DYING, _BETWEEN = 1.75, (0.4,)


class _Bend:
    """A corner rounded: the line's slope aside at the corner, before and behind it, dying away over `reach` mm."""

    def __init__(self, at: float, before: tuple[float, Vector], behind: tuple[float, Vector]) -> None:
        self.at, self.before, self.behind = at, before, behind

    def ends(self) -> tuple[float, ...]:
        """Where one cubic ends and the next begins."""
        before, behind = self.before[0], self.behind[0]
        shares = (1.0, *_BETWEEN)
        return (*(self.at - before * u for u in shares), self.at, *(self.at + behind * u for u in reversed(shares)))

    def __call__(self, s: float, side: int) -> tuple[Vector, Vector]:
        """How far aside at s, and its slope; `side` is -1 just before s and 1 just behind it."""
        away = s - self.at
        is_behind = away > 0.0 or (away == 0.0 and side > 0)
        reach, slope = self.behind if is_behind else self.before
        if abs(away) >= reach:
            return np.zeros(2), np.zeros(2)
        share = abs(away) / reach
        # Slope m at the corner, nothing at the far end, where it hardly bends back: h = m d (1 - d/R)^3.
        return slope * away * (1.0 - share) ** 3, slope * (1.0 - share) ** 2 * (1.0 - 4.0 * share)


def _bends(stretches: Sequence[Path], starts: Sequence[float], rounded: float) -> list[_Bend]:
    found: list[_Bend] = []
    if rounded <= 0.0:
        return found
    for number in range(1, len(stretches)):
        before, behind = stretches[number - 1], stretches[number]
        if np.abs(before.end - behind.start).max() > JOIN_TOL * 10.0:
            continue  # a mouth opens between them
        mean = unit(before.end_direction + behind.start_direction)
        reach = min(_DYING * rounded, 0.9 * before.length), min(_DYING * rounded, 0.9 * behind.length)
        slopes = mean - before.end_direction, mean - behind.start_direction
        found.append(_Bend(starts[number], (reach[0], slopes[0]), (reach[1], slopes[1])))
    return found


class _Aside:
    """How far a line goes aside at a distance along it, with the slope."""

    def __init__(
        self, knots: Sequence[Knot], bends: Sequence[_Bend], held: tuple[bool, bool], joints: Sequence[float],
        given: Mapping[float, Vector],
    ) -> None:  # fmt: skip
        self._s = [s for s, _by in knots]
        if any(after - before <= JOIN_TOL for before, after in itertools.pairwise(self._s)):
            raise GeometryError("two different amounts are asked for at one place of a line")
        self._bends = bends
        by = np.array([by for _s, by in knots])
        self._moves = len(knots) > 1 and bool(np.abs(by).max() > 0.0)
        if self._moves:
            slopes = np.stack([fair_slopes(self._s, by[:, k].tolist()) for k in (0, 1)], axis=1)
            if len(knots) == 2 and held != (False, False):
                # One end held: a parabola that dies away; both: an S.
                chord = (by[1] - by[0]) / (self._s[1] - self._s[0])
                slopes = np.array([np.zeros(2) if held[0] else 2.0 * chord, np.zeros(2) if held[1] else 2.0 * chord])
            for joint in joints:
                for index, s in enumerate(self._s):
                    if s == joint and not by[index].any():
                        slopes[index] = 0.0
            for index, s in enumerate(self._s):
                slopes[index] = given.get(s, slopes[index])
            self._by, self._slopes = by, slopes

    def breaks(self) -> list[float]:
        """Where one cubic ends and the next begins."""
        knots = self._s if self._moves else []
        return sorted({*knots, *(end for bend in self._bends for end in bend.ends())})

    def at(self, places: Array) -> tuple[Array, Array, Array]:
        """How far aside at places (n,), and the slopes just before and just behind them, (n, 2) each."""
        shape = (len(places), 2)
        by, slopes = self._hermite(places) if self._moves else (np.zeros(shape), np.zeros(shape))
        before, behind = slopes, slopes
        for bend in self._bends:
            near = np.flatnonzero((places > bend.at - bend.before[0]) & (places < bend.at + bend.behind[0]))
            if len(near):
                before, behind = before.copy(), behind.copy()
            for index in near.tolist():
                s = float(places[index])
                (more, steeper), (_same, after) = bend(s, -1), bend(s, 1)
                by[index] += more
                before[index] += steeper
                behind[index] += after
        return by, before, behind

    def _hermite(self, places: Array) -> tuple[Array, Array]:
        """The cubics through the knots on both sides, and their slopes; beyond the ends as at the end."""
        last = len(self._s) - 2
        index = [min(max(bisect.bisect_right(self._s, s) - 1, 0), last) for s in places.tolist()]
        t = np.array([
            min(max((s - self._s[k]) / (self._s[k + 1] - self._s[k]), 0.0), 1.0)
            for s, k in zip(places.tolist(), index, strict=True)
        ])[:, None]  # fmt: skip
        size = np.array([self._s[k + 1] - self._s[k] for k in index])[:, None]
        after = [k + 1 for k in index]
        a, b = self._by[index], self._by[after]
        m, n = self._slopes[index] * size, self._slopes[after] * size
        t2, t3 = t * t, t * t * t
        at = a * (2 * t3 - 3 * t2 + 1) + m * (t3 - 2 * t2 + t) + b * (3 * t2 - 2 * t3) + n * (t3 - t2)
        rate = ((a - b) * (6 * t2 - 6 * t) + m * (3 * t2 - 4 * t + 1) + n * (3 * t2 - 2 * t)) / size
        return at, rate


def fair_slopes(at: Sequence[float], values: Sequence[float]) -> list[float]:
    """Slopes at knots for a monotone cubic through values: the weighted harmonic mean of the chords on both sides, nothing at
    a turn; at the ends a parabola's, kept from swinging over. Source: F. N. Fritsch and J. Butland, A method for constructing
    local monotone piecewise cubic interpolants, 1984 (from memory); the tests compare it with SciPy's."""
    steps = [after - before for before, after in itertools.pairwise(at)]
    chords = [(after - before) / step for (before, after), step in zip(itertools.pairwise(values), steps, strict=True)]
    if len(chords) == 1:
        return [chords[0], chords[0]]
    found = [_end_slope(steps[0], steps[1], chords[0], chords[1])]
    for (h, g), (d, e) in zip(itertools.pairwise(steps), itertools.pairwise(chords), strict=True):
        one, two = 2.0 * g + h, g + 2.0 * h
        found.append((one + two) / (one / d + two / e) if d * e > 0.0 else 0.0)
    return [*found, _end_slope(steps[-1], steps[-2], chords[-1], chords[-2])]


def _end_slope(step: float, next_step: float, chord: float, next_chord: float) -> float:
    slope = ((2.0 * step + next_step) * chord - step * next_chord) / (step + next_step)
    if slope * chord <= 0.0:
        return 0.0
    return 3.0 * chord if chord * next_chord <= 0.0 and abs(slope) > 3.0 * abs(chord) else slope


def _moved(path: Path, start: float, aside: _Aside) -> Path:
    parts, joints = _parted(path, start, [s - start for s in aside.breaks()])
    by, before, behind = aside.at(joints)
    by0, by1, slope0, slope1 = by[:-1], by[1:], behind[:-1], before[1:]
    first, last = parts[:, 1] - parts[:, 0], parts[:, 3] - parts[:, 2]
    made = parts.copy()
    made[:, 0] += by0
    made[:, 1] += by0 + slope0 * np.hypot(first[:, 0], first[:, 1])[:, None]
    made[:, 2] += by1 - slope1 * np.hypot(last[:, 0], last[:, 1])[:, None]
    made[:, 3] += by1
    made[1:, 0] = made[:-1, 3]
    return Path(made)


def _parted(path: Path, start: float, cuts: Sequence[float]) -> tuple[Array, Array]:
    """A path's cubics (n, 4, 2) parted at arc lengths, and the distances (n + 1,) of their ends, counted from `start`."""
    parts, joints = _part(path, tuple(cuts))
    return parts, joints + start


@kept_with  # a line is moved aside several times while its mouth is sought
def _part(path: Path, cuts: tuple[float, ...]) -> tuple[Array, Array]:
    ends = np.concatenate([[0.0], np.cumsum(path.lengths)])
    parts: list[Array] = []
    joints = [0.0]
    for index, cubic in enumerate(path.cubics):
        rest, done = cubic, 0.0  # what is left of the cubic, from this parameter on
        for cut in cuts:
            if (
                not ends[index] + JOIN_TOL * 10.0 < cut < ends[index + 1] - JOIN_TOL * 10.0
                or cut - joints[-1] < JOIN_TOL * 10.0
            ):
                continue
            t = bezier.param_at_length(cubic, float(cut - ends[index]), float(path.lengths[index]))
            part, rest = bezier.split(rest, (t - done) / (1.0 - done))
            parts.append(part)
            joints.append(float(cut))
            done = t
        parts.append(rest)
        joints.append(float(ends[index + 1]))
    return np.array(parts), np.array(joints)
