"""Writing on a finished piece: its label where there is room, left and right as worn."""

from __future__ import annotations

import math
import textwrap
from collections.abc import Iterator, Sequence

import numpy as np
import shapely

from zesty_pivot.core.conventions.options import Finish, cut_words
from zesty_pivot.core.finish.marks import Text
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.lettering import rough_width

NAME, REST = 8.0, 4.0  # mm: how high a piece's name is written, and all else: readable from a standing cutter's height
LEADING = 1.55  # times its height a line is below the one before it
ASCENT, HEIGHT = 0.95, 1.25  # times its height: how far its foot lies below its top, and all that it takes
FREE = 1.5  # mm that writing keeps from lines
TURNS = 12  # ways in which writing is turned where it fits neither upright nor along the piece
GRID = 15  # places across and down a piece where room is looked for
NOISE = 1e-6  # mm

Row = tuple[str, float, bool]  # a line of writing, its height in mm, and whether it is bold


def label_rows(name: str, style: str, panel: str, order: str, finish: Finish, version: str) -> list[Row]:
    """What stands on the label of a piece."""
    style = ", ".join(part for part in (style, finish.season) if part)
    who = ", ".join(part for part in (finish.client, f"size {finish.size}" if finish.size else "") if part)
    when = ", ".join(part for part in (finish.date, f"version {version}" if version else "") if part)
    cloth = finish.cloth
    rows = [(style, REST, False), (name, NAME, True), (panel, REST, False), (who, REST, False)]
    rows += [(cut_words(order), REST, False), (f"cloth: {cloth}" if cloth else "", REST, False), (when, REST, False)]
    return [row for row in rows if row[0]]


def label(rows: Sequence[Row], region: shapely.Polygon) -> tuple[Text, ...]:
    """The rows written where there is room for them in a region: together, upright or turned; else the name by itself and the
    others around it. Only where no room is large enough anywhere are they made smaller."""
    rows = list(rows)
    room = _Room(region)
    whole = room.placed(rows)
    if whole is not None:
        return whole[0]
    found: list[Text] = []
    for part in _apart(rows):
        placed = next((done for done in (room.placed(way) for way in _ways(part)) if done is not None), None)
        if placed is None and not found:
            return _smaller(rows, region)
        if placed is None:
            found += _smaller(part, room.region)
            continue
        found += placed[0]
        room = _Room(room.region.difference(placed[1].buffer(FREE)))
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


class _Room:
    """A region that is written in, and where in it writing may be."""

    def __init__(self, region: shapely.Geometry) -> None:
        self.region = region
        self.inner = region.buffer(-FREE)
        shapely.prepare(self.inner)

    @cached_property
    def spots(self) -> tuple[np.ndarray, np.ndarray]:
        """Places where writing may have its middle: the widest one first, then a grid, from wide to narrow; and how far each is
        from the rim, mm."""
        widest = max(shapely.get_parts(self.inner), key=lambda part: float(part.area))
        (x, y), _edge = shapely.maximum_inscribed_circle(widest, tolerance=1.0).coords
        low_x, low_y, high_x, high_y = self.inner.bounds
        xs, ys = (np.linspace(low, high, GRID + 2)[1:-1] for low, high in ((low_x, high_x), (low_y, high_y)))
        grid = np.stack(np.meshgrid(xs, ys), axis=-1).reshape(-1, 2)
        grid = np.vstack([[x, y], grid[shapely.contains_xy(self.inner, grid)]])
        rim = shapely.distance(self.inner.boundary, shapely.points(grid))
        order = np.concatenate([[0], 1 + np.argsort(-rim[1:], kind="stable")])
        return grid[order], rim[order]

    @cached_property
    def turns(self) -> tuple[float, ...]:
        """How writing may be turned."""
        return _turns(self.inner)

    def placed(self, rows: list[Row]) -> tuple[tuple[Text, ...], shapely.Polygon] | None:
        """The rows in a block, at the first place where it lies in the region, and what it covers; None for no such place."""
        if self.inner.is_empty:
            return None
        wide = max(rough_width(text) * size for text, size, _bold in rows)
        tall = _tall(rows)
        spots, rim = self.spots
        spots = spots[rim >= 0.5 * min(wide, tall) - NOISE]  # nearer to the rim it lies across it however it is turned
        for turn in self.turns if len(spots) else ():
            c, s = math.cos(turn), math.sin(turn)
            corners = np.array([[-wide, -tall], [wide, -tall], [wide, tall], [-wide, tall]]) / 2.0 @ np.array([[c, s], [-s, c]])
            boxes = spots[:, None, :] + corners[None]
            for at in np.flatnonzero(shapely.intersects_xy(self.inner, boxes[..., 0], boxes[..., 1]).all(axis=1)):
                box = shapely.Polygon(boxes[at])
                if shapely.contains(self.inner, box):
                    return _written(rows, spots[at], turn, tall), box
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
