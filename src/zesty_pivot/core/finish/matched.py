"""Front and back laid together at the shoulder, upper darts shut, so that the neckline is seen as one line."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.fold import folded
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.piece import Pattern, Piece, Side
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import ABOVE, cleared
from zesty_pivot.core.record import record


@record
class Half:
    """One piece as it is laid: its outline stretches with their roles, and its finished neckline and shoulder, mm."""

    name: str
    runs: tuple[tuple[str, Path], ...]
    neck_mm: float
    shoulder_mm: float


@record
class Matched:
    """Front and back; `corner_deg` is the neckline's corner where they meet at the shoulder, 0 when smooth."""

    front: Half
    back: Half
    corner_deg: float


def matched(pattern: Pattern, context: Context) -> Matched | None:
    """The two pieces with their shoulders laid along each other; None where one has no neckline or no shoulder. Of unfolded
    pieces it is the left as worn that is laid."""
    pieces = [_with_neck(pattern, name) for name in ("front", "back")]
    if pieces[0] is None or pieces[1] is None:
        return None
    one, two = (_shut(pattern, piece, context) for piece in pieces if piece is not None)
    ends = [_neck_end(piece) for piece in (one, two)]
    if ends[0] is None or ends[1] is None:
        return None
    frames = []
    for piece, index in zip((one, two), ends, strict=True):
        along = piece.runs[piece.after(index or 0)].path.start_direction
        frames.append(np.array([along, [-along[1], along[0]]]).T)
    starts = [piece.runs[piece.after(index or 0)].path.start for piece, index in zip((one, two), ends, strict=True)]
    lay = Motion(frames[0] @ np.diag([1.0, -1.0]) @ frames[1].T, starts[1], starts[0])
    opening = sum(math.pi - corner(piece, index or 0, context.sewing) for piece, index in zip((one, two), ends, strict=True))
    front = _half(one, None)
    back = _half(two, lay)
    return Matched(front, back, math.degrees(opening - math.pi))


def _with_neck(pattern: Pattern, name: str) -> Piece | None:
    for piece in pattern.come_from(name):
        if {"neckline", "shoulder"} <= set(dict(piece.roles).values()):
            return piece
    return None


def _shut(pattern: Pattern, piece: Piece, context: Context) -> Piece:
    """The piece with its upper darts out of the way; folded shut where they cannot wait elsewhere."""
    try:
        return cleared(pattern, piece.name, context).pattern.piece(piece.name)
    except ZestyError:
        upper = [dart.id for dart in piece.darts if piece.role(piece.dart_edge(dart.id)) in ABOVE]
        return folded(piece, context.sewing, 1.0, upper)


def _neck_end(piece: Piece) -> int | None:
    """The run at whose end the neckline meets the shoulder; of an unfolded piece the left one."""
    for index, run in enumerate(piece.runs):
        after = piece.runs[piece.after(index)]
        if (
            piece.sides.of(run.edge) is not Side.RIGHT
            and piece.role(run.edge) == "neckline"
            and piece.role(after.edge) == "shoulder"
        ):
            return index
    return None


def _half(piece: Piece, lay: Motion | None) -> Half:
    runs = tuple((piece.role(run.edge), run.path if lay is None else run.path.moved(lay)) for run in piece.runs)

    def sewn(role: str) -> float:
        ids = [edge for edge, its in piece.roles if its == role and piece.sides.of(edge) is not Side.RIGHT]
        return sum(piece.edge(edge).sewn_length for edge in ids)

    return Half(piece.name, runs, sewn("neckline"), sewn("shoulder"))
