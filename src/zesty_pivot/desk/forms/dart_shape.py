"""The form of dart.shape."""

from __future__ import annotations

from zesty_pivot.core.piece import Use
from zesty_pivot.core.steps.dart_shape import ShapeDart
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, ShareRow, dart_choices, first_dart
from zesty_pivot.desk.model import DeskModel

DO = "dart.shape"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen dart, or the first that is sewn, bowed a little."""
    for piece in chosen_first(model):
        for dart in sorted(piece.darts, key=lambda dart: dart.id != model.dart):
            if dart.use is Use.DART:
                return {"do": DO, "on": piece.name, "dart": dart.id, "bow": "3 mm"}
    return None


FORM = FormEntry(
    DO,
    plain(
        ShapeDart,
        PieceRow(follow=first_dart),
        ChoiceRow("dart", "Dart", choices=dart_choices),
        LengthRow("bow", "Legs bowed outwards by", signed=True),
        LengthRow("bend", "Or: bent aside by", signed=True),
        ShareRow("at", "Bent at, from the pivot"),
    ),
    first_step,
    lambda model: first_step(model) is not None,
    order=60,
)
