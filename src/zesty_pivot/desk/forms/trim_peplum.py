"""The form of trim.peplum."""

from __future__ import annotations

from zesty_pivot.core.steps.trim_peplum import Peplum
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.from_fields import worn_choices
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, CountRow, LengthRow, NumberRow, number_over, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "trim.peplum"
KINDS = [
    ("circle", "part of a circle"), ("slashed", "flared by slashes"), ("gathered", "gathered"), ("pleated", "pleated"),
    ("shaped", "shaped over the hip, no flare"),
]  # fmt: skip
HEMS = [("even", "even"), ("dipped", "dipped: longer at CB"), ("uneven", "uneven: longer on the left as worn")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with, at the lower edge of front and back."""
    return first_change(model, [{"do": DO, "on": "front"}, {"do": DO, "on": "front", "edge": "waist"}])


FORM = FormEntry(
    DO,
    plain(
        Peplum,
        ChoiceRow("edge", "Sewn to", choices=worn_choices),
        ChoiceRow("kind", "Kind", choices=lambda _step, _piece: KINDS),
        LengthRow("depth", "Depth at CF"),
        NumberRow("part", "Part of a circle", lambda step: step.kind == "circle", read=number_over(0.0, 2.0)),
        CountRow("slashes", "Slashes a half", lambda step: step.kind == "slashed", read=whole_number(1, 30)),
        LengthRow("spread", "Each opened by", lambda step: step.kind == "slashed"),
        NumberRow("ratio", "Ratio", lambda step: step.kind == "gathered", read=number_over(0.0, 4.0)),
        CountRow("pleats", "Pleats a half", lambda step: step.kind == "pleated", read=whole_number(1, 30)),
        LengthRow("underlay", "Each deep", lambda step: step.kind == "pleated"),
        LengthRow("hip", "As wide over the hip as", lambda step: step.kind == "shaped", empty="hip + 2 in"),
        LengthRow("hip_at", "So far below the waist", lambda step: step.kind == "shaped"),
        ChoiceRow("hem", "Hem", choices=lambda _step, _piece: HEMS),
        LengthRow("dip", "Longer by", lambda step: step.hem != "even"),
        LengthRow("raised_by", "Sewn on above the waist by", signed=True),
    ),
    first_step,
    lambda model: bool(model.pattern.pieces),
    order=800,
)
