"""A simulated projector that hangs askew over a cutting mat: it stands for a real one where none is plugged in."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry.projective import Places, projected, projection
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record

SIZE = (1920.0, 1080.0)  # px of its picture
# Where the corners of the picture fall, mm from the middle of the mat: 2.4 m up, a little turned and tilted.
_FALLS = ((-566.0, -301.0), (538.0, -327.0), (611.0, 322.0), (-597.0, 341.0))


@record
class SimulatedProjector:
    """What its picture looks like on the mat."""

    size: tuple[float, float] = SIZE
    falls: tuple[tuple[float, float], ...] = _FALLS

    @cached_property
    def matrix(self) -> Places:
        """Takes px of the picture to mm on the mat, from its middle, (3, 3)."""
        wide, tall = self.size
        return projection(np.array([(0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall)]), np.array(self.falls))

    def on_mat(self, pixels: Places) -> Places:
        """Where px (..., 2) of its picture fall, mm."""
        return projected(self.matrix, np.asarray(pixels, dtype=float))

    def px_at(self, places: Places) -> Places:
        """Which px (..., 2) fall on places, mm."""
        return projected(np.asarray(np.linalg.inv(self.matrix), dtype=float), np.asarray(places, dtype=float))
