"""A fish-eye dart: taken out inside a piece at the waist, with a point above and a point below."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.record import record, replace

Point = tuple[float, float]


@record
class FishEye:
    """Its corners in mm: the points above and below, and the two places at the waist that are sewn to each other (`left` has
    the smaller x as the piece was drafted). `bow_mm` is how far each leg bows outwards at its middle."""

    id: str
    top: Point
    right: Point
    bottom: Point
    left: Point
    bow_mm: float = 0.0

    @property
    def corners(self) -> tuple[Vector, Vector, Vector, Vector]:
        """Top, right, bottom, left, (2,) mm each."""
        return np.array(self.top), np.array(self.right), np.array(self.bottom), np.array(self.left)

    @property
    def intake(self) -> float:
        """What it takes in at the waist, mm."""
        _top, right, _bottom, left = self.corners
        return float(np.hypot(*(right - left)))

    @property
    def legs(self) -> tuple[Path, Path, Path, Path]:
        """The four lines that are sewn, from the top round by the right; each bowed outwards by `bow_mm` at its middle."""
        top, right, bottom, left = self.corners
        return tuple(self._leg(a, b) for a, b in ((top, right), (right, bottom), (bottom, left), (left, top)))  # type: ignore[return-value]

    def _leg(self, start: Vector, stop: Vector) -> Path:
        if self.bow_mm == 0.0:
            return Path.straight(start, stop)
        along = (stop - start) / np.hypot(*(stop - start))
        middle = sum(self.corners) / 4.0
        out = np.array([along[1], -along[0]])
        out = out if float((start - middle) @ out) >= 0.0 else -out
        # A cubic whose inner points stand off by 4/3 of the bow reaches it at its middle.
        aside = out * self.bow_mm * 4.0 / 3.0
        return Path(np.array([[start, start + (stop - start) / 3.0 + aside, stop - (stop - start) / 3.0 + aside, stop]]))

    @property
    def outline(self) -> NDArray[np.float64]:
        """Its lines as a closed polyline (m, 2) mm."""
        return np.concatenate([leg.outline for leg in self.legs])

    def width(self, below_waist: float) -> float:
        """What it takes in at a distance (mm) below its waist, negative above; wherever the piece has been turned."""
        top, right, bottom, left = self.corners
        across = unit(right - left)
        down = np.array([-across[1], across[0]])
        down = down if float((bottom - top) @ down) > 0.0 else -down
        on = (left + right) / 2.0 + down * below_waist
        far = across * (self.intake + 4.0 * abs(self.bow_mm) + 1000.0)
        return float(shapely.intersection(shapely.Polygon(self.outline), shapely.LineString([on - far, on + far])).length)

    def moved(self, motion: Motion) -> FishEye:
        """The same dart after a rigid motion; one that turns the paper over exchanges left and right."""
        top, right, bottom, left = (_point(motion(corner)) for corner in self.corners)
        if np.linalg.det(motion.matrix) < 0.0:
            left, right = right, left
        return replace(self, top=top, right=right, bottom=bottom, left=left)


def _point(at: Vector) -> Point:
    return float(at[0]), float(at[1])
