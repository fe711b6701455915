"""PDF at true scale: pages for home printers with their map, one page at full size, the hand sheet alone."""

from __future__ import annotations

from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.formats.pdf_hand import hand_pages
from zesty_pivot.core.formats.pdf_pages import Rows, add_pages
from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.formats.pdf_pen import PdfPen
from zesty_pivot.core.formats.pdf_squares import SQUARE_CM, SQUARE_IN, squares
from zesty_pivot.core.nest.paged import PAPERS, Page
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.core.recipe.hand import Section

BLOCK = 120.0  # mm, how wide the title block is
ROW = 8.0  # mm of a line in it


def full_pdf(sheet: Sheet, title: str, hand: tuple[Section, ...] = (), *, in_colour: bool = False) -> bytes:
    """The sheet on one page at full size, with the calibration squares below the pieces; the hand sheet on A4 after it."""
    paper = Paper(title)
    below = SQUARE_IN + 25.0
    beside = 15.0 + SQUARE_CM + 15.0 + SQUARE_IN + 15.0
    paper.page(max(sheet.width, beside + BLOCK + 15.0 if sheet.title else 260.0), sheet.height + below)
    draw(sheet.laid, PdfPen(paper, 0.0, 0.0, in_colour=in_colour))
    squares(paper, 15.0, sheet.height + 5.0)
    _title_block(paper, sheet, beside, sheet.height + 5.0)
    paper.canvas.showPage()
    hand_pages(paper, title, hand, PAPERS["A4"])
    return paper.done()


def pages_pdf(
    plan: PagePlan, pages: tuple[Page, ...], title: str, rows: Rows = (), hand: tuple[Section, ...] = (), *,
    in_colour: bool = False,
) -> bytes:  # fmt: skip
    """A first page with the map and the calibration squares, `pages` of the plan with joining marks, then the hand sheet."""
    paper = Paper(title)
    add_pages(paper, plan, pages, title, rows, in_colour=in_colour)
    setup = plan.setup
    hand_pages(paper, title, hand, (min(setup.width, setup.height), max(setup.width, setup.height)))
    return paper.done()


def hand_pdf(title: str, hand: tuple[Section, ...], size: str) -> bytes:
    """The hand sheet alone, on a paper by its name."""
    paper = Paper(title)
    hand_pages(paper, title, hand, PAPERS[size])
    return paper.done()


def _title_block(paper: Paper, sheet: Sheet, x: float, y: float) -> None:
    """The title block as a table."""
    paper.look(0.2)
    for name, said in sheet.title:
        lines = paper.wrapped(said, 4.0, BLOCK - 38.0)
        tall = ROW + 5.0 * (len(lines) - 1)
        paper.rect(x, y, BLOCK, tall)
        paper.text(x + 3.0, y + 5.5, name, 3.2, centred=False)
        for number, line in enumerate(lines):
            paper.text(x + 34.0, y + 5.5 + 5.0 * number, line, 4.0, bold=name == "Style", centred=False)
        y += tall
