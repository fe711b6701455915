"""The form of dart.return."""

from __future__ import annotations

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.dart_return import ReturnDarts
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import PieceRow, TicksRow
from zesty_pivot.desk.model import DeskModel

DO = "dart.return"


def parked_on(piece: Piece) -> list[str]:
    """The darts put away on a piece."""
    return [entry.id for dart in piece.darts for entry in dart.parked]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: all that is parked on the chosen piece, or on another."""
    for piece in chosen_first(model):
        if parked_on(piece):
            return {"do": DO, "on": piece.name}
    return None


FORM = FormEntry(
    DO,
    plain(
        ReturnDarts,
        PieceRow(follow=lambda _piece: {"darts": None}),
        TicksRow("darts", "Bring back (all when none is ticked)", known=parked_on, least=0),
    ),
    first_step,
    lambda model: first_step(model) is not None,
    order=75,
)
