"""The nested sheet as SVG: a group a size, which can be shown and hidden by itself."""

from __future__ import annotations

from html import escape

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import LineLook, draw
from zesty_pivot.core.finish.piece import Stroke
from zesty_pivot.core.finish.sheet import lay
from zesty_pivot.core.formats.svg import FAMILIES, SvgPen, svg_document
from zesty_pivot.core.sizes.nested_sheet import NestedSheet, look_of, look_of_stroke


def nested_svg(sheet: NestedSheet) -> bytes:
    """The sheet; the group of a size has the id `size-1` and so on, its title for a name, and groups seam, cut, marks and text
    inside."""
    whole = lay(sheet.pieces)
    pens = [_SizePen(number) for number in range(len(sheet.titles) + 1)]
    for pen in pens:
        draw(whole.laid, pen)
    lines = _group("all", "all sizes", pens[0], "#1d1b18")
    for number, title in enumerate(sheet.titles, 1):
        if not pens[number].is_empty:
            lines += _group(f"size-{number}", title, pens[number], look_of(number - 1).colour)
    return svg_document(whole.width, whole.height, sheet.title, lines)


class _SizePen(SvgPen):
    """Draws what is of one size; 0 is what is of all."""

    def __init__(self, number: int) -> None:
        super().__init__(lambda piece, id: f"{piece}.{id}")
        self._number = number

    @property
    def is_empty(self) -> bool:
        return not any(self.lines.values())

    def look(self, stroke: Stroke) -> LineLook:
        return look_of_stroke(stroke)

    def stroke(self, stroke: Stroke) -> None:
        if stroke.of_size == self._number:
            super().stroke(stroke)

    def circle(self, circle: Circle) -> None:
        if circle.of_size == self._number:
            super().circle(circle)

    def text(self, text: Text) -> None:
        if text.of_size == self._number:
            super().text(text)


def _group(id: str, title: str, pen: SvgPen, colour: str) -> list[str]:
    found = [f'<g id="{id}">', f"<title>{escape(title)}</title>"]
    drawn = f'fill="none" stroke="{colour}" stroke-linecap="round" stroke-linejoin="round"'
    for layer, lines in pen.lines.items():
        look = f'fill="{colour}" font-family="{FAMILIES}" text-anchor="middle"' if layer == "text" else drawn
        found += [f'<g id="{id}.{layer}" {look}>', *lines, "</g>"] if lines else []
    return [*found, "</g>"]
