"""SVG at true size: user unit 1 mm, groups seam, cut, marks and text."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from html import escape

import numpy as np

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import DRILL, LOOKS, LineLook, draw
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.finish.sheet import MARGIN, Sheet, lay
from zesty_pivot.core.geometry import Motion, svgpath
from zesty_pivot.core.lettering import FACES

# The fonts of the program in their order; where a reader has none of them it takes its own.
FAMILIES = ", ".join([*(face.family for face in FACES), "sans-serif"])

LAYERS = ("seam", "cut", "marks")


def piece_svg(piece: FinishedPiece) -> bytes:
    """One piece on its own sheet; its edges are the elements of the group `seam`, by their ids."""
    return _document(lay((piece,)), lambda _piece, id: id, piece.name)


def sheet_svg(sheet: Sheet, title: str) -> bytes:
    """All pieces on one sheet; element ids begin with the piece's name."""
    return _document(sheet, lambda piece, id: f"{piece}.{id}", title)


def _document(sheet: Sheet, named: Callable[[str, str], str], title: str) -> bytes:
    pen, lines = SvgPen(named), list[str]()
    draw(sheet.laid, pen)
    for layer in LAYERS:
        lines.append(f'<g id="{layer}" fill="none" stroke="#1d1b18" stroke-linecap="round" stroke-linejoin="round">')
        lines += [*pen.lines[layer], "</g>"]
    lines.append(f'<g id="text" fill="#1d1b18" font-family="{FAMILIES}" text-anchor="middle">')
    lines += [*pen.lines["text"], *_title_block(sheet), "</g>"]
    return svg_document(sheet.width, sheet.height, title, lines)


def svg_document(width: float, height: float, title: str, lines: Sequence[str]) -> bytes:
    """Elements as a file of `width` by `height` mm, user unit 1 mm."""
    wide, tall = _mm(width), _mm(height)
    head = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide}mm" height="{tall}mm" viewBox="0 0 {wide} {tall}">',
        f"<title>{escape(title)}</title>",
    ]
    return "\n".join([*head, *lines, "</svg>", ""]).encode()


def _title_block(sheet: Sheet) -> list[str]:
    """The title block as a line in the lower margin."""
    if not sheet.title:
        return []
    text = "; ".join(f"{name.lower()}: {said}" if number else said for number, (name, said) in enumerate(sheet.title))
    place = f'x="{_mm(MARGIN)}" y="{_mm(sheet.height - 5.0)}"'
    return [f'<text id="title_block" {place} font-size="4" text-anchor="start">{escape(text)}</text>']


class SvgPen:
    """Writes elements; `lines` are those of each group. `named` makes an element's id of a piece's name and its own."""

    def __init__(self, named: Callable[[str, str], str]) -> None:
        self.lines: dict[str, list[str]] = {layer: [] for layer in (*LAYERS, "text")}
        self._named = named
        self._piece, self._dx, self._dy = "", 0.0, 0.0

    def begin(self, piece: FinishedPiece, dx: float, dy: float) -> None:
        self._piece, self._dx, self._dy = piece.name, dx, dy

    def look(self, stroke: Stroke) -> LineLook:
        """How a line is drawn."""
        return LOOKS[stroke.kind]

    def _id(self, id: str) -> str:
        return escape(self._named(self._piece, id))

    def stroke(self, stroke: Stroke) -> None:
        look, shift = self.look(stroke), Motion.shift(np.array([self._dx, self._dy]))
        data = svgpath.write(path.moved(shift) for path in stroke.paths)
        dashed = f' stroke-dasharray="{" ".join(f"{part:g}" for part in look.dash_mm)}"' if look.dash_mm else ""
        self.lines[stroke.layer].append(
            f'<path id="{self._id(stroke.id)}" class="{stroke.kind}" stroke-width="{look.mm}"{dashed} d="{data}"/>'
        )

    def circle(self, circle: Circle) -> None:
        x, y = circle.at[0] + self._dx, circle.at[1] + self._dy
        place = f'cx="{_mm(x)}" cy="{_mm(y)}" r="{_mm(circle.radius)}"'
        self.lines["marks"].append(f'<circle id="{self._id(circle.id)}" stroke-width="{DRILL.mm}" {place}/>')

    def text(self, text: Text) -> None:
        x, y = text.at[0] + self._dx, text.at[1] + self._dy
        weight = ' font-weight="700"' if text.bold else ""
        turn = f' transform="rotate({math.degrees(text.turn):.4f} {_mm(x)} {_mm(y)})"' if text.turn else ""
        self.lines["text"].append(
            f'<text x="{_mm(x)}" y="{_mm(y)}" font-size="{_mm(text.size)}"{weight}{turn}>{escape(text.text)}</text>'
        )


def _mm(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


__all__ = ["SvgPen", "piece_svg", "sheet_svg", "svg_document"]
