"""The hand sheet on pages: a box to tick before every line."""

from __future__ import annotations

from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.recipe.hand import Section

MARGIN = 18.0  # mm
TEXT, HEAD = 3.9, 4.9  # mm, height of the letters
LEADING = 1.45  # of the letters' height
BOX = 3.2  # mm, the box to tick


def hand_pages(
    paper: Paper, title: str, sections: tuple[Section, ...], page: tuple[float, float], what: str = "by hand"
) -> None:  # fmt: skip
    """Adds the pages of a hand sheet (none when there are no sections). `page` is (width, height) in mm, `what`
    stands behind the title."""
    if not sections:
        return
    width, height = page
    room = width - 2.0 * MARGIN
    y = _begin(paper, title, page, 1, what)
    number = 1
    for section in sections:
        heading = f"{section.number}  {section.title}" if section.number else section.title
        first = _rows(paper, section.lines[0].text, room) if section.lines else []
        needed = (HEAD + TEXT * len(first)) * LEADING + 4.0
        if y + needed > height - MARGIN:
            paper.canvas.showPage()
            number += 1
            y = _begin(paper, title, page, number, what)
        y += HEAD * LEADING + 3.0
        for row in paper.wrapped(heading, HEAD, room, bold=True):
            paper.text(MARGIN, y, row, HEAD, bold=True, centred=False)
            y += HEAD * LEADING
        for line in section.lines:
            rows = _rows(paper, line.text, room)
            if y + TEXT * LEADING * len(rows) > height - MARGIN:
                paper.canvas.showPage()
                number += 1
                y = _begin(paper, title, page, number, what)
            paper.look(0.2)
            paper.rect(MARGIN, y - BOX, BOX, BOX)
            for row in rows:
                paper.text(MARGIN + BOX + 3.0, y, row, TEXT, centred=False)
                y += TEXT * LEADING
            y += 1.5
    paper.canvas.showPage()


def _rows(paper: Paper, text: str, room: float) -> list[str]:
    return paper.wrapped(text, TEXT, room - BOX - 3.0)


def _begin(paper: Paper, title: str, page: tuple[float, float], number: int, what: str) -> float:
    """A new page with its head; where writing begins, mm from the top."""
    paper.page(*page)
    paper.text(MARGIN, MARGIN, f"{title}: {what}", 6.0, bold=True, centred=False)
    paper.text(MARGIN, page[1] - 9.0, f"{title}   {what}, page {number}", 3.2, centred=False)
    return MARGIN + 6.0
