"""Packed pages as a PDF: a first page with the map and the calibration squares, then the pages with their joining marks."""

from __future__ import annotations

import itertools
import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.formats.pdf_paper import MM, Paper
from zesty_pivot.core.formats.pdf_pen import PdfPen
from zesty_pivot.core.formats.pdf_squares import SQUARE_IN, nested, squares, squares_wide
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.nest.joins import Join, joins
from zesty_pivot.core.nest.paged import Page
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.core.quantity.units import IN

Rows = tuple[tuple[str, str], ...]

DIAMOND = 3.5  # mm, half a diamond
BAR = 50.0  # mm of the frame that are marked off on every page
CARD = 26.0  # mm, the longer side of the small map on every page
WHITE = 3.0  # mm that the small map keeps from lines


def add_pages(
    paper: Paper, plan: PagePlan, pages: tuple[Page, ...], title: str, rows: Rows = (), *,
    in_colour: bool = False, pen: type[PdfPen] = PdfPen,
) -> None:  # fmt: skip
    """The map page, then `pages` of the plan, drawn by a `pen`."""
    marks = joins(plan)
    _map_page(paper, plan, title, rows, len(pages))
    for page in pages:
        _page(paper, plan, page, marks, title, pen, in_colour)


def _map_page(paper: Paper, plan: PagePlan, title: str, rows: Rows, count: int) -> None:
    """The squares one within the other where the page is narrow, and the map of the pages."""
    setup = plan.setup
    width, height, edge = setup.width, setup.height, max(setup.edge, 8.0)
    paper.page(width, height)
    paper.text(edge, edge + 6.0, title, 6.0, bold=True, centred=False)
    printed = f"{len(plan.pages)} pages" if count == len(plan.pages) else f"{count} of {len(plan.pages)} pages"
    note = f"{printed} of {setup.paper}, {plan.columns} across by {plan.rows} down. Print at 100 %."
    how = "Each page is laid over the strip of the one before it, to its broken line, letter on letter."
    if setup.overlap <= 0.0:
        how = "Cut every page along its frame and lay them edge to edge, letter to letter."
    said = "; ".join(f"{name}: {text}" for name, text in rows[1:])
    lines = [
        *paper.wrapped(f"{note} {how}", 3.8, width - 2.0 * edge),
        *(paper.wrapped(said, 3.5, width - 2.0 * edge) if said else []),
    ]
    for number, line in enumerate(lines):
        paper.text(edge, edge + 13.0 + 5.0 * number, line, 3.6, centred=False)
    top = edge + 14.0 + 5.0 * len(lines)
    (squares if width - 2.0 * edge >= squares_wide() else nested)(paper, edge, top)
    below = top + SQUARE_IN + 10.0
    _map(paper, plan, (edge, below, width - 2.0 * edge, height - below - edge))
    paper.canvas.showPage()


def _map(paper: Paper, plan: PagePlan, space: tuple[float, float, float, float]) -> None:
    """All pages small, with what they show."""
    x, y, wide, tall = space
    step, shared = plan.setup.step, plan.setup.overlap
    scale = min(wide / (step[0] * plan.columns + shared), tall / (step[1] * plan.rows + shared), 0.25)
    canvas = paper.canvas
    canvas.saveState()
    canvas.translate(*paper.point(x, y))
    canvas.scale(scale, scale)
    # Inside the scaled frame the pages are drawn from their own corner.
    height, paper.height = paper.height, 0.0
    draw(plan.laid, PdfPen(paper, 0.0, 0.0))
    paper.look(0.15 / scale, faint=True)
    for page in plan.pages:
        paper.rect(page.x, page.y, step[0], step[1])
        paper.text(page.x + step[0] / 2, page.y + step[1] / 2, page.name, 4.5 / scale, bold=True)
    paper.height = height
    canvas.restoreState()


