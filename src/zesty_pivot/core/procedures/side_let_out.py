"""A side seam let out, with the width that the girths gain by it told."""

from __future__ import annotations

import numpy as np
from scipy.interpolate import PchipInterpolator

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.moves.neckline import let_out
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.heights import edges_at
from zesty_pivot.core.piece.place import by_origin, origin_of, sewn_distance
from zesty_pivot.core.record import replace

SIDE = "side_seam"
NEAR = 2.0  # mm that a level may lie above the underarm and still be the width there

Knots = tuple[tuple[float, float], ...]


def side_let_out(piece: Piece, block: Pattern, widen: float, flare: float, inside: Knots = ()) -> Piece:
    """The piece with its side seam let out as `let_out` does, mm; what its levels gain is given to the girths."""
    out = let_out(piece, widen, flare, inside)
    if out is piece:
        return piece
    base = block.drafted(piece)
    total = sum(run.path.length for run in piece.runs if piece.role(run.edge) == SIDE)
    at, mm = zip((0.0, widen), *inside, (total, flare), strict=True)
    aside = PchipInterpolator(at, mm)
    upright = _upright(base)
    gained = []
    for name in base.levels:
        down = down_to(piece, block, name)
        if down is not None:
            gained.append((name, -float(aside(min(max(down, 0.0), total))) / upright))
    return replace(out, taken=(*out.taken, *gained))


def down_to(piece: Piece, block: Pattern, level: str) -> float | None:
    """How far down its sewn side seam a piece has a level of its block, mm; None where the seam does not reach it, or that part
    of it is on another piece. A level that is the underarm's is at its beginning."""
    base = block.drafted(piece)
    y = base.levels[level]
    found = edges_at(base, SIDE, y)
    if not found:
        return 0.0 if "underarm" in base.landmarks and abs(float(base.corner("underarm")[1]) - y) < NEAR else None
    try:
        return sewn_distance(piece, by_origin(piece, origin_of(base, found[0][0])))
    except PlaceError:
        return None


def _upright(base: Piece) -> float:
    """The cosine of how far the block's side seam leans: along a level more is gained than square to the seam."""
    runs = [run for run in base.runs if base.role(run.edge) == SIDE]
    way = runs[-1].path.end - runs[0].path.start
    return float(max(abs(way[1]) / np.hypot(*way), 0.5))
