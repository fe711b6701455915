"""Where a line through a pivot begins above, also where the place it was to begin at has been cut away."""

from __future__ import annotations

import math

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.piece import Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import UPPER
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.quantity import Scope


def line_top(spot: Spot, piece: Piece, block: Piece, scope: Scope, pivot: str) -> Place:
    """The place of a spot; where that was cut away with a neckline or an armhole, the place of the new edge on the straight way
    from it, as it lies on the block, to the pivot. Raises PlaceError when there is neither."""
    try:
        return resolve(spot, piece, block, scope, pivot)
    except PlaceError:
        try:
            at = places.point(block, resolve(spot.model_copy(update={"side": None}), block, block, scope, pivot))
        except PlaceError:
            at = None
        found = None if at is None else _on_the_way(piece, at, pivot)
        if found is None:
            raise
        return found


def _on_the_way(piece: Piece, at: Vector, pivot: str) -> Place | None:
    pin = piece.pivot(pivot)
    way, long = unit(pin - at), math.dist(pin, at)
    met = [
        (s, Place(index, run.path.distance_of(segment, t)))
        for index, run in enumerate(piece.runs)
        if piece.role(run.edge) in (*UPPER, STYLE_LINE)
        for segment, t, s in with_line(run.path.cubics, at, way)
        if 0.0 <= s < long
    ]
    return max(met, key=lambda hit: hit[0])[1] if met else None
