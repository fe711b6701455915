"""The form of dart.fan."""

from __future__ import annotations

from zesty_pivot.core.procedures.dart_shares import MOST
from zesty_pivot.core.steps.dart_fan import FanDart
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_darts, first_change, has_darts
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import (
    ChoiceRow,
    FlagRow,
    LengthRow,
    NumberRow,
    PieceRow,
    dart_choices,
    first_dart,
    whole_number,
)
from zesty_pivot.desk.model import DeskModel

DO = "dart.fan"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen dart, or the first that has room, as three darts."""
    spacings = ("2.5 cm", "1.5 cm")
    return first_change(
        model,
        (
            {"do": DO, "on": piece.name, "dart": dart.id, "spacing": spacing}
            for piece, dart in chosen_darts(model)
            for spacing in spacings
        ),
    )


FORM = FormEntry(
    DO,
    plain(
        FanDart,
        PieceRow(follow=first_dart),
        ChoiceRow("dart", "Dart", choices=dart_choices),
        NumberRow("count", "How many", read=whole_number(2, MOST), clears=("shares",)),
        LengthRow("spacing", "Apart, along the seam"),
        FlagRow("parallel", "Parallel, bent to the pivot"),
    ),
    first_step,
    has_darts,
    order=25,
)
