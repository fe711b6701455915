"""The form of piece.side_panel."""

from __future__ import annotations

from zesty_pivot.core.steps.piece_side_panel import PANEL, SidePanel
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import LengthRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.side_panel"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: 4 and 5 cm, or narrower where that does not fit."""
    return first_change(
        model,
        (
            {"do": DO, "on": "front", "other": "back", "front": front, "back": back}
            for front, back in (("4 cm", "5 cm"), ("2 cm", "2 cm"))
        ),
    )


FORM = FormEntry(
    DO,
    plain(
        SidePanel,
        LengthRow("front", "Of the front, along the armhole"),
        LengthRow("back", "Of the back, along the armhole"),
        LengthRow("front_waist", "Of the front, at the waist", empty="as at the armhole"),
        LengthRow("back_waist", "Of the back, at the waist", empty="as at the armhole"),
    ),
    first_step,
    lambda model: model.pattern.has("front") and model.pattern.has("back") and not model.pattern.has(PANEL),
    order=190,
)
