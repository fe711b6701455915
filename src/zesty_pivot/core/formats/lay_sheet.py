"""A lay on paper: small with its measures, or at full size."""

from __future__ import annotations

import shapely

from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.nest.lay import LayPlan
from zesty_pivot.core.nest.paged import PAPERS
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import Unit, format_length

MARGIN = 15.0  # mm
LETTERS = 3.0  # mm high, on the drawing
LEAST_LETTERS = 1.8


def lay_rows(plan: LayPlan, unit: Unit, told: tuple[str, ...] = ()) -> tuple[tuple[str, str], ...]:
    """What there is to say of a lay, each with its name."""
    cloth = plan.cloth
    rows = [
        ("Cloth", f"{cloth.name}, {format_length(cloth.width, unit)} wide, {'on the fold' if cloth.is_folded else 'open'}"),
        ("Length", format_length(plan.length, unit)),
        ("To buy", format_length(plan.bought, unit)),
        ("In the pieces", f"{100.0 * plan.used:.0f} %"),
        ("Left over", f"{(plan.whole - plan.area) / 1e6:.2f} m²"),
        ("Pieces", str(len(plan.pieces))),
        ("Between them", format_length(cloth.gap, unit)),
        ("Nap", "one way" if cloth.nap == "one_way" else "none"),
    ]
    if cloth.price:
        rows.append(("Cost", f"{plan.cost:.2f}"))
    if any(cloth.repeat):
        along, across = (format_length(mm, unit) if mm else "none" for mm in cloth.repeat)
        rows.append(("Repeat", f"{along} along, {across} across"))
    if told:
        rows.append(("Changed since", ", ".join(words(name) for name in told)))
    return tuple(rows)


def add_lay(paper: Paper, plan: LayPlan, title: str, rows: tuple[tuple[str, str], ...], size: str = "A4") -> None:
    """A page across with the lay as large as it goes, a scale along two sides, and its measures below."""
    height, width = PAPERS[size]
    paper.page(width, height)
    paper.text(MARGIN, MARGIN + 4.0, title, 6.0, bold=True, centred=False)
    table = 6.0 * ((len(rows) + 2) // 3)
    top, room = MARGIN + 14.0, (width - 2.0 * MARGIN, height - 2.0 * MARGIN - 24.0 - table)
    cloth = plan.cloth
    across = cloth.usable + (cloth.selvedge if cloth.is_folded else 2.0 * cloth.selvedge)
    scale = min(room[0] / max(plan.length, 1.0), room[1] / across)
    edge = 0.0 if cloth.is_folded else cloth.selvedge
    left = MARGIN

    def at(x: float, y: float) -> tuple[float, float]:
        return left + x * scale, top + (y + edge) * scale

    paper.look(0.3, faint=True)
    paper.rect(left, top, plan.length * scale, across * scale)
    paper.look(0.15, (2.0, 2.0), faint=True)
    for y in (0.0, cloth.usable):
        paper.line(*at(0.0, y), *at(plan.length, y))
    paper.look(0.2, faint=True)
    step = 100.0
    for number in range(int(plan.length / step) + 1):
        x, _y = at(number * step, 0.0)
        paper.line(x, top, x, top - (2.5 if number % 5 == 0 else 1.5))
        if number % 5 == 0:
            paper.text(x, top - 3.5, f"{number * step / 10.0:g}", 2.4)
    for piece, shape in zip(plan.pieces, plan.shapes, strict=True):
        paper.look(0.35)
        points = [at(x, y) for x, y in shapely.get_coordinates(shape.exterior)]
        drawn = paper.canvas.beginPath()
        drawn.moveTo(*paper.point(*points[0]))
        for point in points[1:]:
            drawn.lineTo(*paper.point(*point))
        paper.canvas.drawPath(drawn, stroke=1, fill=0)
        inside = shape.representative_point()
        x, y = at(inside.x, inside.y)
        paper.text(x, y, words(piece.key), max(LEAST_LETTERS, min(LETTERS, 0.02 * shape.length * scale)))
    below = top + across * scale + 8.0
    third = (width - 2.0 * MARGIN) / 3.0
    for number, (name, said) in enumerate(rows):
        x, y = MARGIN + third * (number % 3), below + 6.0 * (number // 3)
        paper.text(x, y, name, 3.0, centred=False)
        paper.text(x + 26.0, y, said, 3.4, bold=True, centred=False)
    if cloth.is_folded:
        paper.text(left + 4.0, top - 1.0, "fold", 2.6, centred=False)
    paper.canvas.showPage()


def lays_pdf(plans: tuple[tuple[LayPlan, tuple[tuple[str, str], ...]], ...], title: str, size: str = "A4") -> bytes:
    """Small drawings of lays with their measures, a page each."""
    paper = Paper(title)
    for plan, rows in plans:
        add_lay(paper, plan, f"{title}: lay on {plan.cloth.name}", rows, size)
    return paper.done()


def lay_at_full_size(plan: LayPlan) -> Sheet:
    """The lay as a sheet to plot, x along the cloth, its pieces with all their lines."""
    return Sheet(plan.length, plan.cloth.usable, plan.laid)
