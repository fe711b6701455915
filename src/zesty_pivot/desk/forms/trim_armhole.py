"""The form of trim.armhole."""

from __future__ import annotations

from zesty_pivot.core.steps.trim_armhole import TrimArmhole
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow
from zesty_pivot.desk.model import DeskModel

DO = "trim.armhole"
BACKS = [("plain", "as the front"), ("razor", "razor back")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the underarm of front and back lowered."""
    names = [piece.name for piece in model.pattern.pieces]
    if "front" in names and "back" in names:
        return first_change(model, [{"do": DO, "on": "front"}])
    return first_change(model, ({"do": DO, "on": name, "other": ""} for name in names))


FORM = FormEntry(
    DO,
    plain(
        TrimArmhole,
        LengthRow("shoulder_in", "Shoulder cut in by", signed=True),
        LengthRow("lower", "Underarm lowered by", signed=True),
        LengthRow("widen", "Side let out there by", signed=True),
        ChoiceRow("back", "Back", choices=lambda _step, _piece: BACKS),
        LengthRow("razor", "Half width at the chest line", when=lambda step: bool(step.back == "razor")),
    ),
    first_step,
    lambda model: any({"armhole", "shoulder"} <= set(dict(piece.roles).values()) for piece in model.pattern.pieces),
    order=181,
)
