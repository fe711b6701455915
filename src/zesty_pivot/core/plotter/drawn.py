"""What a simulated plotter has drawn, as SVG in true millimetres."""

from __future__ import annotations

from collections.abc import Sequence

PENS = {1: ("#1d1b18", 0.7), 2: ("#1d4f91", 0.35), 3: ("#8a3b12", 0.3)}  # colour and width (mm) of each pen
OTHER = ("#6b6459", 0.3)
MARGIN = 10.0  # mm

PenLine = tuple[int, Sequence[tuple[float, float]]]


def drawn_svg(lines: Sequence[PenLine]) -> bytes:
    """The lines of each pen in a group; y is turned down again."""
    places = [place for _pen, line in lines for place in line] or [(0.0, 0.0)]
    right, top = max(x for x, _y in places) + MARGIN, max(y for _x, y in places) + MARGIN
    left, low = min(x for x, _y in places) - MARGIN, min(y for _x, y in places) - MARGIN
    wide, tall = right - left, top - low
    size = f'width="{wide:.3f}mm" height="{tall:.3f}mm" viewBox="0 0 {wide:.3f} {tall:.3f}"'
    rows = [f'<svg xmlns="http://www.w3.org/2000/svg" {size}>']
    for pen in sorted({pen for pen, _line in lines}):
        colour, width = PENS.get(pen, OTHER)
        rows.append(f'<g id="pen{pen}" fill="none" stroke="{colour}" stroke-width="{width}" stroke-linejoin="round">')
        for number, line in lines:
            if number == pen and len(line) > 1:
                points = " ".join(f"{x - left:.3f},{top - y:.3f}" for x, y in line)
                rows.append(f'<polyline points="{points}"/>')
        rows.append("</g>")
    return "\n".join([*rows, "</svg>", ""]).encode()