def _page(
    paper: Paper, plan: PagePlan, page: Page, marks: tuple[Join, ...], title: str, pen: type[PdfPen], in_colour: bool
) -> None:
    setup, (wide, tall) = plan.setup, plan.setup.field
    paper.page(setup.width, setup.height)
    canvas, edge = paper.canvas, setup.edge
    canvas.saveState()
    clip = canvas.beginPath()
    clip.rect(*paper.point(edge, edge + tall), wide * MM, tall * MM)
    canvas.clipPath(clip, stroke=0, fill=0)
    near = [laid for laid, shape in zip(plan.laid, plan.shapes, strict=True) if shape.intersects(plan.field(page))]
    within = (edge, edge, edge + wide, edge + tall)
    draw(near, pen(paper, edge - page.x, edge - page.y, in_colour=in_colour, within=within))
    canvas.restoreState()
    _frame(paper, plan)
    for join in marks:
        _join(paper, plan, page, join)
    _card(paper, plan, page, title)
    canvas.showPage()


def _frame(paper: Paper, plan: PagePlan) -> None:
    """The frame with its size, five centimetres of it marked off, and the corners to trim to."""
    setup, (wide, tall) = plan.setup, plan.setup.field
    edge = setup.edge
    paper.look(0.25, faint=True)
    paper.rect(edge, edge, wide, tall)
    paper.look(0.25)
    for number in range(int(BAR / 10.0) + 1):
        paper.line(edge + 10.0 * number, edge, edge + 10.0 * number, edge + (3.0 if number in (0, 5) else 1.8))
    paper.text(edge + BAR + 2.0, edge + 3.2, "5 cm", 2.6, centred=False)
    out = min(4.0, edge - 0.5)
    if out > 0.5:
        for x, sign_x in ((edge, -1.0), (edge + wide, 1.0)):
            for y, sign_y in ((edge, -1.0), (edge + tall, 1.0)):
                paper.line(x, y, x + sign_x * out, y)
                paper.line(x, y, x, y + sign_y * out)


def _join(paper: Paper, plan: PagePlan, page: Page, join: Join) -> None:
    """The marks of one join on one of its pages: diamonds with their letter, the line that the neighbour is laid to, and which
    page that is."""
    if page.number not in (join.first.number, join.second.number):
        return
    setup, (wide, tall) = plan.setup, plan.setup.field
    edge, shared, is_first = setup.edge, setup.overlap, page.number == join.first.number
    other = join.second if is_first else join.first
    # Along the join's direction: where its strip begins on this page.
    strip = (wide if join.is_beside else tall) - shared if is_first else 0.0
    length = tall if join.is_beside else wide

    def at(along: float, across: float) -> tuple[float, float]:
        return (edge + across, edge + along) if join.is_beside else (edge + along, edge + across)

    middle = strip + shared / 2.0
    for share in (0.25, 0.75):
        _diamond(paper, at(share * length, middle), join.is_beside, 0 if shared > 0.0 else (-1 if is_first else 1))
        beside = at(share * length + DIAMOND + 3.2, middle if shared > 0.0 else middle + (-3.0 if is_first else 3.0))
        paper.text(beside[0], beside[1] + 1.2, join.letter, 3.4, bold=True)
    paper.look(0.25, (2.0, 2.0), faint=True)
    if is_first and shared > 0.0:
        paper.line(*at(0.0, strip), *at(length, strip))
    words = f"{'page' if is_first else 'lies on page'} {other.name}" if shared > 0.0 else f"page {other.name}"
    turn = -math.pi / 2.0 if join.is_beside else 0.0
    inside = strip + (shared / 2.0 if shared > 0.0 else (-3.0 if is_first else 3.0))
    x, y = at(0.5 * length, inside)
    paper.text(x + (0.9 if join.is_beside else 0.0), y + (0.0 if join.is_beside else 0.9), words, 2.8, turn=turn)


