"""Which pages a piece needs, for every way it can lie to them.

Neighbouring pages share a strip. What lies in a strip is printed on both pages, so a page is needed only for what lies in its
own part; what lies in nothing but a strip needs one of its pages.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.nest.raster import Mask
from zesty_pivot.core.record import record


@record(eq=False)
class Lattice:
    """The cells of the paper against its pages: `nx` by `ny` cells from page to page, of which the first `sx`, `sy` are shared
    with the page before; `cell` is (width, height) mm."""

    nx: int
    ny: int
    sx: int
    sy: int
    cell: tuple[float, float]


def lattice(step: tuple[float, float], overlap: float, about: float) -> Lattice:
    """Cells of about so many mm, a whole number of them to a page. Strips are taken narrower than they are."""
    nx, ny = (max(4, round(length / about)) for length in step)
    cell = step[0] / nx, step[1] / ny
    return Lattice(nx, ny, int(overlap / cell[0] + 1e-9), int(overlap / cell[1] + 1e-9), cell)


@record(eq=False)
class Touch:
    """For a mask laid with its first cell at column fx, row fy of a page: `pages` (ny, nx, rows, columns) says which pages from
    that one on it needs, `cells` how many of its cells each of them shows, `count` (ny, nx) how many pages it needs."""

    pages: Mask
    cells: NDArray[np.int32]
    count: NDArray[np.int32]


def touch(mask: Mask, known: Lattice) -> Touch:
    """What a mask needs, for each of the nx * ny ways it can lie to the pages."""
    rows, columns = (mask.shape[0] + known.ny - 2) // known.ny + 1, (mask.shape[1] + known.nx - 2) // known.nx + 1
    sums = np.zeros((mask.shape[0] + 1, mask.shape[1] + 1), dtype=np.int32)
    sums[1:, 1:] = mask.astype(np.int32).cumsum(0).cumsum(1)
    by = _bounds(mask.shape[0], rows, known.ny, known.sy)
    bx = _bounds(mask.shape[1], columns, known.nx, known.sx)
    # Sums over strips and own parts by turns, in both directions: (ny, nx, 2 rows + 1, 2 columns + 1).
    at = sums[by[:, None, :, None], bx[None, :, None, :]]
    zones = np.diff(np.diff(at, axis=2), axis=3)
    there = zones > 0
    pages = there[:, :, 1::2, 1::2].copy()
    for i in range(rows + 1):
        for j in range(columns + 1):
            _cover(pages, there[:, :, 2 * i, 2 * j + 1] if j < columns else None, [(i - 1, j), (i, j)])
            _cover(pages, there[:, :, 2 * i + 1, 2 * j] if i < rows else None, [(i, j - 1), (i, j)])
    for i in range(rows + 1):
        for j in range(columns + 1):
            _cover(pages, there[:, :, 2 * i, 2 * j], [(i - 1, j - 1), (i - 1, j), (i, j - 1), (i, j)])
    cells = sum(zones[:, :, a : a + 2 * rows : 2, b : b + 2 * columns : 2] for a in (0, 1, 2) for b in (0, 1, 2))
    return Touch(pages, np.asarray(cells, dtype=np.int32), pages.sum(axis=(2, 3), dtype=np.int32))


def _bounds(length: int, pages: int, size: int, strip: int) -> NDArray[np.int64]:
    """Where strips and own parts begin on a mask of `length` cells that begins in cell f of a page, for each f:
    (size, 2 pages + 2), the last strip's end among them."""
    begins = np.array([[page * size, page * size + strip] for page in range(pages + 1)]).ravel()
    return np.clip(begins[None, :] - np.arange(size)[:, None], 0, length)


def _cover(pages: Mask, there: Mask | None, among: list[tuple[int, int]]) -> None:
    """What lies in a shared part needs the last of the pages that share it, where none of them is needed anyhow."""
    if there is None:
        return
    rows, columns = pages.shape[2:]
    known = [(i, j) for i, j in among if 0 <= i < rows and 0 <= j < columns]
    if not known:
        return
    any_ = np.zeros(there.shape, dtype=bool)
    for i, j in known:
        any_ |= pages[:, :, i, j]
    i, j = known[-1]
    pages[:, :, i, j] |= there & ~any_
