"""The form of piece.side_seam."""

from __future__ import annotations

from zesty_pivot.core.piece.names import words
from zesty_pivot.core.steps.piece_side_seam import MoveSideSeam
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, ShareRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.side_seam"
WAYS = [("back", "front"), ("front", "back")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: 2 cm from the back to the front, or less, or the other way."""
    return first_change(
        model, ({"do": DO, "on": on, "other": other, "by": by} for on, other in WAYS for by in ("2 cm", "1 cm"))
    )


FORM = FormEntry(
    DO,
    plain(
        MoveSideSeam,
        PieceRow(title="Loses", follow=lambda piece: {"other": dict(WAYS).get(piece.name, "front")}),
        ChoiceRow("other", "Gets it", choices=lambda step, _piece: [(step.other, words(step.other))]),
        LengthRow("by", "Along the armhole", empty="2 cm, or by the share", clears=("armhole",)),
        ShareRow("armhole", "Or: share of its armhole", empty="such as 1/3", clears=("by",)),
        LengthRow("at_waist", "At the waist", empty="as at the armhole"),
    ),
    first_step,
    lambda model: len(model.pattern.pieces) > 1,
    order=189,
)
