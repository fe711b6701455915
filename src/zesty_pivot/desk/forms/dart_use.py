"""The form of dart.use."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.procedures.dart_shares import MOST
from zesty_pivot.core.steps.dart_use import UseDart
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_darts, first_change, has_darts
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, NumberRow, PieceRow, dart_choices, first_dart, ratio, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "dart.use"

USES = [
    ("gathers", "gathers"), ("tucks", "tucks"), ("pleats", "soft pleats"), ("ease", "ease"), ("flare", "open flare"),
    ("dart", "a sewn dart"),
]  # fmt: skip
CLOTH = [("firm", "firm cloth, 3%"), ("medium", "medium cloth, 6%"), ("soft", "soft cloth, 10%")]


def _is(*uses: str) -> Any:
    return lambda step: step.as_ in uses


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen dart, or the first, in a use that it can have."""
    return first_change(
        model,
        (
            {"do": DO, "on": piece.name, "dart": dart.id, "as": as_}
            for piece, dart in chosen_darts(model)
            for as_, _title in USES
        ),
    )


FORM = FormEntry(
    DO,
    plain(
        UseDart,
        PieceRow(follow=first_dart),
        ChoiceRow("dart", "Dart", choices=dart_choices),
        ChoiceRow("as_", "Used as", choices=lambda _step, _piece: USES, written="as"),
        NumberRow("count", "How many", _is("tucks", "pleats"), read=whole_number(1, MOST)),
        LengthRow("spacing", "Apart, along the seam", _is("tucks", "pleats")),
        LengthRow("stitched", "Stitched from the seam", _is("tucks")),
        LengthRow("over", "Over this much seam", _is("gathers", "ease"), empty="10 cm, or by the ratio", clears=("ratio",)),
        NumberRow("ratio", "Or: times its length", _is("gathers", "ease"), empty="such as 2", clears=("over",), read=ratio),
        LengthRow("raised", "Edge raised by", _is("gathers"), signed=True),
        ChoiceRow("cloth", "Cloth", _is("ease"), choices=lambda _step, _piece: CLOTH),
    ),
    first_step,
    has_darts,
    order=50,
)
