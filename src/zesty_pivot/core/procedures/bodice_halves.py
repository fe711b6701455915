"""Halves of the bodice as necklines and armholes are drawn on them: of a piece as it lies, and of the untouched block."""

from __future__ import annotations

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Body, Piece
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import cleared
from zesty_pivot.core.quantity import Unit

_HALVES: Kept[BodiceHalf] = Kept()


def half_of(piece: Piece, drafted: Piece, unit: Unit) -> BodiceHalf:
    """A piece without darts above as a bodice half."""
    return BodiceHalf(piece, drafted, piece.body is Body.BACK, unit)


def block_half(context: Context, name: str) -> BodiceHalf:
    """The half of the untouched block's piece, from which starting values come. Raises as `cleared` does, and StepError for a
    piece that is none of the block's."""
    if not context.block.has(name):
        theirs = " or ".join(words(piece.name) for piece in context.block.pieces)
        what = f"the {words(name)} is no piece of the block"
        raise StepError(what, where=name, advice=f"Name the {theirs}, or do this before the pieces were joined or cut.")
    drafted = context.block.piece(name)

    def work() -> BodiceHalf:
        made = cleared(context.block, name, context)
        return half_of(made.pattern.piece(name), drafted, context.scope.unit)

    return _HALVES.get((drafted,), (context.scope.unit,), work)
