"""The form of fullness.slash."""

from __future__ import annotations

from typing import Any

from PyQt6.QtWidgets import QWidget

from zesty_pivot.core.piece import Pattern, Piece, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.fullness_slash import Slash
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.place_field import PlaceField
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import FlagRow, LengthRow, PieceRow, PlaceRow, Row, RowForm
from zesty_pivot.desk.model import DeskModel

DO = "fullness.slash"

# Tried one after the other for a slash with a clear way.
WAYS = (("side_waist", "mid_armhole"), ("centre_waist", "mid_neck"), ("mid_neck", "mid_armhole"))


@record
class EndRow(Row):
    """Where the slash ends: at a hinge, or at the pivot of a dart."""

    def field(self, form: RowForm) -> QWidget:
        place = PlaceField(self.title, form.worth_of_place)

        def pivot(key: str) -> None:
            name = key.partition(":")[2]
            form.change({"dart": name, "hinge": None, "whole": True}, f"to the pivot of the {words(name)} dart")

        place.placed.connect(lambda value: form.change({"hinge": value, "dart": None, "whole": None}, "to another hinge"))
        place.other.connect(pivot)
        return place

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        piece = before.piece(step.on) if before.has(step.on) else None
        ends = (
            [(f"pivot:{dart.id}", f"the pivot of the {dart_words(piece, dart.id)} dart") for dart in piece.darts]
            if piece
            else []
        )
        field.show_place(step.hinge, piece, (), step, ends, f"pivot:{step.dart}" if step.dart is not None else "")


def _piece(piece: Piece) -> dict[str, Any]:
    if piece.darts:
        return {"dart": piece.darts[0].id, "hinge": None, "whole": True}
    return {"dart": None, "whole": None, "hinge": {"station": "mid_armhole"}}


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: a slash that has a clear way."""
    places = [{"edge": "waist", "at": "10%"}, *({"station": start} for start, _stop in WAYS)]
    hinges = ["mid_armhole", *(stop for _start, stop in WAYS)]
    return first_change(
        model,
        (
            {"do": DO, "on": piece.name, "at": at, "hinge": {"station": hinge}, "by": "2 cm"}
            for piece in chosen_first(model)
            for at, hinge in zip(places, hinges, strict=True)
        ),
    )


FORM = FormEntry(
    DO,
    plain(
        Slash,
        PieceRow(follow=_piece),
        PlaceRow("at", "From"),
        EndRow("hinge", "To"),
        FlagRow("whole", "All of this dart", when=lambda step: step.dart is not None),
        LengthRow("by", "Opened by (negative folds out)", signed=True, when=lambda step: not step.whole),
    ),
    first_step,
    lambda _model: True,
    order=183,
)
