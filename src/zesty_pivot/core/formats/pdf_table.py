"""A table on a page: the first column wide, the others of one width."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.nest.paged import PAPERS

MARGIN, TEXT, ROW, FIRST = 15.0, 3.8, 7.5, 56.0  # mm


def table_pdf(title: str, rows: Sequence[Sequence[str]], size: str) -> bytes:
    """Rows of text under a title, the first row bold, on as many pages as they need."""
    paper, (width, height) = Paper(title), PAPERS[size]
    per_page = int((height - 2 * MARGIN - 12.0) // ROW)
    head, body = list(rows[:1]), list(rows[1:])
    for start in range(0, max(len(body), 1), per_page - 1):
        paper.page(width, height)
        paper.text(MARGIN, MARGIN + 2.0, title, 5.5, bold=True, centred=False)
        shown = [*head, *body[start : start + per_page - 1]]
        wide = (width - 2 * MARGIN - FIRST) / max(1, max(len(row) for row in shown) - 1)
        for number, row in enumerate(shown):
            y = MARGIN + 14.0 + number * ROW
            for column, cell in enumerate(row):
                x = MARGIN + (FIRST + (column - 1) * wide if column else 0.0)
                paper.text(x, y, cell, TEXT, bold=number == 0 or not column, centred=False)
            paper.look(0.15, faint=True)
            paper.line(MARGIN, y + 2.0, width - MARGIN, y + 2.0)
        paper.canvas.showPage()
    return paper.done()
