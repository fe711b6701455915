"""Darts with unequal legs, made equal and told, where a dart is shut for good: else a step would stand in the seam."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.moves.level import TOLD, levelled
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.procedures.base import Note
from zesty_pivot.core.quantity import Unit, format_length


def made_equal(piece: Piece, darts: Iterable[str], unit: Unit) -> tuple[Piece, tuple[Note, ...]]:
    """The piece with both legs of each of some darts equally long, and what there is to say about it."""
    notes: list[Note] = []
    for dart in darts:
        made, moved = levelled(piece, dart)
        if moved > TOLD:
            by = format_length(2.0 * moved, unit, fine=True)
            what = f"the legs of the {dart_words(piece, dart)} dart differed by {by}: the seam beside it is drawn to meet"
            notes.append(Note(what, piece.name, moved))
        piece = made
    return piece, tuple(notes)
