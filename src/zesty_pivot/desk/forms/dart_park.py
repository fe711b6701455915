"""The form of dart.park."""

from __future__ import annotations

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.dart_park import ParkDarts
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import HARMLESS, chosen_first, first_change, has_darts
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import PieceRow, PlaceRow, TicksRow
from zesty_pivot.desk.model import DeskModel

DO = "dart.park"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen dart, or those above the waist, to a place out of the way."""
    return first_change(
        model,
        (
            {"do": DO, "on": piece.name, "darts": darts, "to": {"station": place}}
            for piece in chosen_first(model)
            for darts in _worth_parking(model, piece)
            for place in HARMLESS
        ),
    )


def _worth_parking(model: DeskModel, piece: Piece) -> list[list[str]]:
    """The chosen dart; those that stand in the way of a neckline; all."""
    chosen = [dart.id for dart in piece.darts if dart.id == model.dart]
    high = [dart.id for dart in piece.darts if piece.role(piece.dart_edge(dart.id)) in ("neckline", "shoulder")]
    return [darts for darts in (chosen, high, [dart.id for dart in piece.darts]) if darts]


FORM = FormEntry(
    DO,
    plain(
        ParkDarts,
        PieceRow(follow=lambda piece: {"darts": [dart.id for dart in piece.darts][:1]}),
        TicksRow("darts", "Put away"),
        PlaceRow("to", "Put away at"),
    ),
    first_step,
    has_darts,
    order=70,
)
