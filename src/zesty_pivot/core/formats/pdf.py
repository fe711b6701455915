"""PDF at true scale: tiled for home printers with page map and calibration squares, or one page at full size."""

from __future__ import annotations

import itertools

from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.formats.pdf_hand import hand_pages
from zesty_pivot.core.formats.pdf_paper import MM, Paper
from zesty_pivot.core.formats.pdf_pen import PdfPen
from zesty_pivot.core.formats.tiles import EDGE, OVERLAP, PAPERS, Tile, Tiling
from zesty_pivot.core.recipe.hand import Section

SQUARE_CM = 100.0  # mm, the 10 cm calibration square
BLOCK = 120.0  # mm, how wide the title block is
ROW = 8.0  # mm of a line in it
SQUARE_IN = 101.6  # mm, the 4 in calibration square


def full_pdf(sheet: Sheet, title: str, hand: tuple[Section, ...] = ()) -> bytes:
    """The sheet on one page at full size, with the calibration squares below the pieces; the hand sheet on A4 after it."""
    paper = Paper(title)
    below = SQUARE_IN + 25.0
    beside = 15.0 + SQUARE_CM + 15.0 + SQUARE_IN + 15.0
    paper.page(max(sheet.width, beside + BLOCK + 15.0 if sheet.title else 260.0), sheet.height + below)
    draw(sheet.laid, PdfPen(paper, 0.0, 0.0))
    _squares(paper, 15.0, sheet.height + 5.0)
    _title_block(paper, sheet, beside, sheet.height + 5.0)
    paper.canvas.showPage()
    hand_pages(paper, title, hand, PAPERS["A4"])
    return paper.done()


def tiled_pdf(sheet: Sheet, tiling: Tiling, tiles: tuple[Tile, ...], title: str, hand: tuple[Section, ...] = ()) -> bytes:
    """A first page with the map and the calibration squares, the tiles with joining marks, then the hand sheet."""
    paper = Paper(title)
    _map_page(paper, sheet, tiling, tiles, title)
    for tile in tiles:
        _tile_page(paper, sheet, tiling, tile, title)
    hand_pages(paper, title, hand, PAPERS[tiling.paper])
    return paper.done()


def hand_pdf(title: str, hand: tuple[Section, ...], size: str) -> bytes:
    """The hand sheet alone, on A4, A3 or Letter."""
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


def _squares(paper: Paper, x: float, y: float) -> None:
    paper.look(0.2)
    paper.rect(x, y, SQUARE_CM, SQUARE_CM)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2, "10 cm", 5.0)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2 + 7.0, "measure before you cut", 3.5)
    right = x + SQUARE_CM + 15.0
    paper.rect(right, y, SQUARE_IN, SQUARE_IN)
    paper.text(right + SQUARE_IN / 2, y + SQUARE_IN / 2, "4 in", 5.0)


def _map_page(paper: Paper, sheet: Sheet, tiling: Tiling, tiles: tuple[Tile, ...], title: str) -> None:
    """The squares one under the other where the page is narrow, and the map of the tiles."""
    width, height = tiling.page
    paper.page(width, height)
    paper.text(EDGE, 16.0, title, 6.0, bold=True, centred=False)
    note = f"{len(tiles)} pages of {tiling.paper}, {tiling.columns} across by {tiling.rows} down. Print at 100 %."
    paper.text(EDGE, 23.0, note, 4.0, centred=False)
    said = "; ".join(f"{name}: {text}" for name, text in sheet.title[1:])
    lines = paper.wrapped(said, 3.5, width - 2.0 * EDGE) if said else []
    for number, line in enumerate(lines):
        paper.text(EDGE, 29.0 + 5.0 * number, line, 3.5, centred=False)
    top = 30.0 + 5.0 * len(lines)
    paper.look(0.2)
    if width - 2.0 * EDGE >= SQUARE_CM + SQUARE_IN + 15.0:
        _squares(paper, EDGE, top)
        space = (EDGE, top + SQUARE_IN + 10.0, width - 2.0 * EDGE, height - top - SQUARE_IN - 10.0 - EDGE)
    else:
        _nested(paper, EDGE, top)
        space = (EDGE, top + SQUARE_IN + 10.0, width - 2.0 * EDGE, height - top - SQUARE_IN - 10.0 - EDGE)
    _page_map(paper, sheet, tiling, tiles, space)
    paper.canvas.showPage()


