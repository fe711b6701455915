"""Redraw by displacement: a line moved aside by given amounts along it, in a smooth curve through them."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector, unit

Array = NDArray[np.float64]
Knot = tuple[float, Vector]  # a distance along the line (mm) and how far the line goes aside there (2,) mm


def displaced(
    stretches: Sequence[Path], knots: Sequence[Knot], rounded: float = 0.0, held: tuple[bool, bool] = (False, False)
) -> tuple[Path, ...]:
    """Stretches laid end to end, moved aside so that they go by `knots` exactly.

    Between knots each coordinate follows a monotone cubic (PCHIP), so nothing swings past an amount that was asked for. A
    corner between two stretches is rounded over `rounded` mm to either side (at most nine tenths of a stretch): both leave it
    along the mean of their directions, so the line still goes through the corner. Every cubic stays one cubic: its ends and
    tangents are moved (Hermite). Where an end is `held`, the line keeps its direction there.

    Raises GeometryError when two knots lie at one place.
    """
    starts = [0.0, *np.cumsum([path.length for path in stretches])]
    aside = _Aside(sorted(knots, key=lambda knot: knot[0]), _bends(stretches, starts, rounded), held)
    return tuple(_moved(path, start, aside) for path, start in zip(stretches, starts, strict=False))


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


class _Bend:
    """A corner rounded: the line's slope aside at the corner, before and behind it, dying away over `reach` mm."""

    def __init__(self, at: float, before: tuple[float, Vector], behind: tuple[float, Vector]) -> None:
        self.at, self.before, self.behind = at, before, behind

    def ends(self) -> tuple[float, ...]:
        return self.at - self.before[0], self.at, self.at + self.behind[0]

    def __call__(self, s: float, side: int) -> tuple[Vector, Vector]:
        """How far aside at s, and its slope; `side` is -1 just before s and 1 just behind it."""
        away = s - self.at
        is_behind = away > 0.0 or (away == 0.0 and side > 0)
        reach, slope = self.behind if is_behind else self.before
        if abs(away) >= reach:
            return np.zeros(2), np.zeros(2)
        share = abs(away) / reach
        # Hermite with slope m at the corner and nothing at the far end: h = m d (1 - d/R)^2.
        return slope * away * (1.0 - share) ** 2, slope * (1.0 - share) * (1.0 - 3.0 * share)


def _bends(stretches: Sequence[Path], starts: Sequence[float], rounded: float) -> list[_Bend]:
    found: list[_Bend] = []
    if rounded <= 0.0:
        return found
    for number in range(1, len(stretches)):
        before, behind = stretches[number - 1], stretches[number]
        if np.abs(before.end - behind.start).max() > JOIN_TOL * 10.0:
            continue  # a mouth opens between them
        mean = unit(before.end_direction + behind.start_direction)
        reach = min(rounded, 0.9 * before.length), min(rounded, 0.9 * behind.length)
        slopes = mean - before.end_direction, mean - behind.start_direction
        found.append(_Bend(starts[number], (reach[0], slopes[0]), (reach[1], slopes[1])))
    return found


class _Aside:
    """How far a line goes aside at a distance along it, with the slope."""

    def __init__(self, knots: Sequence[Knot], bends: Sequence[_Bend], held: tuple[bool, bool]) -> None:
        self._s = np.array([s for s, _by in knots])
        self._by = np.array([by for _s, by in knots])
        if len(knots) > 1 and np.diff(self._s).min() <= JOIN_TOL:
            raise GeometryError("two amounts are asked for at one place of a line")
        self._bends = bends
        self._curve = None
        if len(knots) > 1 and np.abs(self._by).max() > 0.0:
            # Loaded when a line is shaped: it costs a start that shapes none more than all of the core.
            from scipy.interpolate import CubicHermiteSpline, PchipInterpolator

            slopes = PchipInterpolator(self._s, self._by, axis=0).derivative()(self._s)
            if len(knots) == 2 and held != (False, False):
                # One end held: a parabola that dies away; both: an S.
                chord = (self._by[1] - self._by[0]) / (self._s[1] - self._s[0])
                slopes = np.array([np.zeros(2) if held[0] else 2.0 * chord, np.zeros(2) if held[1] else 2.0 * chord])
            self._curve = CubicHermiteSpline(self._s, self._by, slopes, axis=0)
            self._slope = self._curve.derivative()

    def breaks(self) -> list[float]:
        """Where one cubic ends and the next begins."""
        knots = self._s.tolist() if self._curve is not None else []
        return sorted({*knots, *(end for bend in self._bends for end in bend.ends())})

    def __call__(self, s: float, side: int) -> tuple[Vector, Vector]:
        by, slope = np.zeros(2), np.zeros(2)
        if self._curve is not None:
            at = min(max(s, float(self._s[0])), float(self._s[-1]))
            by, slope = by + self._curve(at), slope + (self._slope(at) if at == s else 0.0)
        for bend in self._bends:
            more, steeper = bend(s, side)
            by, slope = by + more, slope + steeper
        return by, slope


def _moved(path: Path, start: float, aside: _Aside) -> Path:
    cuts = [s - start for s in aside.breaks() if JOIN_TOL < s - start < path.length - JOIN_TOL]
    parts: list[Path] = []
    rest, done = path, 0.0
    for cut in cuts:
        if not JOIN_TOL * 10.0 < cut - done < rest.length - JOIN_TOL * 10.0:
            continue
        part, rest = rest.split_at(cut - done)
        parts.append(part)
        done = cut
    parts.append(rest)
    cubics: list[Array] = []
    s = start
    for part in parts:
        for cubic, size in zip(part.cubics, part.lengths, strict=True):
            (by0, slope0), (by1, slope1) = aside(s, 1), aside(s + float(size), -1)
            speeds = np.hypot(*(cubic[1] - cubic[0])), np.hypot(*(cubic[3] - cubic[2]))
            cubics.append(np.array([
                cubic[0] + by0, cubic[1] + by0 + slope0 * speeds[0],
                cubic[2] + by1 - slope1 * speeds[1], cubic[3] + by1,
            ]))  # fmt: skip
            s += float(size)
    made = np.array(cubics)
    made[1:, 0] = made[:-1, 3]
    return Path(made)
