"""The form of fullness.tuck."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_tuck import MOST, Tuck
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.let_in_rows import EDGE, HEADINGS, LEADING, START, TOWARDS
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, CountRow, LengthRow, PieceRow, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "fullness.tuck"

KINDS = [("plain", "tucks"), ("pin", "pin tucks"), ("blind", "blind tucks")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: tucks where the lower edge has room, else pin tucks."""
    return first_change(
        model, ({"do": DO, "on": piece.name, "kind": kind} for kind in ("plain", "pin") for piece in chosen_first(model))
    )


FORM = FormEntry(
    DO,
    plain(
        Tuck,
        PieceRow(),
        ChoiceRow("kind", "Tucks", choices=lambda _step, _piece: KINDS),
        CountRow("count", "How many", read=whole_number(1, MOST)),
        LengthRow("depth", "Stitched depth", empty="as the kind has it"),
        LengthRow("spacing", "Spacing", lambda step: step.count > 1, empty="as the kind has it"),
        EDGE,
        START,
        TOWARDS,
        ChoiceRow("lies", "Pressed", choices=lambda _step, _piece: HEADINGS),
        LengthRow("stitched", "Released after", empty="stitched all the way"),
        *LEADING,
    ),
    first_step,
    lambda _model: True,
    order=187,
)