def _nested(paper: Paper, x: float, y: float) -> None:
    """Both squares from one corner, where there is no room side by side."""
    paper.look(0.2)
    paper.rect(x, y, SQUARE_CM, SQUARE_CM)
    paper.rect(x, y, SQUARE_IN, SQUARE_IN)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2, "inner square 10 cm", 4.5)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2 + 7.0, "outer square 4 in", 4.5)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2 + 14.0, "measure before you cut", 3.5)


def _page_map(
    paper: Paper, sheet: Sheet, tiling: Tiling, tiles: tuple[Tile, ...], space: tuple[float, float, float, float]
) -> None:
    x, y, wide, tall = space
    step = tiling.step
    full = step[0] * tiling.columns + OVERLAP, step[1] * tiling.rows + OVERLAP
    scale = min(wide / full[0], tall / full[1], 0.25)
    canvas = paper.canvas
    canvas.saveState()
    canvas.translate(*paper.point(x, y))
    canvas.scale(scale, scale)
    # Inside the scaled frame the sheet is drawn from its own corner.
    height, paper.height = paper.height, 0.0
    draw(sheet.laid, PdfPen(paper, 0.0, 0.0))
    paper.look(0.15 / scale, faint=True)
    for tile in tiles:
        paper.rect(tile.x, tile.y, step[0], step[1])
        paper.text(tile.x + step[0] / 2, tile.y + step[1] / 2, tile.name, 4.5 / scale, bold=True)
    paper.height = height
    canvas.restoreState()


def _tile_page(paper: Paper, sheet: Sheet, tiling: Tiling, tile: Tile, title: str) -> None:
    width, height = tiling.page
    wide, tall = tiling.inner
    paper.page(width, height)
    canvas = paper.canvas
    canvas.saveState()
    clip = canvas.beginPath()
    clip.rect(*paper.point(EDGE, EDGE + tall), wide * MM, tall * MM)
    canvas.clipPath(clip, stroke=0, fill=0)
    draw(sheet.laid, PdfPen(paper, EDGE - tile.x, EDGE - tile.y))
    canvas.restoreState()
    _joins(paper, tiling, tile)
    paper.text(EDGE, height - 3.5, f"{title}   page {tile.name}", 3.2, centred=False)
    paper.canvas.showPage()


def _joins(paper: Paper, tiling: Tiling, tile: Tile) -> None:
    """The frame; the lines where neighbours are laid on; and a diamond in the middle of each joined side."""
    wide, tall = tiling.inner
    paper.look(0.15, faint=True)
    paper.rect(EDGE, EDGE, wide, tall)
    right, bottom = EDGE + wide - OVERLAP, EDGE + tall - OVERLAP
    middle_x, middle_y = EDGE + wide / 2.0, EDGE + tall / 2.0
    paper.look(0.15, (2, 2), faint=True)
    if tile.column < tiling.columns - 1:
        paper.line(right, EDGE, right, EDGE + tall)
        _diamond(paper, right + OVERLAP / 2, middle_y)
    if tile.column > 0:
        _diamond(paper, EDGE + OVERLAP / 2, middle_y)
    if tile.row < tiling.rows - 1:
        paper.line(EDGE, bottom, EDGE + wide, bottom)
        _diamond(paper, middle_x, bottom + OVERLAP / 2)
    if tile.row > 0:
        _diamond(paper, middle_x, EDGE + OVERLAP / 2)


def _diamond(paper: Paper, x: float, y: float) -> None:
    """A diamond that lies on its twin when two pages are laid together; both are whole, in the overlap."""
    size = 3.5
    paper.look(0.25)
    corners = [(x, y - size), (x + size, y), (x, y + size), (x - size, y), (x, y - size)]
    for (x0, y0), (x1, y1) in itertools.pairwise(corners):
        paper.line(x0, y0, x1, y1)
    paper.look(0.15, (2, 2), faint=True)
