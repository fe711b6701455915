"""Shapes as masks of small cells, for a quick look at what touches what. A mask is never smaller than its shape."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.record import record

Mask = NDArray[np.bool_]
SAMPLES = 6.0  # points of an outline to the length of a cell


@record(eq=False)
class Raster:
    """`mask` (rows, columns): the cells of `cell` (width, height) mm that a shape reaches into; `corner` is the mm place of the
    first cell's upper left corner."""

    mask: Mask
    cell: tuple[float, float]
    corner: tuple[float, float]


def rasterised(
    shape: shapely.Geometry, cell: tuple[float, float], clear: float, within: Raster | None = None
) -> Raster:  # fmt: skip
    """The cells that a shape widened by `clear` mm reaches into; on the cells of a raster of more of it, when one is given."""
    # A line between two samples may cut the corner of a cell by half their distance at most: the shape is widened by that.
    apart = min(cell) / SAMPLES
    wide = shapely.buffer(shape, clear + apart / 2.0, quad_segs=4)
    left, top, right, bottom = wide.bounds
    size = int(np.ceil((bottom - top) / cell[1])) + 1, int(np.ceil((right - left) / cell[0])) + 1
    if within is not None:
        (left, top), size = within.corner, within.mask.shape
    scale = np.array(cell)
    mask = np.zeros(size, dtype=bool)
    flips = np.zeros(size, dtype=np.int64)
    for ring in _rings(wide):
        places = (ring - (left, top)) / scale
        dense = _dense(places, 1.0 / SAMPLES)
        cells = np.minimum(dense.astype(np.int64), (size[1] - 1, size[0] - 1))
        mask[cells[:, 1], cells[:, 0]] = True
        _crossings(places, flips)
    mask |= np.cumsum(flips, axis=1) % 2 == 1
    return Raster(mask, cell, (float(left), float(top)))


def _rings(shape: shapely.Geometry) -> list[NDArray[np.float64]]:
    found: list[NDArray[np.float64]] = []
    for part in shapely.get_parts(shape):
        if part.geom_type == "Polygon" and not part.is_empty:
            found += [shapely.get_coordinates(ring) for ring in (part.exterior, *part.interiors)]
    return found


def _dense(points: NDArray[np.float64], apart: float) -> NDArray[np.float64]:
    """Points along a closed ring at most so far apart, its corners among them."""
    steps = np.diff(points, axis=0)
    counts = np.maximum(1, np.ceil(np.hypot(steps[:, 0], steps[:, 1]) / apart).astype(np.int64))
    of = np.repeat(np.arange(len(steps)), counts)
    share = (np.arange(len(of)) - np.repeat(np.cumsum(counts) - counts, counts)) / counts[of]
    return np.asarray(points[of] + steps[of] * share[:, None])


def _crossings(points: NDArray[np.float64], flips: NDArray[np.int64]) -> None:
    """Adds where a ring crosses the middle line of each row, to the cell whose middle lies next after the crossing."""
    (x0, y0), (x1, y1) = points[:-1].T, points[1:].T
    low, high = np.minimum(y0, y1), np.maximum(y0, y1)
    first = np.ceil(low - 0.5).astype(np.int64)
    last = np.ceil(high - 0.5).astype(np.int64)  # one past the last row whose middle is crossed
    counts = np.maximum(0, last - first)
    of = np.repeat(np.arange(len(counts)), counts)
    rows = first[of] + np.arange(len(of)) - np.repeat(np.cumsum(counts) - counts, counts)
    share = (rows + 0.5 - y0[of]) / (y1 - y0)[of]
    at = np.ceil(x0[of] + share * (x1 - x0)[of] - 0.5).astype(np.int64)
    inside = at < flips.shape[1]
    np.add.at(flips, (rows[inside], np.maximum(at[inside], 0)), 1)