def _diamond(paper: Paper, at: tuple[float, float], is_beside: bool, half: int) -> None:
    """A diamond that lies on its twin when two pages are laid together; where they are laid edge to edge each has one half."""
    (x, y), size = at, DIAMOND
    paper.look(0.25)
    corners = [(x, y - size), (x + size, y), (x, y + size), (x - size, y), (x, y - size)]
    for (x0, y0), (x1, y1) in itertools.pairwise(corners):
        side = (x0 + x1 - 2.0 * x) if is_beside else (y0 + y1 - 2.0 * y)
        if half == 0 or side * half > 0.0:
            paper.line(x0, y0, x1, y1)


def _card(paper: Paper, plan: PagePlan, page: Page, title: str) -> None:
    """The page's number with a small map, where they cover the least, and a line below the frame."""
    setup, (wide, tall) = plan.setup, plan.setup.field
    cell = min(CARD / max(plan.columns, plan.rows), 9.0)
    ratio = setup.step[0] / setup.step[1]
    size = (cell * min(1.0, ratio), cell * min(1.0, 1.0 / ratio))
    box = max(size[0] * plan.columns, 14.0), size[1] * plan.rows + 9.0
    left, top = _clear_place(plan, page, box)
    x, y = left - page.x + setup.edge, top - page.y + setup.edge
    paper.text(x, y + 6.5, page.name, 8.0, bold=True, centred=False)
    for other in plan.pages:
        corner = x + other.column * size[0], y + 9.0 + other.row * size[1]
        paper.look(0.2, faint=True)
        paper.rect(*corner, *size, filled=other.number == page.number)
        paper.text(corner[0] + size[0] / 2.0, corner[1] + size[1] / 2.0 + 0.7, other.name, min(2.2, 0.55 * cell),
                   white=other.number == page.number)  # fmt: skip
    field = f"frame {wide:.1f} x {tall:.1f} mm ({wide / IN:.2f} x {tall / IN:.2f} in): measure it"
    foot = min(setup.height - 2.5, setup.height - setup.edge + 4.2)
    paper.text(setup.edge, foot, f"{title}   page {page.name} of {len(plan.pages)}   {field}", 2.8, centred=False)


def _clear_place(plan: PagePlan, page: Page, box: tuple[float, float]) -> tuple[float, float]:
    """The upper left corner (mm, in the plan's frame) of a box where it covers the least of what is drawn, nearest to the upper
    left of the page's field."""
    (wide, tall), strip = plan.setup.field, max(plan.setup.overlap, 6.0) + 2.0
    here = shapely.clip_by_rect(_drawn(plan), *plan.field(page).bounds)
    here = here[~shapely.is_empty(here)]
    places = [
        (page.x + strip + sx * (wide - 2.0 * strip - box[0]), page.y + strip + sy * (tall - 2.0 * strip - box[1]))
        for sy in (0.0, 0.2, 0.4, 0.6, 0.8, 1.0) for sx in (0.0, 0.25, 0.5, 0.75, 1.0)
    ]  # fmt: skip

    def covers(place: tuple[float, float]) -> float:
        own = (place[0] - WHITE, place[1] - WHITE, place[0] + box[0] + WHITE, place[1] + box[1] + WHITE)
        inside = shapely.clip_by_rect(here, *own)
        met = ~shapely.is_empty(inside)
        return float((shapely.length(inside) + shapely.area(inside)).sum()) + 1.0 if met.any() else 0.0

    found: dict[tuple[float, float], float] = {}
    for place in places:
        found[place] = covers(place)
        if found[place] == 0.0:
            return place
    return min(found, key=found.__getitem__)


@kept_with
def _drawn(plan: PagePlan) -> NDArray[np.object_]:
    """All lines of a plan, and a round spot for each word."""
    lines = [
        shapely.LineString(np.add(path.outline, (laid.dx, laid.dy)))
        for laid in plan.laid for stroke in laid.piece.strokes for path in stroke.paths if len(path.outline) > 1
    ]  # fmt: skip
    words = [
        shapely.Point(t.at[0] + laid.dx, t.at[1] + laid.dy).buffer(2.2 * t.size) for laid in plan.laid for t in laid.piece.texts
    ]
    return np.array([*lines, *words], dtype=object)
