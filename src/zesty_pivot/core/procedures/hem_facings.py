"""How the facing of a waist or hem is traced: of a half, of each panel, of a whole piece side by side."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.facing import INNER, FacingEdge, chained, shortened, traced_facing
from zesty_pivot.core.moves.shaping import displaced, ended_at
from zesty_pivot.core.piece import Follow, Pattern, Piece, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.refs import side_of_seam
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import first_way, station_of
from zesty_pivot.core.procedures.facings import TracedFacing, has_both_sides, on_both_sides

LOWER = ("waist", "hem")
UPWARDS = ("mid_shoulder", "mid_armhole", "mid_neck")  # where darts go that open in the edge below
CLEAR = 10.0  # mm of the piece's sides above the facing. Our own choice


def with_lower_edge(pattern: Pattern, name: str) -> list[Piece]:
    """The piece of a name, or its panels, that have a lower edge. Raises StepError or PlaceError where none has."""
    found = [pattern.piece(name)] if pattern.has(name) else list(pattern.come_from(name)) or [pattern.piece(name)]
    lower = [piece for piece in found if set(LOWER) & set(dict(piece.roles).values())]
    if not lower:
        raise StepError(f"the {words(name)} has no waist or hem", where=name, advice="Choose another facing.")
    return lower


def hem_facing(pattern: Pattern, name: str, depth: float, shade: float, context: Context) -> TracedFacing:
    """Along the waist or hem of a piece, its darts closed, from one of its sides to the other. Raises StepError, PlaceError or
    GeometryError."""
    if has_both_sides(pattern.piece(name)):
        return on_both_sides(pattern, name, lambda half: hem_facing(half, name, depth, shade, context))
    return _traced(_closed_below(pattern, name, context).piece(name), depth, shade)


def _traced(piece: Piece, depth: float, shade: float) -> TracedFacing:
    at = next(k for k, run in enumerate(piece.runs) if piece.role(run.edge) in LOWER)
    edge, ids = piece.runs[at].edge, [id for id, _role in piece.roles]
    before, after = (ids[(ids.index(edge) + step) % len(ids)] for step in (-1, 1))
    up, low, down = (chained([run.path for run in piece.edge(id).runs], piece.role(id)) for id in (before, edge, after))
    if depth > min(up.length, down.length) - CLEAR:
        raise StepError("the facing is deeper than the piece", where=piece.name, advice="Choose a shallower one.")
    shade = shade if piece.role(before) == "side_seam" else 0.0
    outer, middle = up.point_at(up.length - depth), down.point_at(depth)
    turned, short = low.reversed(), shortened(low, shade, at_start=True)
    (inner,) = displaced([turned], [(0.0, middle - turned.start), (turned.length, outer - turned.end)])
    inner = Path(np.concatenate([inner.cubics[:-1], [np.vstack([inner.cubics[-1, :3], outer])]]))
    sides = [
        FacingEdge(INNER, INNER, inner),
        FacingEdge(before, piece.role(before), ended_at(up.between(up.length - depth, up.length), outer, short.start)),
        FacingEdge(edge, piece.role(edge), short),
        FacingEdge(after, piece.role(after), ended_at(down.between(0.0, depth), short.end, inner.start)),
    ]
    fold = after if piece.fold == after else None
    made = traced_facing(piece, f"{piece.name}_hem_facing", sides, fold, (), ())
    return TracedFacing(made, (Follow(edge, side_of_seam(piece.name, edge), shade),))


def _closed_below(pattern: Pattern, name: str, context: Context) -> Pattern:
    """The pattern with the darts that open in the lower edge, or low in the side, opened above instead."""
    for dart in pattern.piece(name).darts:
        piece = pattern.piece(name)
        if piece.role(piece.dart_edge(dart.id)) not in (*LOWER, "side_seam"):
            continue
        made = first_way(pattern, name, dart.id, [station_of(station) for station in UPWARDS], context)
        if made is None:
            what = f"the {dart_words(piece, dart.id)} dart cannot be closed for the facing"
            raise StepError(what, where=name, advice="Move it above the facing first.")
        pattern = made.pattern
    return pattern
