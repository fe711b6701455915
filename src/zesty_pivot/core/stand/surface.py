"""A closed surface round an upright axis: its radius over angle and height, as one smooth field, and the distance from it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import spline_filter1d
from scipy.spatial import ConvexHull

from zesty_pivot.core.record import record

FOUR = np.arange(-1, 3)[:, None]  # neighbouring knots
ROUNDS = 8  # of stepping to the nearest point

Points = NDArray[np.float64]


@record(eq=False)
class Surface:
    """`radii` (heights, angles) mm about x = 0, y = `ahead` (heights,), on rows every `step` mm from the height `low` up;
    angles from x > 0 over y > 0 once round. Both are cubic B-splines, so the surface has no corner. Below and above its rows it
    goes on as it ends."""

    low: float
    step: float
    radii: Points
    ahead: Points
    _knots: Points
    _knots_ahead: Points

    @staticmethod
    def over(low: float, step: float, radii: Points, ahead: Points) -> Surface:
        """The surface through rows of radii."""
        knots = spline_filter1d(spline_filter1d(radii, axis=1, mode="grid-wrap"), axis=0, mode="mirror")
        whole = Surface(low, step, radii, ahead, knots, spline_filter1d(ahead, mode="mirror"))
        for array in (whole.radii, whole.ahead, whole._knots, whole._knots_ahead):
            array.flags.writeable = False
        return whole

    @property
    def high(self) -> float:
        """The height of the last row, mm."""
        return self.low + self.step * (len(self.ahead) - 1)

    def at(self, angles: Points, heights: Points) -> Points:
        """Points of the surface, (n, 3) mm, at angles (n,) in radians and heights (n,) in mm."""
        radius, _across, _up = self._radius(angles, heights)
        ahead, _slope = self._ahead(heights)
        return np.stack([radius * np.cos(angles), ahead + radius * np.sin(angles), heights], axis=1)

    def middle(self, heights: Points) -> Points:
        """How far before x = y = 0 the middle of the sections lies at heights (n,), mm."""
        return self._ahead(heights)[0]

    def outside(self, points: Points) -> tuple[Points, Points]:
        """How far points (n, 3) lie outside, mm, negative inside, and the way out there (n, 3), of length one: to the
        first order, which is right to some hundredths of a millimetre where the distance is small."""
        value, slope = self._value(points)
        size = np.linalg.norm(slope, axis=1)
        return value / size, slope / size[:, None]

    def distance(self, points: Points) -> Points:
        """How far points (n, 3) lie from their nearest point of the surface, mm; negative inside."""
        sign = np.where(self._value(points)[0] < 0.0, -1.0, 1.0)
        return np.asarray(sign * np.linalg.norm(points - self.nearest(points), axis=1))

    def nearest(self, points: Points) -> Points:
        """The nearest points of the surface (n, 3), for points near it."""
        foot = points.copy()
        for _ in range(ROUNDS):
            value, slope = self._value(foot)
            across = slope / np.linalg.norm(slope, axis=1)[:, None]
            onto = value / np.linalg.norm(slope, axis=1)
            # Down to the surface, and along it towards the point.
            away = points - foot
            beside = away - (away * across).sum(axis=1)[:, None] * across
            foot = foot - onto[:, None] * across + 0.7 * beside
        value, slope = self._value(foot)
        return np.asarray(foot - (value / (slope**2).sum(axis=1))[:, None] * slope)

    def section(self, height: float, count: int = 720) -> Points:
        """The level section at a height, (count, 2) mm, from x > 0 over y > 0."""
        angles = np.linspace(0.0, 2.0 * np.pi, count, endpoint=False)
        return self.at(angles, np.full(count, height))[:, :2]

    def girth(self, height: float) -> float:
        """What a tape shows that is laid round level at a height, mm: it goes straight over hollows."""
        return taut(self.section(height))

    # The field.

    def _value(self, points: Points) -> tuple[Points, Points]:
        ahead, ahead_up = self._ahead(points[:, 2])
        x, y = points[:, 0], points[:, 1] - ahead
        rho = np.maximum(np.hypot(x, y), 1e-6)
        radius, across, up = self._radius(np.arctan2(y, x), points[:, 2])
        cos, sin = x / rho, y / rho
        by_y = sin - across * cos / rho
        slope = np.stack([cos + across * sin / rho, by_y, -up - ahead_up * by_y], axis=1)
        return rho - radius, slope

    def _ahead(self, heights: Points) -> tuple[Points, Points]:
        row, part, is_in = self._row(heights)
        weights, slopes = _basis(part)
        knots = self._knots_ahead[_mirrored(row + FOUR, len(self.ahead))]
        return (knots * weights).sum(axis=0), (knots * slopes).sum(axis=0) / self.step * is_in

    def _radius(self, angles: Points, heights: Points) -> tuple[Points, Points, Points]:
        """The radius, how it changes by angle (mm a radian) and by height."""
        count = self.radii.shape[1]
        place = np.mod(angles, 2.0 * np.pi) / (2.0 * np.pi) * count
        column = np.floor(place).astype(np.int64)
        across, across_slope = _basis(place - column)
        row, part, is_in = self._row(heights)
        up, up_slope = _basis(part)
        rows, columns = _mirrored(row + FOUR, len(self.ahead)), np.mod(column + FOUR, count)
        knots = self._knots[rows[:, None], columns[None]]  # (4, 4, n): summed over the front, which is twice as fast
        by_row = (knots * across).sum(axis=1)
        radius, by_height = (by_row * up).sum(axis=0), (by_row * up_slope).sum(axis=0)
        by_angle = ((knots * across_slope).sum(axis=1) * up).sum(axis=0)
        return radius, by_angle * count / (2.0 * np.pi), by_height / self.step * is_in

    def _row(self, heights: Points) -> tuple[NDArray[np.int64], Points, Points]:
        last = len(self.ahead) - 1
        place = (heights - self.low) / self.step
        inside = np.clip(place, 0.0, last - 1e-9)
        row = np.floor(inside).astype(np.int64)
        return row, inside - row, (place == inside).astype(float)


def taut(section: Points) -> float:
    """The length of a thread drawn tight round points (n, 2), mm."""
    return float(ConvexHull(section).area)


def _basis(part: Points) -> tuple[Points, Points]:
    """The four cubic B-splines over a place (n,) between two knots, and their slopes: (4, n) each."""
    t, s = part, 1.0 - part
    tt, ss = t * t, s * s
    weights = [ss * s, (3.0 * t - 6.0) * tt + 4.0, (3.0 * s - 6.0) * ss + 4.0, tt * t]
    slopes = [-3.0 * ss, (9.0 * t - 12.0) * t, (12.0 - 9.0 * s) * s, 3.0 * tt]
    return np.array(weights) / 6.0, np.array(slopes) / 6.0


def _mirrored(rows: NDArray[np.int64], count: int) -> NDArray[np.int64]:
    rows = np.abs(rows)
    return np.where(rows > count - 1, 2 * (count - 1) - rows, rows)
