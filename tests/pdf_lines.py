"""The lines of a PDF's pages, read with pypdf: what a printer would draw, and where it is cut off."""

from __future__ import annotations

import numpy as np
import pypdf
import shapely
from numpy.typing import NDArray
from pypdf.generic import ContentStream

MM = 25.4 / 72.0  # a point in mm: 72 to the inch
Line = NDArray[np.float64]


def lines_of(page: pypdf.PageObject) -> list[tuple[Line, shapely.Polygon | None]]:
    """Every stroked subpath (n, 2) in mm from the page's upper left corner, y down, curves as 96 chords; with what it is
    clipped to."""
    height = float(page.mediabox.height) * MM
    stack: list[tuple[NDArray[np.float64], shapely.Polygon | None]] = []
    matrix, clip = np.eye(3), None
    parts: list[list[NDArray[np.float64]]] = []
    clips = False
    found: list[tuple[Line, shapely.Polygon | None]] = []

    def at(x: float, y: float) -> NDArray[np.float64]:
        u, v, _one = np.array([float(x), float(y), 1.0]) @ matrix
        return np.array([u * MM, height - v * MM])

    for operands, operator in ContentStream(page.get_contents(), page.pdf).operations:
        name = operator.decode()
        if name == "q":
            stack.append((matrix, clip))
        elif name == "Q":
            matrix, clip = stack.pop()
        elif name == "cm":
            a, b, c, d, e, f = (float(one) for one in operands)
            matrix = np.array([[a, b, 0.0], [c, d, 0.0], [e, f, 1.0]]) @ matrix
        elif name == "m":
            parts.append([at(*operands)])
        elif name == "l":
            parts[-1].append(at(*operands))
        elif name == "c":
            p0, p1, p2, p3 = parts[-1][-1], at(*operands[:2]), at(*operands[2:4]), at(*operands[4:])
            for t in np.linspace(0.0, 1.0, 97)[1:]:
                parts[-1].append((1 - t) ** 3 * p0 + 3 * t * (1 - t) ** 2 * p1 + 3 * t * t * (1 - t) * p2 + t**3 * p3)
        elif name == "re":
            x, y, w, h = (float(one) for one in operands)
            parts.append([at(x, y), at(x + w, y), at(x + w, y + h), at(x, y + h), at(x, y)])
        elif name in ("W", "W*"):
            clips = True
        elif name in ("S", "s", "n", "f", "f*", "B", "b"):
            if clips:
                clip, clips = shapely.Polygon(np.array(parts[0])), False
            elif name in ("S", "s", "B", "b"):
                found += [(np.array(part), clip) for part in parts if len(part) > 1]
            parts = []
    return found


def shown(page: pypdf.PageObject) -> shapely.Geometry:
    """Everything of the pattern that a page shows: what is clipped to its field, as lines in mm."""
    lines = [shapely.LineString(line).intersection(clip) for line, clip in lines_of(page) if clip is not None]
    return shapely.MultiLineString(
        [part for part in shapely.get_parts(lines) if part.geom_type == "LineString" and not part.is_empty]
    )


def diamonds(page: pypdf.PageObject, side: float) -> NDArray[np.float64]:
    """The middles (n, 2) mm of the joining marks: slanting lines of half a diamond's height `side`, four to a mark, or the two
    halves of one at the frame, whose middle lies on it."""
    slant = [line for line, clip in lines_of(page) if clip is None and len(line) == 2
             and np.allclose(np.abs(line[1] - line[0]), side, atol=1e-3)]  # fmt: skip
    # Each side's middle lies a quarter of the mark away from its middle on both axes; which quarter is told by its neighbours.
    corners: dict[tuple[float, float], int] = {}
    for line in slant:
        for end in line:
            key = (round(float(end[0]), 2), round(float(end[1]), 2))
            corners[key] = corners.get(key, 0) + 1
    found = []
    for x, y in corners:
        for dx, dy in ((side, side), (-side, side)):
            middle = (round(x + dx, 2), round(y, 2)) if dx > 0 else (round(x, 2), round(y + dy, 2))
            sides = [
                (middle[0] - side, middle[1]),
                (middle[0] + side, middle[1]),
                (middle[0], middle[1] - side),
                (middle[0], middle[1] + side),
            ]
            known = sum(any(abs(cx - sx) < 0.03 and abs(cy - sy) < 0.03 for cx, cy in corners) for sx, sy in sides)
            if known >= 3:
                found.append(middle)
    unique = []
    for place in found:
        if all(abs(place[0] - x) + abs(place[1] - y) > 0.1 for x, y in unique):
            unique.append(place)
    return np.array(unique)
