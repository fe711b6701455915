"""The cut sheet as pages: every piece small and true, then what is needed and how it is sewn."""

from __future__ import annotations

from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.formats.cut_sheet import CutRow, CutSheet, StandShown
from zesty_pivot.core.formats.pdf_hand import hand_pages
from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.formats.pdf_pen import PdfPen
from zesty_pivot.core.formats.sketch import add_sketch
from zesty_pivot.core.nest.paged import PAPERS
from zesty_pivot.core.procedures.hand import Line
from zesty_pivot.core.recipe.hand import Section

MARGIN, COLUMNS = 15.0, 3
DRAWN = 52.0  # mm of a cell that are drawn in
SCALES = (8, 10, 16, 20, 25, 40, 50)  # the first at which a piece fits its cell
SKETCH = (78.0, 36.0)  # mm of the flat sketch at the head
SAID = 5.0  # mm of a line under a drawing


def cut_sheet_pdf(sheet: CutSheet, title: str, size: str = "A4") -> bytes:
    """The pages on a paper."""
    paper, page = Paper(f"{title}: cut sheet"), PAPERS[size]
    width = (page[0] - 2.0 * MARGIN) / COLUMNS
    tall = DRAWN + 4.0 * SAID + 6.0
    top = _head(paper, sheet, title, page)
    y = top
    for number, row in enumerate(sheet.rows):
        column = number % COLUMNS
        if column == 0 and number:
            y += tall
        if column == 0 and y + tall > page[1] - MARGIN:
            paper.canvas.showPage()
            paper.page(*page)
            y = MARGIN
        _cell(paper, row, (MARGIN + column * width, y, width - 4.0))
    paper.canvas.showPage()
    if sheet.stand is not None:
        _stand(paper, sheet.stand, title, page)
    hand_pages(paper, title, _sections(sheet), page, "making")
    return paper.done()


def _head(paper: Paper, sheet: CutSheet, title: str, page: tuple[float, float]) -> float:
    paper.page(*page)
    paper.text(MARGIN, MARGIN + 4.0, f"{title}: cut sheet", 6.0, bold=True, centred=False)
    said = "; ".join(f"{name.lower()}: {text}" for name, text in sheet.head[1:])
    count = sum(row.count * len(row.cloths) for row in sheet.rows)
    note = f"{len(sheet.rows)} pieces of pattern, {count} pieces of cloth."
    add_sketch(paper, sheet.sketch, (page[0] - MARGIN - SKETCH[0], MARGIN, *SKETCH))
    y, room = MARGIN + 11.0, page[0] - 2.0 * MARGIN - SKETCH[0] - 4.0
    for line in (*paper.wrapped(said, 3.6, room), note) if said else (note,):
        paper.text(MARGIN, y, line, 3.6, centred=False)
        y += 5.0
    return max(y + 3.0, MARGIN + SKETCH[1] + 5.0)


def _cell(paper: Paper, row: CutRow, cell: tuple[float, float, float]) -> None:
    """A drawing with what is said of the piece below it."""
    x, y, width = cell
    left, top, _right, _bottom = row.piece.box()
    scale = next((one for one in SCALES if row.size[0] / one <= width - 3.0 and row.size[1] / one <= DRAWN), SCALES[-1])
    canvas = paper.canvas
    paper.look(0.15, faint=True)
    paper.rect(x, y, width, DRAWN + 3.0)
    canvas.saveState()
    canvas.translate(*paper.point(x + 1.5 + (width - 3.0 - row.size[0] / scale) / 2.0, y + 1.5))
    canvas.scale(1.0 / scale, 1.0 / scale)
    # Inside the scaled frame the piece is drawn from its own corner, its lines as wide as on other paper.
    height, paper.height = paper.height, 0.0
    draw((Laid(row.piece, -left, -top),), PdfPen(paper, 0.0, 0.0))
    paper.height = height
    canvas.restoreState()
    lines = [
        f"{row.number}  {row.name}",
        f"{row.order}; {' and '.join(row.cloths)}; drawn 1:{scale}",
        f"allowances {row.allowances}",
    ]
    below = y + DRAWN + 3.0
    for number, text in enumerate(lines):
        for wrapped in paper.wrapped(text, 3.2, width)[: 2 if number == 2 else 1]:
            below += SAID * 0.85
            paper.text(x, below, wrapped, 3.2, bold=number == 0, centred=False)


def _stand(paper: Paper, shown: StandShown, title: str, page: tuple[float, float]) -> None:
    """A page with the pattern on its form, and what that tells."""
    paper.page(*page)
    paper.text(MARGIN, MARGIN + 4.0, f"{title}: on the stand", 6.0, bold=True, centred=False)
    y, room = MARGIN + 12.0, page[0] - 2.0 * MARGIN
    if shown.picture:
        y = paper.picture(shown.picture, MARGIN, y, room) + 8.0
    for text in shown.says:
        for wrapped in paper.wrapped(text, 3.6, room):
            paper.text(MARGIN, y, wrapped, 3.6, centred=False)
            y += 5.0
        y += 1.5
    paper.canvas.showPage()


def _sections(sheet: CutSheet) -> tuple[Section, ...]:
    def section(title: str, lines: tuple[str, ...]) -> Section:
        return Section(0, title, tuple(Line("say", text, {}) for text in lines))

    order = tuple(f"{one.says} {one.stitches} stitches to 10 cm." for one in sheet.order)
    found = [
        section("Cloth to buy", tuple(f"{name}: {said}." for name, said in sheet.lays)),
        section("Also needed", tuple(f"{name}: {said}." for name, said in sheet.notions)),
        section("Sewing order", order),
    ]
    if sheet.watch:
        found.append(section("Points to watch", tuple(f"{text}." for text in sheet.watch)))
    return tuple(found)
