"""The form of dart.fisheye."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from zesty_pivot.core.piece import Pattern, Side
from zesty_pivot.core.steps.dart_fisheye import FishEyeDart
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "dart.fisheye"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the fish-eye dart that a piece has, drawn 1 in wide, or a new one."""
    values: Iterator[dict[str, object]] = (
        {"do": DO, "on": piece.name, "dart": piece.fisheyes[0].id if piece.fisheyes else "waist", "intake": intake}
        for piece in chosen_first(model)
        for intake in ("1 in", "3 cm")
    )
    return first_change(model, values)


class SideRow(ChoiceRow):
    """The side of an unfolded piece that a new dart is drawn on."""

    def is_shown(self, step: Any, before: Pattern) -> bool:
        piece = before.piece(step.on) if before.has(step.on) else None
        return piece is not None and piece.is_unfolded and piece.sides.of(step.dart) is None

    def value(self, step: Any) -> str:
        return step.side or Side.LEFT.value


FORM = FormEntry(
    DO,
    plain(
        FishEyeDart,
        PieceRow(),
        SideRow("side", "Side, as worn", choices=lambda _step, _piece: [(side.value, side.value) for side in Side]),
        LengthRow("intake", "Taken in at the waist", signed=True),
        LengthRow("axis", "Axis from the centre", empty="straight under its point", signed=True),
        LengthRow("top", "Starts below its point", signed=True),
        LengthRow("bottom", "Ends above the hip line", signed=True),
        LengthRow("bow", "Legs bowed outwards by", signed=True),
    ),
    first_step,
    lambda model: any(piece.is_hip_length for piece in model.pattern.pieces),
    order=62,
)
