"""What lies at a height of a piece: where a line crosses it, and how much cloth there is across."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
import shapely

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place, settled
from zesty_pivot.core.piece.region import cloth

_ACROSS = np.array([1.0, 0.0])


def crossings(paths: Iterable[Path], y: float) -> list[tuple[float, float]]:
    """Where a line of several stretches, one after the other, crosses a height y (mm): the distance along it from its
    beginning and x, both in mm, in the order of the stretches."""
    found: list[tuple[float, float]] = []
    start, level = 0.0, np.array([0.0, y])
    for path in paths:
        found += [(start + path.distance_of(segment, t), x) for segment, t, x in with_line(path.cubics, level, _ACROSS)]
        start += path.length
    return found


def edges_at(piece: Piece, role: str, y: float) -> list[tuple[Place, float]]:
    """Where the edges of a role cross a height y (mm), in loop order, each with its x in mm."""
    return [
        (settled(piece, index, along), x)
        for index, run in enumerate(piece.runs)
        if piece.role(run.edge) == role
        for along, x in crossings((run.path,), y)
    ]


@kept_with  # the block's is asked for again and again
def cloth_at(piece: Piece, y: float) -> float:
    """The cloth across a piece at a height y (mm), darts left out, in mm."""
    region = cloth(piece)
    low, _y0, high, _y1 = region.bounds
    return float(shapely.intersection(region, shapely.LineString([(low - 1.0, y), (high + 1.0, y)])).length)
