"""Outlines with marks: the one type in which everything that comes in from outside ends, before it is tagged."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import FLATNESS, Path
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record

Array = NDArray[np.float64]
Flags = NDArray[np.bool_]
Point = tuple[float, float]


@record(eq=False)
class TracedPiece:
    """One piece as it lies on the paper: its seam line as a closed path (clockwise on the paper, x right, y down, mm), and
    what is marked inside and on it.

    `inner` are lines inside (dart legs, fish-eyes), `notches` where the edge is notched, `holes` drill holes, `crosses` other
    marked points, `words` what is written in it. `error` is how far the outline may lie from the true one, mm: the band that is
    shown round it, `strays` how far its points stray where that is known (mm, a standard deviation). `allowance` is the seam
    allowance that was taken off.
    """

    outline: Path
    name: str = ""
    size: str = ""
    inner: tuple[Path, ...] = ()
    notches: tuple[Point, ...] = ()
    holes: tuple[Point, ...] = ()
    crosses: tuple[Point, ...] = ()
    words: tuple[str, ...] = ()
    grain: tuple[Point, Point] | None = None
    fold: tuple[Point, Point] | None = None
    error: float = 0.0
    strays: float = 0.0
    allowance: float = 0.0

    @cached_property
    def ring(self) -> Array:
        """The outline as a closed polyline (m, 2), its first point not repeated."""
        line = self.outline.flatten(FLATNESS)
        return line[:-1]

    @cached_property
    def region(self) -> shapely.Polygon:
        """The paper inside the outline."""
        return shapely.Polygon(self.ring)


@record(eq=False)
class TracedPaper:
    """Everything that came in: the pieces, and sentences about what was done on the way (joined, left out, taken off)."""

    pieces: tuple[TracedPiece, ...]
    notes: tuple[str, ...] = ()
    sizes: tuple[str, ...] = ()
