"""The frames in which necklines and armholes are drawn: of a piece as it lies, and of the untouched block."""

from __future__ import annotations

from zesty_pivot.core.kept import Kept
from zesty_pivot.core.necklines.frame import Frame
from zesty_pivot.core.piece import Body, Piece
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import cleared
from zesty_pivot.core.quantity import Unit

_FRAMES: Kept[Frame] = Kept()


def frame_of(piece: Piece, drafted: Piece, unit: Unit) -> Frame:
    """The frame of a piece without darts above."""
    return Frame(piece, drafted, piece.body is Body.BACK, unit)


def block_frame(context: Context, name: str) -> Frame:
    """The frame of the untouched block's piece, from which starting values come. Raises as `cleared` does."""
    drafted = context.block.piece(name)

    def work() -> Frame:
        made = cleared(context.block, name, context)
        return frame_of(made.pattern.piece(name), drafted, context.scope.unit)

    return _FRAMES.get((drafted,), (context.scope.unit,), work)
