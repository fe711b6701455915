"""The form of piece.unfold."""

from __future__ import annotations

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.piece_unfold import Unfold
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.unfold"


def _has_fold(piece: Piece) -> bool:
    return piece.fold is not None


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the piece with the ring, else another whose fold is whole."""
    return first_change(model, ({"do": DO, "on": piece.name} for piece in chosen_first(model)))


FORM = FormEntry(
    DO,
    plain(Unfold, PieceRow()),
    first_step,
    lambda model: any(_has_fold(piece) for piece in model.pattern.pieces),
    order=188,
)
