"""SVG at true size: user unit 1 mm, groups seam, cut, marks and text."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from html import escape

import numpy as np

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.sheet import Laid, Sheet, lay
from zesty_pivot.core.geometry import Motion, svgpath
from zesty_pivot.core.lettering import FACES

# Line language: width in mm, dash pattern in mm.
LOOKS: dict[str, tuple[float, str]] = {
    "seam": (0.25, ""),
    "leg": (0.25, ""),
    "cap": (0.25, ""),
    "fold": (0.35, "12 3 2 3"),
    "cut": (0.7, ""),
    "crease": (0.25, "3 3"),
    "notch": (0.7, ""),
    "grain": (0.35, ""),
    "arrow": (0.5, ""),
}

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
    width, height = _mm(sheet.width), _mm(sheet.height)
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}">',
        f"<title>{escape(title)}</title>",
    ]
    for layer in LAYERS:
        lines.append(f'<g id="{layer}" fill="none" stroke="#1d1b18" stroke-linecap="round" stroke-linejoin="round">')
        for laid in sheet.laid:
            lines += _strokes(laid, layer, named)
            if layer == "marks":
                lines += _circles(laid, named)
        lines.append("</g>")
    lines.append(f'<g id="text" fill="#1d1b18" font-family="{FAMILIES}" text-anchor="middle">')
    for laid in sheet.laid:
        lines += _texts(laid)
    lines += ["</g>", "</svg>", ""]
    return "\n".join(lines).encode()


def _strokes(laid: Laid, layer: str, named: Callable[[str, str], str]) -> Iterable[str]:

    shift = Motion.shift(np.array([laid.dx, laid.dy]))
    for stroke in laid.piece.strokes:
        if stroke.layer != layer:
            continue
        width, dash = LOOKS[stroke.kind]
        data = svgpath.write(path.moved(shift) for path in stroke.paths)
        dashed = f' stroke-dasharray="{dash}"' if dash else ""
        id = escape(named(laid.piece.name, stroke.id))
        yield f'<path id="{id}" class="{stroke.kind}" stroke-width="{width}"{dashed} d="{data}"/>'


def _circles(laid: Laid, named: Callable[[str, str], str]) -> Iterable[str]:
    for circle in laid.piece.circles:
        x, y = circle.at[0] + laid.dx, circle.at[1] + laid.dy
        id = escape(named(laid.piece.name, circle.id))
        yield f'<circle id="{id}" stroke-width="0.35" cx="{_mm(x)}" cy="{_mm(y)}" r="{_mm(circle.radius)}"/>'


def _texts(laid: Laid) -> Iterable[str]:
    for text in laid.piece.texts:
        x, y = text.at[0] + laid.dx, text.at[1] + laid.dy
        weight = ' font-weight="700"' if text.bold else ""
        turn = f' transform="rotate({math.degrees(text.turn):.4f} {_mm(x)} {_mm(y)})"' if text.turn else ""
        yield f'<text x="{_mm(x)}" y="{_mm(y)}" font-size="{_mm(text.size)}"{weight}{turn}>{escape(text.text)}</text>'


def _mm(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


__all__ = ["LOOKS", "piece_svg", "sheet_svg"]
