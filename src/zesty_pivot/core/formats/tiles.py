"""Pages of a printed sheet: paper sizes, and the tiles that cover a large sheet with an overlap."""

from __future__ import annotations

import math
from collections.abc import Set

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.record import record

# Page sizes in mm, upright. A4 and A3: ISO 216. Letter: 8 1/2 x 11 in, ANSI/ASME Y14.1 (from memory).
PAPERS: dict[str, tuple[float, float]] = {"A4": (210.0, 297.0), "A3": (297.0, 420.0), "Letter": (215.9, 279.4)}

EDGE = 10.0  # mm of every page that home printers leave white
OVERLAP = 10.0  # mm shared by neighbouring tiles, to glue

MAX_TILES = 400


@record
class Tile:
    """One page of the sheet: column and row from 0, and the sheet's corner (x, y) mm at its printable corner."""

    column: int
    row: int
    x: float
    y: float

    @property
    def name(self) -> str:
        """`A1` for the first row and column; the row is a letter."""
        return f"{_letters(self.row)}{self.column + 1}"


@record
class Tiling:
    """How a sheet is cut into pages. `page` is (width, height) mm of the paper as it lies, `inner` its printed field."""

    paper: str
    page: tuple[float, float]
    columns: int
    rows: int
    tiles: tuple[Tile, ...]

    @property
    def inner(self) -> tuple[float, float]:
        """The printable field of a page, mm."""
        return self.page[0] - 2.0 * EDGE, self.page[1] - 2.0 * EDGE

    @property
    def step(self) -> tuple[float, float]:
        """From one tile's corner to the next, mm: the field less the overlap."""
        return self.inner[0] - OVERLAP, self.inner[1] - OVERLAP


def _letters(number: int) -> str:
    """A to Z, then AA."""
    first, last = divmod(number, 26)
    return (chr(64 + first) if first else "") + chr(65 + last)


def tile(width: float, height: float, paper: str, *, landscape: bool = False) -> Tiling:
    """The pages that cover a sheet of `width` by `height` mm, row by row, neighbours sharing OVERLAP mm.

    Raises KeyError for an unknown paper, ZestyError when the sheet needs more than MAX_TILES pages.
    """
    page = PAPERS[paper][::-1] if landscape else PAPERS[paper]
    page = (page[0], page[1])
    step = page[0] - 2.0 * EDGE - OVERLAP, page[1] - 2.0 * EDGE - OVERLAP
    columns = max(1, math.ceil((width - OVERLAP) / step[0] - 1e-9))
    rows = max(1, math.ceil((height - OVERLAP) / step[1] - 1e-9))
    if columns * rows > MAX_TILES:
        raise ZestyError(
            f"the sheet needs {columns * rows} pages of {paper}", where="print", advice="Print on one page at full size."
        )
    tiles = tuple(Tile(column, row, column * step[0], row * step[1]) for row in range(rows) for column in range(columns))
    return Tiling(paper, page, columns, rows, tiles)


def best_tiling(width: float, height: float, paper: str) -> Tiling:
    """Upright or across, whichever takes fewer pages; upright when both take the same."""
    upright, across = tile(width, height, paper), tile(width, height, paper, landscape=True)
    return across if len(across.tiles) < len(upright.tiles) else upright


def needed(tiling: Tiling, boxes: Set[tuple[float, float, float, float]]) -> tuple[Tile, ...]:
    """The tiles that carry something of the boxes (left, top, right, bottom, mm); empty pages are not printed."""
    wide, tall = tiling.inner
    return tuple(
        t for t in tiling.tiles if any(a < t.x + wide and c > t.x and b < t.y + tall and d > t.y for a, b, c, d in boxes)
    )


def tiled(sheet: Sheet, paper: str) -> tuple[Tiling, tuple[Tile, ...]]:
    """The tiling of a sheet, and the tiles that carry something of it."""
    tiling = best_tiling(sheet.width, sheet.height, paper)
    boxes = set()
    for laid in sheet.laid:
        left, top, right, bottom = laid.piece.box()
        boxes.add((left + laid.dx, top + laid.dy, right + laid.dx, bottom + laid.dy))
    return tiling, needed(tiling, boxes)
