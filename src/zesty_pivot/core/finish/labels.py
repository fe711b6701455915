"""Writing on a finished piece: its label where there is room, left and right as worn."""

from __future__ import annotations

import math
import textwrap
from collections.abc import Iterator, Sequence

import numpy as np
import shapely

from zesty_pivot.core.conventions.options import cut_words
from zesty_pivot.core.finish.marks import Text
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.lettering import rough_width

NAME, REST = 8.0, 4.0  # mm: how high a piece's name is written, and all else: readable from a standing cutter's height
LEADING = 1.55  # times its height a line is below the one before it
ASCENT, HEIGHT = 0.95, 1.25  # times its height: how far its foot lies below its top, and all that it takes
FREE = 1.5  # mm that writing keeps from lines
TURNS = 12  # ways in which writing is turned where it fits neither upright nor along the piece
GRID = 15  # places across and down a piece where room is looked for

Row = tuple[str, float, bool]  # a line of writing, its height in mm, and whether it is bold


def label_rows(name: str, style: str, panel: str, size: str, order: str, cloth: str, date: str, version: str) -> list[Row]:
    """What stands on the label of a piece."""
    who = f"size {size}" if size else ""
    when = ", ".join(part for part in (date, f"version {version}" if version else "") if part)
    rows = [(style, REST, False), (name, NAME, True), (panel, REST, False), (who, REST, False)]
    rows += [(cut_words(order), REST, False), (f"cloth: {cloth}" if cloth else "", REST, False), (when, REST, False)]
    return [row for row in rows if row[0]]


def label(rows: Sequence[Row], region: shapely.Polygon) -> tuple[Text, ...]:
    """The rows written where there is room for them in a region: together, upright or turned; else the name by itself and the
    others around it. Only where no room is large enough anywhere are they made smaller."""
    rows = list(rows)
    whole = _placed(rows, region)
    if whole is not None:
        return whole[0]
    found: list[Text] = []
    left = region
    for part in _apart(rows):
        placed = next((done for done in (_placed(way, left) for way in _ways(part)) if done is not None), None)
        if placed is None and not found:
            return _smaller(rows, region)
        if placed is None:
            found += _smaller(part, left)
            continue
        found += placed[0]
        left = left.difference(placed[1].buffer(FREE))
    return tuple(found)


def _ways(rows: list[Row]) -> Iterator[list[Row]]:
    """Some rows as they are, then broken into two lines each, then a word a line."""
    yield rows
    for lines in (2, 3, 9):
        broken = [
            (part, size, bold) for text, size, bold in rows for part in textwrap.wrap(text, max(1, -(-len(text) // lines) + 2))
        ]
        if len(broken) > len(rows):
            yield broken


def _apart(rows: list[Row]) -> Iterator[list[Row]]:
    """The name first, then the other rows each by itself."""
    names = [row for row in rows if row[1] >= NAME]
    yield names
    for row in rows:
        if row not in names:
            yield [row]


def _placed(rows: list[Row], region: shapely.Geometry) -> tuple[tuple[Text, ...], shapely.Polygon] | None:
    """The rows in a block, at the first place where it lies in the region, and what it covers; None for no such place."""
    inner = region.buffer(-FREE)
    if inner.is_empty:
        return None
    wide = max(rough_width(text) * size for text, size, _bold in rows)
    tall = _tall(rows)
    spots, turns = _spots(inner), _turns(inner)
    shapely.prepare(inner)
    for turn in turns:
        c, s = math.cos(turn), math.sin(turn)
        corners = np.array([[-wide, -tall], [wide, -tall], [wide, tall], [-wide, tall]]) / 2.0 @ np.array([[c, s], [-s, c]])
        boxes = shapely.polygons(spots[:, None, :] + corners[None])
        fits = np.flatnonzero(shapely.contains(inner, boxes))
        if len(fits):
            at = int(fits[0])
            return _written(rows, spots[at], turn, tall), boxes[at]
    return None


def _written(rows: list[Row], middle: Vector, turn: float, tall: float) -> tuple[Text, ...]:
    """The rows below each other about a middle, all turned by an angle."""
    down = np.array([-math.sin(turn), math.cos(turn)])
    found: list[Text] = []
    top = -tall / 2.0
    for text, size, bold in rows:
        at = middle + down * (top + size * ASCENT)
        found.append(Text((float(at[0]), float(at[1])), text, size, turn, bold))
        top += size * LEADING
    return tuple(found)


def _tall(rows: list[Row]) -> float:
    """How much room rows below each other take, mm."""
    return sum(size * LEADING for _text, size, _bold in rows) - rows[-1][1] * (LEADING - HEIGHT)


def _spots(region: shapely.Geometry) -> np.ndarray:
    """Places in a region where writing may have its middle: the widest one first, then a grid, from wide to narrow."""
    widest = max(shapely.get_parts(region), key=lambda part: float(part.area))
    (x, y), _edge = shapely.maximum_inscribed_circle(widest, tolerance=1.0).coords
    low_x, low_y, high_x, high_y = region.bounds
    xs, ys = (np.linspace(low, high, GRID + 2)[1:-1] for low, high in ((low_x, high_x), (low_y, high_y)))
    grid = np.stack(np.meshgrid(xs, ys), axis=-1).reshape(-1, 2)
    points = shapely.points(grid)
    inside = shapely.contains(region, points)
    rim = shapely.distance(region.boundary, points[inside])
    return np.vstack([[x, y], grid[inside][np.argsort(-rim, kind="stable")]])


def _turns(region: shapely.Geometry) -> tuple[float, ...]:
    """How writing may be turned: upright, along the piece, up and down."""
    corners = shapely.get_coordinates(shapely.minimum_rotated_rectangle(region))
    if len(corners) < 4:
        return (0.0, -math.pi / 2.0)
    sides = [corners[1] - corners[0], corners[2] - corners[1]]
    long = max(sides, key=lambda side: float(np.hypot(*side)))
    along = math.atan2(float(long[1]), float(long[0]))
    along = (along + math.pi / 2.0) % math.pi - math.pi / 2.0  # read from below or from the right
    more = [-math.pi / 2.0 + math.pi * k / TURNS for k in range(TURNS)]
    return (0.0, along, -math.pi / 2.0, *more[1:])


def _smaller(rows: list[Row], region: shapely.Geometry) -> tuple[Text, ...]:
    """The rows made as small as they must be to fit into the widest part of a region."""
    widest = max(shapely.get_parts(region), key=lambda part: float(part.area))
    (x, y), (ex, ey) = shapely.maximum_inscribed_circle(widest, tolerance=1.0).coords
    room = math.hypot(ex - x, ey - y)
    wide = max(rough_width(text) * size for text, size, _bold in rows)
    tall = _tall(rows)
    scale = min(1.0, 1.7 * room / max(wide, 1.0), 1.5 * room / tall)
    return _written([(text, size * scale, bold) for text, size, bold in rows], np.array([x, y]), 0.0, tall * scale)
