"""Pieces laid one by one, each as near to the beginning of the cloth as it goes and then as near to its edge: for folded cloth,
for stripes and checks, and to compare other lays with."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy import fft
from shapely import affinity

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.nest.cloth import Cloth, too_wide
from zesty_pivot.core.nest.cut_pieces import CutPiece
from zesty_pivot.core.nest.lay import LayPlan, OnCloth, placed, plan_of_places
from zesty_pivot.core.nest.raster import rasterised
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record

CELL = 5.0  # mm of the cells that free places are looked for by; pieces are then pushed together exactly
SLIDE = 0.05  # mm: pushed no nearer than this
# Orders in which pieces are laid: the largest, the longest or the widest first.
ORDERS: tuple[Callable[[CutPiece], float], ...] = (
    lambda piece: -float(piece.shape.area),
    lambda piece: piece.shape.bounds[0] - piece.shape.bounds[2],
    lambda piece: piece.shape.bounds[1] - piece.shape.bounds[3],
)


@record
class Phase:
    """Where a piece must lie to match: its place (x, y) mm of the frame falls on whole repeats; None: anywhere that way."""

    x: float | None = None
    y: float | None = None


def filled(
    cloth: Cloth, pieces: Sequence[CutPiece], phases: dict[str, Phase] | None = None,
    locked: Sequence[OnCloth] = (),
) -> Iterator[LayPlan]:  # fmt: skip
    """A lay by each of the orders. `locked` pieces stay where they are. Raises ZestyError for a piece that is wider than the
    cloth."""
    kept = {place.key: place for place in locked}
    for piece in pieces:
        if piece.key not in kept:
            _check(piece, cloth)
    for order in ORDERS:
        filling = _Filling(cloth)
        places = list(locked)
        for piece in pieces:
            if piece.key in kept:
                filling.put(placed(piece, kept[piece.key]))
        # What belongs to the fold or to a repeat has the fewest ways to lie.
        free = [piece for piece in pieces if piece.key not in kept]
        for piece in sorted(free, key=lambda one: (not one.is_at_fold, one.key not in (phases or {}), order(one))):
            place = filling.place(piece, (phases or {}).get(piece.key, Phase()))
            places.append(place)
            filling.put(placed(piece, place))
        yield plan_of_places(cloth, pieces, places)


def _check(piece: CutPiece, cloth: Cloth) -> None:
    turns = (0.0,) if piece.is_at_fold else cloth.turns
    across = [affinity.rotate(piece.shape, turn, origin=(0.0, 0.0)).bounds for turn in turns]
    if min(high - low for _left, low, _right, high in across) > cloth.usable + 1e-6:
        raise too_wide(piece, cloth)


class _Filling:
    """The cloth as far as it is covered."""

    def __init__(self, cloth: Cloth) -> None:
        self._cloth = cloth
        self._rows = math.ceil(cloth.usable / CELL) + 1
        self._covered = np.zeros((self._rows, 16), dtype=np.float32)
        self._shapes: list[shapely.Polygon] = []
        self._boxes: list[tuple[float, float, float, float]] = []
        self._seen: dict[tuple[int, int], NDArray[np.complex64]] = {}  # what is covered, transformed, by the size of it

    def put(self, shape: shapely.Polygon) -> None:
        """A piece lies here, with the gap round it, but for the cell that what is drawn in cells is too wide by."""
        shapely.prepare(shape)
        self._seen.clear()
        self._shapes.append(shape)
        self._boxes.append(shape.bounds)
        raster = rasterised(shape, (CELL, CELL), max(0.0, self._cloth.gap - CELL))
        row, column = math.floor(raster.corner[1] / CELL), math.floor(raster.corner[0] / CELL)
        # On the cells of the cloth a shape reaches into one more than on its own.
        high, wide = raster.mask.shape[0] + 1, raster.mask.shape[1] + 1
        self._widen(column + wide)
        grown = np.zeros((high, wide), dtype=bool)
        for dy in (0, 1):
            for dx in (0, 1):
                grown[dy : dy + high - 1, dx : dx + wide - 1] |= raster.mask
        top, left = max(0, -row), max(0, -column)
        part = self._covered[row + top : row + high, column + left : column + wide]
        part[grown[top : top + part.shape[0], left : left + part.shape[1]]] = 1.0

    def _widen(self, columns: int) -> None:
        more = columns - self._covered.shape[1]
        if more > 0:
            self._covered = np.pad(self._covered, ((0, 0), (0, more)))

    def place(self, piece: CutPiece, phase: Phase) -> OnCloth:
        """Where a piece lies nearest to the beginning."""
        turns = (0.0,) if piece.is_at_fold else self._cloth.turns
        along, across = self._cloth.repeat
        found: list[tuple[float, float, OnCloth]] = []
        for turn in turns:
            shape = affinity.rotate(piece.shape, turn, origin=(0.0, 0.0))
            anchor = _turned(phase, turn)
            x_step = along if along and anchor[0] is not None else 0.0
            y_step = across if across and anchor[1] is not None and not piece.is_at_fold else 0.0
            ys = [0.0] if piece.is_at_fold else self._across(shape, y_step, -(anchor[1] or 0.0))
            if ys:
                xs = self._along(shape, x_step, -(anchor[0] or 0.0))
                at = self._first(shape, xs, ys, can_x=not x_step, can_y=not y_step and not piece.is_at_fold)
                found.append((at[0] + shape.bounds[2], at[1], OnCloth(piece.key, turn, *at)))
        if not found:
            raise ZestyError(
                f"{words(piece.key)} finds no place where it matches across the cloth", where="lay", advice="Take wider cloth."
            )
        return min(found, key=lambda one: one[:2])[2]

    def _across(self, shape: shapely.Polygon, step: float, start: float) -> list[float]:
        """The shifts across that keep a shape on the cloth: those of a repeat, or every cell and the other edge."""
        _left, low, _right, high = shape.bounds
        usable = self._cloth.usable
        if high - low > usable + 1e-6:
            return []
        if step:
            first = math.ceil((-low - start) / step - 1e-9)
            ys = [start + (first + k) * step for k in range(int(usable / step) + 2)]
            return [y for y in ys if y + high <= usable + 1e-6]
        return [*(-low + CELL * k for k in range(int((usable - high + low) / CELL + 1e-9) + 1)), usable - high]

    def _along(self, shape: shapely.Polygon, step: float, start: float) -> list[float]:
        """The shifts along, the last of them beyond everything that lies there."""
        left, length = shape.bounds[0], self._covered.shape[1] * CELL + self._cloth.gap
        if step:
            first = math.ceil((-left - start) / step - 1e-9)
            return [start + (first + k) * step for k in range(int(length / step) + 2)]
        return [*(-left + CELL * k for k in range(self._covered.shape[1] + 1)), length - left]

    def _first(
        self, shape: shapely.Polygon, xs: list[float], ys: list[float], *, can_x: bool, can_y: bool
    ) -> tuple[float, float]:  # fmt: skip
        """The shift (x, y) to the first free place, pushed as near as it goes in the directions that it can lie anywhere in."""
        for number in np.flatnonzero(self._may_be_free(shape, xs, ys, is_on_cells=can_x and can_y)):
            column, row = divmod(int(number), len(ys))
            if self._is_free(shape, xs[column], ys[row]):
                return self._slid(shape, xs[column], ys[row], can_x=can_x, can_y=can_y)
        raise AssertionError("beyond everything that lies on the cloth it is free")

    def _may_be_free(
        self, shape: shapely.Polygon, xs: list[float], ys: list[float], *, is_on_cells: bool
    ) -> NDArray[np.bool_]:  # fmt: skip
        """By shifts along and across: whether the shape may be free there. What is left of it some cells inside it meets
        nothing: few places that are free are told as taken, and pieces are pushed together after. The last shift along is
        free."""
        left, low, _right, _high = shape.bounds
        inside = CELL if is_on_cells else 2.0 * CELL  # what lies between cells may be a cell farther
        found = np.ones((len(xs), len(ys)), dtype=np.bool_)
        inner = shape.buffer(-inside)
        if inner.is_empty:
            return found
        mask = rasterised(shape, (CELL, CELL), -inside).mask
        size = self._covered.shape
        dy, dx = int((inner.bounds[1] - low) / CELL), int((inner.bounds[0] - left) / CELL)
        full = _fast(size[0] + mask.shape[0]), _fast(size[1] + mask.shape[1])
        if full not in self._seen:
            self._seen[full] = fft.rfft2(self._covered, full)
        meets = fft.irfft2(self._seen[full] * np.conj(fft.rfft2(mask.astype(np.float32), full)), full)
        free = meets[dy : dy + max(size[0] - dy, 1), dx : dx + max(size[1] - dx, 1)] < 0.5
        columns, rows = (np.floor((np.array(at) + start) / CELL + 1e-6).astype(int) for at, start in ((xs, left), (ys, low)))
        told_x, told_y = (columns >= 0) & (columns < free.shape[1]), (rows >= 0) & (rows < free.shape[0])
        told_x[-1] = False
        if is_on_cells:
            told_y[-1] = False  # at the other edge it lies between cells
        found[np.ix_(told_x, told_y)] = free[np.ix_(rows[told_y], columns[told_x])].T
        return found

    def _is_free(self, shape: shapely.Polygon, x: float, y: float) -> bool:
        if not self._shapes:
            return True
        gap, (left, low, right, high) = self._cloth.gap, shape.bounds
        boxes = np.array(self._boxes)
        near = (
            (boxes[:, 0] < right + x + gap) & (boxes[:, 2] > left + x - gap)
            & (boxes[:, 1] < high + y + gap) & (boxes[:, 3] > low + y - gap)
        )  # fmt: skip
        there = affinity.translate(shape, x, y)
        others = np.array(self._shapes)[near]
        if gap > 0.0:
            return not shapely.dwithin(others, there, gap - 1e-9).any()
        return not (shapely.area(shapely.intersection(others, there)) > 1e-6).any()

    def _slid(self, shape: shapely.Polygon, x: float, y: float, *, can_x: bool, can_y: bool) -> tuple[float, float]:
        """Pushed towards the beginning, then towards the edge, and once more."""
        left, low = shape.bounds[0], shape.bounds[1]
        for _ in range(2):
            if can_x:
                x -= self._push(shape, x, y, (1.0, 0.0), x + left)
            if can_y:
                y -= self._push(shape, x, y, (0.0, 1.0), y + low)
        return x, y

    def _push(self, shape: shapely.Polygon, x: float, y: float, way: tuple[float, float], most: float) -> float:
        """How far it can be pushed back from a free place, at most one cell, no farther than to the edge."""
        most = max(0.0, min(most, CELL))
        if most <= 0.0 or self._is_free(shape, x - way[0] * most, y - way[1] * most):
            return most
        near, far = 0.0, most
        while far - near > SLIDE:
            middle = (near + far) / 2.0
            if self._is_free(shape, x - way[0] * middle, y - way[1] * middle):
                near = middle
            else:
                far = middle
        return near


def _fast(count: int) -> int:
    """A size that is transformed fast, the same for sizes near each other."""
    return int(fft.next_fast_len(64 * math.ceil(count / 64), real=True))


def _turned(phase: Phase, turn: float) -> tuple[float | None, float | None]:
    """The place that must match, after a turn. Where only one direction matches a lean of the grain is too small to tell."""
    x, y = phase.x or 0.0, phase.y or 0.0
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    return (
        None if phase.x is None else cos * x - sin * y,
        None if phase.y is None else sin * x + cos * y,
    )
