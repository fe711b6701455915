"""Left and right as worn, on paper: which way a piece lies on the cloth, and where its sides are written."""

from __future__ import annotations

import numpy as np
import shapely

from zesty_pivot.core.finish.marks import Text
from zesty_pivot.core.moves.mirror import flip, side_of
from zesty_pivot.core.piece import Body, Piece, Side
from zesty_pivot.core.piece.region import cloth

SIDE_BELOW, SIDE_OUT = 30.0, 1.45  # mm under the lowest pivot, and as many times its way from the centre, the side is written
NARROW = 180.0  # mm; on a whole piece no wider than this the sides are written one below the other
SIDE_HALF = 18.0  # mm, half the length of `right as worn`


def right_side_up(piece: Piece) -> Piece:
    """An unfolded piece as it lies on the cloth. Halves are drawn with the centre at the left: an unfolded front lies right
    side up so; of an unfolded back it is the inside, and it is turned over."""
    if not piece.is_unfolded or piece.body is not Body.BACK:
        return piece
    return flip(piece, np.zeros(2), np.array([0.0, 1.0]))


def side_words(piece: Piece) -> tuple[Text, ...]:
    """`left as worn` and `right as worn` on an unfolded piece, beside the lowest pivot of each half; in the middle of a panel
    without one, or that is for one side by itself."""
    if not piece.is_unfolded:
        return ()
    found: list[Text] = []
    cut, its = cloth(piece), side_of(piece)
    top, bottom = cut.bounds[1], cut.bounds[3]
    for side in Side if its is None else (its,):
        points = [point for name, point in piece.landmarks.items() if piece.sides.of(name) is side]
        x, y = max(points, key=lambda point: point[1], default=(0.0, top + 0.55 * (bottom - top) - SIDE_BELOW))
        x, y = x * SIDE_OUT, y + SIDE_BELOW
        if its is not None or not points or not cut.contains(shapely.box(x - SIDE_HALF, y - 5.0, x + SIDE_HALF, y + 5.0)):
            # A yoke may end just below the point, and lower on one side than on the other.
            x, y = _inside(cut, (y, top + 0.55 * (bottom - top)), side, piece)
            if its is None and side is Side.RIGHT and abs(x) < NARROW / 4.0:
                y += SIDE_BELOW  # both beside each other would run into one another
        found.append(Text((x, y), f"{side.value} as worn", 5.0))
    return tuple(found)


def _inside(cut: shapely.Geometry, heights: tuple[float, ...], side: Side, piece: Piece) -> tuple[float, float]:
    """A point in the middle of the cloth of a side, at the first of the heights (mm) where there is any."""
    low, top, high, bottom = cut.bounds
    if side_of(piece) is None:
        low, high = (0.0, high) if _is_right_hand(piece, side) else (low, 0.0)
    for y in heights:
        ends = shapely.intersection(cut, shapely.LineString([(low, y), (high, y)]))
        if not ends.is_empty:
            return float(ends.bounds[0] + ends.bounds[2]) / 2.0, y
    mine = shapely.intersection(cut, shapely.box(low, top, high, bottom))
    point = (cut if mine.is_empty else mine).representative_point()
    return float(point.x), float(point.y)


def _is_right_hand(piece: Piece, side: Side) -> bool:
    """Whether a side of an unfolded piece is drawn at x > 0."""
    runs = [run for run in piece.runs if piece.sides.of(run.edge) is side]
    return sum(float(run.path.point_at(run.path.length / 2.0)[0]) for run in runs) > 0.0
