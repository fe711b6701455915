"""Pages as they lie in a row and a column over the paper that is to be printed."""

from __future__ import annotations

import math

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.quantity.units import IN
from zesty_pivot.core.record import record, replace

# Page sizes in mm, upright. A4 and A3: ISO 216. Letter and Legal: 8 1/2 x 11 and 8 1/2 x 14 in, ANSI/ASME Y14.1 (from memory).
PAPERS: dict[str, tuple[float, float]] = {
    "A4": (210.0, 297.0), "A3": (297.0, 420.0), "Letter": (8.5 * IN, 11.0 * IN), "Legal": (8.5 * IN, 14.0 * IN),
}  # fmt: skip
EDGE = 10.0  # mm of every page that home printers leave white
OVERLAP = 10.0  # mm shared by neighbouring pages, to glue
LEAST_FIELD = 50.0  # mm of a page that must be left to print on
MAX_PAGES = 400
SMALLEST, LARGEST = 90.0, 2000.0  # mm of a page of one's own


@record
class PageSetup:
    """How pages lie: `width` by `height` mm of the paper as it lies, `edge` mm left white all round, `overlap` mm shared by
    neighbours (0: they are cut along the frame and laid edge to edge)."""

    paper: str
    width: float
    height: float
    edge: float = EDGE
    overlap: float = OVERLAP

    @property
    def field(self) -> tuple[float, float]:
        """The printed field of a page, mm."""
        return self.width - 2.0 * self.edge, self.height - 2.0 * self.edge

    @property
    def step(self) -> tuple[float, float]:
        """From one page's corner to the next, mm: the field less the overlap."""
        return self.field[0] - self.overlap, self.field[1] - self.overlap

    @property
    def across(self) -> PageSetup:
        """The same paper turned by a quarter."""
        return replace(self, width=self.height, height=self.width)


@record
class Page:
    """One page: its number in reading order, its column and row, and the place (x, y) mm of its field's corner."""

    number: int
    column: int
    row: int
    x: float
    y: float

    @property
    def name(self) -> str:
        """As it is written on it: a plain number, which nobody takes for a size of paper."""
        return str(self.number)


def page_setup(paper: str, edge: float = EDGE, overlap: float = OVERLAP) -> PageSetup:
    """Pages of a paper by its name, or by its size as `width x height` in mm, upright. Raises ZestyError for what is none, and
    where little would be left to print on."""
    width, height = PAPERS[paper] if paper in PAPERS else _own_size(paper)
    setup = PageSetup(paper, width, height, edge, overlap)
    if min(setup.field) - overlap < LEAST_FIELD:
        raise ZestyError(
            f"an edge of {edge:g} mm and an overlap of {overlap:g} mm leave less than {LEAST_FIELD:g} mm of {paper}",
            where="pages", advice="Take a narrower edge, or larger paper.",
        )  # fmt: skip
    return setup


def _own_size(paper: str) -> tuple[float, float]:
    """Width and height of `210x297`, in mm."""
    try:
        width, height = (float(part) for part in paper.lower().replace("×", "x").split("x"))
    except ValueError:
        raise ZestyError(
            f"{paper!r} is no paper", where="pages", advice=f"Take one of {', '.join(PAPERS)}, or give a size in mm as 330x480."
        ) from None
    if not (SMALLEST <= width <= LARGEST and SMALLEST <= height <= LARGEST):
        raise ZestyError(
            f"paper of {width:g} by {height:g} mm", where="pages",
            advice=f"Both sides must lie between {SMALLEST:g} and {LARGEST:g} mm.",
        )  # fmt: skip
    return width, height


def grid(width: float, height: float, setup: PageSetup) -> tuple[Page, ...]:
    """All pages over a sheet of `width` by `height` mm, row by row. Raises ZestyError when they are too many."""
    (wide, tall), shared = setup.step, setup.overlap
    columns, rows = (max(1, math.ceil((size - shared) / step - 1e-9)) for size, step in ((width, wide), (height, tall)))
    if columns * rows > MAX_PAGES:
        raise too_many(str(columns * rows), setup.paper)
    cells = [(row, column) for row in range(rows) for column in range(columns)]
    return tuple(Page(n, c, r, c * wide, r * tall) for n, (r, c) in enumerate(cells, start=1))


def too_many(count: str, paper: str) -> ZestyError:
    """The refusal of a sheet of more pages than anybody joins."""
    return ZestyError(f"the sheet needs {count} pages of {paper}", where="print", advice="Print on one page at full size.")
