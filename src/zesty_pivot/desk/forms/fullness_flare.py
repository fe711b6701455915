"""The form of fullness.flare."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_flare import MOST, Flare
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, NumberRow, PieceRow, ShareRow, edge_choices, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "fullness.flare"


WAYS = (("shoulder", "20%", "80%"), ("armhole", "5%", "30%"), ("armhole", "5%", "15%"), ("neckline", "80%", "95%"))


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the waist, where the slashes have a clear way."""
    return first_change(
        model,
        (
            {"do": DO, "on": piece.name, "hinge": hinge, "start": low, "stop": high, "count": 2, "by": "2 cm",
             "hinge_start": "20%", "hinge_stop": "50%"}
            for piece in chosen_first(model)
            for hinge, low, high in WAYS
        ),
    )  # fmt: skip


FORM = FormEntry(
    DO,
    plain(
        Flare,
        PieceRow(),
        ChoiceRow("edge", "Edge that is flared", choices=edge_choices),
        ChoiceRow("hinge", "Hinges on the", choices=edge_choices),
        NumberRow("count", "Slashes", read=whole_number(1, MOST)),
        LengthRow("by", "Each opened by"),
        ShareRow("start", "First slash at"),
        ShareRow("stop", "Last slash at"),
        ShareRow("hinge_start", "First hinge at, from the far end"),
        ShareRow("hinge_stop", "Last hinge at"),
    ),
    first_step,
    lambda _model: True,
    order=185,
)
