"""Which lines of a pattern have moved, and by how much: what another convention did to what is drawn across shut darts."""

from __future__ import annotations

import shapely

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.record import record

LEAST_MM = 0.05  # less is thinner than a sharp pencil's line. Common practice, no source


@record
class MovedEdge:
    """An edge and the furthest that it moved, mm."""

    piece: str
    edge: str
    mm: float


def moved_edges(before: Pattern, after: Pattern) -> tuple[MovedEdge, ...]:
    """The edges of pieces of one name that lie elsewhere, each with the furthest distance between its two lines (Hausdorff)."""
    found: list[MovedEdge] = []
    for piece in after.pieces:
        old = before.piece(piece.name) if before.has(piece.name) else None
        if old is None or old is piece:
            continue
        known = dict(old.roles)
        for edge, _role in piece.roles:
            if edge in known:
                mm = float(_line(old, edge).hausdorff_distance(_line(piece, edge)))
                if mm > LEAST_MM:
                    found.append(MovedEdge(piece.name, edge, mm))
    return tuple(found)


def _line(piece: Piece, edge: str) -> shapely.MultiLineString:
    return shapely.MultiLineString([run.path.outline for run in piece.edge(edge).runs])
