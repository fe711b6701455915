"""Pieces packed so that the fewest pages print: laid one by one where they need the fewest new pages, then some taken up and
laid again, for as long as it is asked for."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import numpy as np
import shapely
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from zesty_pivot.core.nest.outline import turned
from zesty_pivot.core.nest.paged import PageSetup
from zesty_pivot.core.nest.raster import Mask, Raster, rasterised
from zesty_pivot.core.nest.touched import Lattice, Touch, lattice, touch
from zesty_pivot.core.record import record

GAP = 4.0  # mm between pieces
CELL = 3.0  # mm of the cells that pieces are looked at by
MOST_CELLS = 350_000  # of the paper that is looked at: where it is larger its cells are
SPARSE = 0.055  # of a page: one that shows less is paid for as if it were one and a half
REACH = 12  # cells that a piece is felt away from itself
JOIN = 0.02  # of a page, what a page more across a piece costs


@record(eq=False)
class Posture:
    """A piece turned by so many quarters: the cells it keeps others from, which pages it needs (`needs`: the
    same as a table, a column for each way to lie), and its transform for collisions."""

    quarters: int
    raster: Raster
    touch: Touch
    needs: NDArray[np.float32]
    seen: NDArray[np.complex64]


@record
class Put:
    """Where a piece lies: turned clockwise by quarters about its own origin, then shifted by (x, y) mm; pages begin at
    multiples of their step."""

    piece: int
    quarters: int
    x: float
    y: float


@record(eq=False)
class _Spot:
    posture: Posture
    row: int
    column: int


_Laying = dict[int, _Spot]  # pieces as they lie, by their number


class PagePacker:
    """Packs shapes (each in its own mm) on pages of a setup. The same seed gives the same search."""

    def __init__(self, shapes: Sequence[shapely.Geometry], setup: PageSetup, seed: int = 1) -> None:
        self.known: Lattice = lattice(setup.step, setup.overlap, _cell_for(shapes, setup))
        self._chance = np.random.default_rng(seed)
        rasters = [[_postures(shape, quarters, self.known) for quarters in (0, 1)] for shape in shapes]
        masks = [raster.mask for pair in rasters for raster, _bare in pair]
        pages = [self._pages(mask.shape) for mask in masks]
        least = sum(math.ceil(mask.sum() / (self.known.nx * self.known.ny)) for mask in masks) / 2.0
        side = max(*(max(size) for size in pages), math.ceil(math.sqrt(2.0 * least)) + 1)
        self.rows = self.columns = side
        self._size = _smooth(side * self.known.ny), _smooth(side * self.known.nx)
        self._field = self.known.nx * self.known.ny
        self._postures = [self._all_four(pair) for pair in rasters]
        self._weight = [float(pair[0][1].mask.sum()) for pair in rasters]

    def _pages(self, shape: tuple[int, ...]) -> tuple[int, int]:
        return (shape[0] + self.known.ny - 2) // self.known.ny + 1, (shape[1] + self.known.nx - 2) // self.known.nx + 1

    def _all_four(self, pair: list[tuple[Raster, Raster]]) -> list[Posture]:
        found = []
        for quarters in range(4):
            raster, bare = pair[quarters % 2]
            if quarters >= 2:
                raster, bare = _half_turned(raster), _half_turned(bare)
            seen = np.conj(np.fft.rfft2(raster.mask.astype(np.float32), self._size)).astype(np.complex64)
            touched = touch(bare.mask, self.known)
            needs = touched.pages.reshape(self._field, -1).T.astype(np.float32)
            found.append(Posture(quarters, raster, touched, needs, seen))
        return found

    def search(self) -> Iterator[tuple[float, tuple[Put, ...]]]:
        """Better and better packings with their cost in pages, the best so far after every round. Without an end."""
        best = self._lay({}, sorted(range(len(self._weight)), key=lambda k: -self._weight[k]))
        cost = self._cost(best)
        now, now_cost = best, cost
        yield cost, self._told(best)
        while True:
            tried = self._again(now)
            tried_cost = self._cost(tried)
            if tried_cost <= now_cost + self._chance.exponential(0.06):
                now, now_cost = tried, tried_cost
            if tried_cost < cost:
                best, cost = tried, tried_cost
            yield cost, self._told(best)

    def _again(self, laying: _Laying) -> _Laying:
        """Some pieces taken up and laid again: those on a page that shows little, and perhaps another."""
        shown = self._shown(laying)
        pages = np.argwhere(shown > 0)
        weights = 1.0 / (shown[shown > 0] + 0.15 * self._field)
        row, column = pages[self._chance.choice(len(pages), p=weights / weights.sum())]
        up = {k for k, spot in laying.items() if self._pages_of(spot)[row, column]}
        others = [k for k in laying if k not in up]
        if others:
            more = int(self._chance.integers(0, min(3, len(others) + 1)))
            up |= {int(k) for k in self._chance.choice(others, more, replace=False)}
        kept = {k: spot for k, spot in laying.items() if k not in up}
        order = sorted(up, key=lambda k: -self._weight[k] * self._chance.uniform(0.4, 1.6))
        return self._lay(kept, order)

    def _lay(self, laying: _Laying, order: Sequence[int]) -> _Laying:
        spots = dict(laying)
        for number in order:
            spots[number] = self._place(spots, number)
        return spots

    def _place(self, spots: _Laying, number: int) -> _Spot:
        """Where a piece needs the fewest new pages, and lies close to others."""
        taken = np.zeros(self._size, dtype=np.float32)
        used = np.zeros((self.rows, self.columns), dtype=bool)
        for spot in spots.values():
            mask = spot.posture.raster.mask
            taken[spot.row : spot.row + mask.shape[0], spot.column : spot.column + mask.shape[1]] += mask
            used |= self._pages_of(spot)
        seen = np.fft.rfft2(taken).astype(np.complex64)
        near = _smeared(taken) if spots else None
        best: tuple[float, _Spot] | None = None
        for posture in self._postures[number]:
            cost = self._new_pages(posture, used)
            rows, columns = cost.shape
            meets = np.fft.irfft2(seen * posture.seen, self._size)[:rows, :columns]
            cost[meets > 0.5] = np.inf
            if near is not None:
                high, wide = posture.raster.mask.shape
                close = near[high:, wide:] - near[:-high, wide:] - near[high:, :-wide] + near[:-high, :-wide]
                cost -= (0.5 / max(1.0, float(close.max()))) * close[:rows, :columns]
            cost += self._chance.uniform(0.0, 0.1, cost.shape)
            at = int(cost.argmin())
            if best is None or cost.flat[at] < best[0]:
                best = float(cost.flat[at]), _Spot(posture, *divmod(at, columns))
        assert best is not None
        return best[1]

    def _new_pages(self, posture: Posture, used: Mask) -> NDArray[np.float32]:
        """For every row and column that the piece can lie at, how many pages it needs beyond those in use."""
        ny, nx, rows, columns = posture.touch.pages.shape
        free = sliding_window_view(~used, (rows, columns))
        # Many windows look alike. Not by a matrix product: its threads wait for each other where others are at work as well.
        alike, which = np.unique(free.reshape(-1, rows * columns), axis=0, return_inverse=True)
        table = np.einsum("wp,pf->wf", alike.astype(np.float32), posture.needs) + JOIN * posture.touch.count.reshape(1, -1)
        new = table[which].reshape(free.shape[0], free.shape[1], ny, nx)
        return np.asarray(new.transpose(0, 2, 1, 3).reshape(free.shape[0] * ny, free.shape[1] * nx), dtype=np.float32)

    def _pages_of(self, spot: _Spot) -> Mask:
        """The pages that a piece needs where it lies."""
        return self._spread(spot, spot.posture.touch.pages) > 0

    def _spread(self, spot: _Spot, of: NDArray[np.bool_] | NDArray[np.int32]) -> NDArray[np.int64]:
        (row, y), (column, x) = divmod(spot.row, self.known.ny), divmod(spot.column, self.known.nx)
        own = of[y, x]
        found = np.zeros((self.rows, self.columns), dtype=np.int64)
        part = found[row : row + own.shape[0], column : column + own.shape[1]]
        part += own[: part.shape[0], : part.shape[1]]
        return found

    def _shown(self, laying: _Laying) -> NDArray[np.int64]:
        """How many cells of pieces each page that is needed shows."""
        shown, used = np.zeros((self.rows, self.columns), dtype=np.int64), np.zeros((self.rows, self.columns), dtype=bool)
        for spot in laying.values():
            shown += self._spread(spot, spot.posture.touch.cells)
            used |= self._pages_of(spot)
        return np.where(used, np.maximum(shown, 1), 0)

    def _cost(self, laying: _Laying) -> float:
        shown = self._shown(laying)
        joins = sum(
            int(spot.posture.touch.count[spot.row % self.known.ny, spot.column % self.known.nx]) for spot in laying.values()
        )
        sparse = (shown > 0) & (shown < SPARSE * self._field)
        return float((shown > 0).sum() + 0.5 * sparse.sum() + JOIN * joins)

    def _told(self, laying: _Laying) -> tuple[Put, ...]:
        wide, tall = self.known.cell
        found = []
        for number, spot in sorted(laying.items()):
            x, y = spot.posture.raster.corner
            found.append(Put(number, spot.posture.quarters, spot.column * wide - x, spot.row * tall - y))
        return tuple(found)


def _cell_for(shapes: Sequence[shapely.Geometry], setup: PageSetup) -> float:
    """Mm of the cells, so that a round takes a moment on the largest pattern as well."""
    taken = sum(float(shape.area) for shape in shapes)
    longest = max(max(shape.bounds[2] - shape.bounds[0], shape.bounds[3] - shape.bounds[1]) for shape in shapes)
    side = max(math.sqrt(2.5 * taken), longest) + 2.0 * max(setup.step)
    return float(max(CELL, side / math.sqrt(MOST_CELLS)))


def _postures(shape: shapely.Geometry, quarters: int, known: Lattice) -> tuple[Raster, Raster]:
    """The cells that a turned shape keeps others from, and those it takes itself, on the same cells."""
    lying = turned(shape, quarters)
    wide = rasterised(lying, known.cell, GAP / 2.0)
    return wide, rasterised(lying, known.cell, 0.0, wide)


def _half_turned(raster: Raster) -> Raster:
    (x, y), (rows, columns) = raster.corner, raster.mask.shape
    corner = -(x + columns * raster.cell[0]), -(y + rows * raster.cell[1])
    return Raster(raster.mask[::-1, ::-1], raster.cell, corner)


def _smeared(taken: NDArray[np.float32]) -> NDArray[np.float32]:
    """What is taken, spread over its surroundings, as sums from the first cell on: pieces are drawn to where others lie."""
    wide = 2 * REACH + 1
    sums = np.pad(taken, ((REACH + 1, REACH), (REACH + 1, REACH))).cumsum(0).cumsum(1)
    spread = sums[wide:, wide:] - sums[:-wide, wide:] - sums[wide:, :-wide] + sums[:-wide, :-wide]
    return np.asarray(np.pad(spread / wide**2, ((1, 0), (1, 0))).cumsum(0).cumsum(1))


def _smooth(length: int) -> int:
    """The next length that is a product of twos, threes and fives: transforms of those are fast."""
    while True:
        left = length
        for factor in (2, 3, 5):
            while left % factor == 0:
                left //= factor
        if left == 1:
            return length
        length += 1
