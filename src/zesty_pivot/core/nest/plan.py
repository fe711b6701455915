"""What is printed on which page: pieces where they were packed, and the pages that show something of them."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely
from shapely import affinity

from zesty_pivot.core.finish.moved import quarter_turned
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.nest.outline import taken, turned
from zesty_pivot.core.nest.packing import GAP, Put
from zesty_pivot.core.nest.paged import MAX_PAGES, Page, PageSetup, too_many
from zesty_pivot.core.record import record

HAIR = 1e-6  # mm: what reaches no further into a page is not there


@record
class PagePlan:
    """Pieces packed on pages. `puts` are in the order of `pieces`; `setup` is the paper as it lies."""

    setup: PageSetup
    pieces: tuple[FinishedPiece, ...]
    puts: tuple[Put, ...]

    @cached_property
    def laid(self) -> tuple[Laid, ...]:
        """The pieces as they lie, in mm from the corner of the first column and row."""
        x, y = self._corner
        return tuple(Laid(quarter_turned(self.pieces[p.piece], p.quarters), p.x - x, p.y - y) for p in self.puts)

    @cached_property
    def shapes(self) -> tuple[shapely.Geometry, ...]:
        """What each piece takes where it lies."""
        x, y = self._corner
        return tuple(affinity.translate(shape, -x, -y) for shape in self._put)

    @cached_property
    def pages(self) -> tuple[Page, ...]:
        """The pages that are needed, in reading order. Raises ZestyError when there are too many."""
        wide, tall = self.setup.step
        first = self.first
        cells = sorted(((r - first[1], c - first[0]) for c, r in self._cells))
        return tuple(Page(n, c, r, c * wide, r * tall) for n, (r, c) in enumerate(cells, start=1))

    @cached_property
    def _put(self) -> tuple[shapely.Geometry, ...]:
        return tuple(affinity.translate(turned(taken(self.pieces[p.piece]), p.quarters), p.x, p.y) for p in self.puts)

    @cached_property
    def _cells(self) -> frozenset[tuple[int, int]]:
        return frozenset(_needed(self._put, self.setup)) if self.puts else frozenset()

    @property
    def first(self) -> tuple[int, int]:
        """The first column and row that are needed, in the frame of the puts."""
        return min((c for c, _r in self._cells), default=0), min((r for _c, r in self._cells), default=0)

    @property
    def _corner(self) -> tuple[float, float]:
        """Where the first column and row begin, in the frame of the puts."""
        return self.first[0] * self.setup.step[0], self.first[1] * self.setup.step[1]

    @property
    def columns(self) -> int:
        """How many pages lie side by side at most."""
        return max((page.column for page in self.pages), default=0) + 1

    @property
    def rows(self) -> int:
        """How many pages lie below each other at most."""
        return max((page.row for page in self.pages), default=0) + 1

    def neighbour(self, page: Page, across: int, down: int) -> Page | None:
        """The page so many columns and rows away, where that is printed."""
        return self._by_cell.get((page.column + across, page.row + down))

    @cached_property
    def _by_cell(self) -> dict[tuple[int, int], Page]:
        return {(page.column, page.row): page for page in self.pages}

    def field(self, page: Page) -> shapely.Polygon:
        """The printed field of a page."""
        wide, tall = self.setup.field
        return shapely.box(page.x, page.y, page.x + wide, page.y + tall)

    def fullness(self, page: Page) -> float:
        """The share of a page's field that pieces take."""
        field = self.field(page)
        return sum(float(shape.intersection(field).area) for shape in self.shapes) / float(field.area)

    @cached_property
    def joins(self) -> int:
        """How many times a page ends inside a piece: the pages that each piece lies on, less one."""
        fields = [self.field(page) for page in self.pages]
        own = [sum(shape.intersects(field) for field in fields) for shape in self.shapes]
        return sum(max(0, count - 1) for count in own)

    @property
    def is_apart(self) -> bool:
        """Whether all pieces keep their distance."""
        return all(shapely.distance(a, b) >= GAP - 0.01 for n, a in enumerate(self.shapes) for b in self.shapes[n + 1 :])


def _reach(boxes: Sequence[tuple[float, float, float, float]], setup: PageSetup) -> tuple[tuple[int, int], tuple[int, int]]:
    """The first and last column and row of pages that may show something."""
    wide, tall = setup.step
    left, top = min(box[0] for box in boxes), min(box[1] for box in boxes)
    right, bottom = max(box[2] for box in boxes), max(box[3] for box in boxes)
    low = int(np.floor((left - setup.overlap) / wide)), int(np.floor((top - setup.overlap) / tall))
    return low, (int(np.floor(right / wide)), int(np.floor(bottom / tall)))


def _needed(
    shapes: Sequence[shapely.Geometry], setup: PageSetup
) -> set[tuple[int, int]]:  # fmt: skip
    """Columns and rows of the pages that are needed: for what lies in nothing but their own part, then for what lies in strips
    that no page shows yet. Raises ZestyError when there are too many."""
    low, high = _reach([shape.bounds for shape in shapes], setup)
    columns, rows = high[0] - low[0] + 1, high[1] - low[1] + 1
    if columns * rows > 50 * MAX_PAGES:
        raise too_many(f"over {MAX_PAGES}", setup.paper)
    (wide, tall), shared = setup.step, setup.overlap
    whole = shapely.union_all(shapes)
    shapely.prepare(whole)

    def there(c: int, r: int, strip_x: bool, strip_y: bool) -> bool:
        x, y = c * wide + (0.0 if strip_x else shared), r * tall + (0.0 if strip_y else shared)
        right, bottom = c * wide + (shared if strip_x else wide), r * tall + (shared if strip_y else tall)
        return bool(whole.intersects(shapely.box(x + HAIR, y + HAIR, right - HAIR, bottom - HAIR)))

    # A page's own part begins after the strip it shares with the page before it.
    cells = [(c, r) for r in range(low[1], high[1] + 1) for c in range(low[0], high[0] + 1)]
    found = {(c, r) for c, r in cells if there(c, r, False, False)}
    beyond = [(c, r) for r in range(low[1], high[1] + 2) for c in range(low[0], high[0] + 2)]
    if shared > 0.0:
        for c, r in beyond:
            for strip_x, strip_y in ((True, False), (False, True)):
                before = (c - 1, r) if strip_x else (c, r - 1)
                if not found & {(c, r), before} and there(c, r, strip_x, strip_y):
                    found.add((c, r))
        for c, r in beyond:
            if not found & {(c, r), (c - 1, r), (c, r - 1), (c - 1, r - 1)} and there(c, r, True, True):
                found.add((c, r))
    if len(found) > MAX_PAGES:
        raise too_many(str(len(found)), setup.paper)
    return found
