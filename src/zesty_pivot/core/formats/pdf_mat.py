"""The frame of marks for photographs as a PDF: pages at true size, with marks, joins and what to do."""

from __future__ import annotations

from reportlab.lib.colors import black, white

from zesty_pivot.core.formats.pdf_paper import MM, Paper
from zesty_pivot.core.intake.photo.mat import Mat, mat
from zesty_pivot.core.nest.paged import EDGE, PAPERS, Page, grid, page_setup

DOING = (
    "Print all pages at 100 % and check the square of 10 cm. Glue them edge over edge, in the order of their numbers,",
    "to a frame round an open window. Lay the block within the frame, on a cloth or card of another colour,",
    "flat, with some of the cloth seen all round. Take the picture from above, all twelve marks in it, in even light.",
)


def mat_pdf(paper: str) -> bytes:
    """The frame for a paper: A4, A3 or Letter. Raises KeyError for another."""
    frame = mat(paper)
    setup = page_setup(paper)
    made = Paper("Frame of marks for photographs")
    width, height = PAPERS[paper]
    for number, page in enumerate(grid(frame.width, frame.height, setup)):
        if number:
            made.canvas.showPage()
        made.page(width, height)
        _page(made, frame, page, setup.field)
    return made.done()


def _page(made: Paper, frame: Mat, page: Page, inner: tuple[float, float]) -> None:
    dx, dy = EDGE - page.x, EDGE - page.y
    canvas = made.canvas
    canvas.saveState()
    clip = canvas.beginPath()
    clip.rect(EDGE * MM, (made.height - EDGE - inner[1]) * MM, inner[0] * MM, inner[1] * MM)
    canvas.clipPath(clip, stroke=0)
    for mark in frame.marks:
        canvas.setFillColor(black)
        _square(made, mark.x + dx, mark.y + dy, float(mark.corners[1, 0] - mark.x))
        canvas.setFillColor(white)
        for x, y, side in mark.fields:
            _square(made, x + dx, y + dy, side)
    left, top, right, bottom = frame.window
    made.look(0.2, (4.0, 3.0), faint=True)
    made.rect(left + dx, top + dy, right - left, bottom - top)
    canvas.restoreState()
    made.look(0.2, faint=True)
    made.rect(EDGE, EDGE, *inner)
    made.text(EDGE + inner[0] / 2.0, made.height - 4.0, page.name, 3.2)
    if page.column == 1 and page.row == 1:
        made.look(0.3)
        made.rect(EDGE + 20.0, EDGE + 30.0, 100.0, 100.0)
        made.text(EDGE + 70.0, EDGE + 82.0, "10 cm", 4.0)
        for number, line in enumerate(DOING):
            made.text(EDGE + inner[0] / 2.0, EDGE + 145.0 + 5.0 * number, line, 2.6)


def _square(made: Paper, x: float, y: float, side: float) -> None:
    left, top = made.point(x, y)
    made.canvas.rect(left, top - side * MM, side * MM, side * MM, stroke=0, fill=1)
