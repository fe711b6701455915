"""The paper that a finished piece takes: everything inside its cut line and everything drawn."""

from __future__ import annotations

import shapely

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.kept import kept_with

INK = 0.5  # mm round a drawn line that its ink takes: half of the widest line, and a little


@kept_with
def taken(piece: FinishedPiece) -> shapely.Geometry:
    """What a piece takes on the paper, in its own mm: the inside of the cut line with the ink of every line."""
    inside = shapely.make_valid(shapely.Polygon(piece.ring))
    lines = [path.outline for stroke in piece.strokes for path in stroke.paths]
    drawn = shapely.union_all([shapely.LineString(line).buffer(INK, quad_segs=2) for line in lines if len(line) > 1])
    return shapely.union_all([inside.buffer(INK, quad_segs=2), drawn])


def turned(shape: shapely.Geometry, quarters: int) -> shapely.Geometry:
    """A shape turned clockwise (as seen, y down) by so many quarters about the origin; exact."""
    cos, sin = ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0))[quarters % 4]
    return shapely.transform(shape, lambda xy: xy @ ((cos, sin), (-sin, cos)))
