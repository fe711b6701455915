"""The form of fullness.pleat."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_pleat import MOST, Pleat
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.let_in_rows import EDGE, HEADINGS, LEADING, START, TOWARDS
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, CountRow, FlagRow, LengthRow, PieceRow, PlaceRow, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "fullness.pleat"

KINDS = [("knife", "knife pleats"), ("box", "box pleats"), ("inverted", "inverted pleats"), ("accordion", "accordion pleats")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: knife pleats where the lower edge has room, else box pleats hinged above."""
    return first_change(
        model,
        ({"do": DO, "on": piece.name, **more} for more in ({}, {"far": "0%"}) for piece in chosen_first(model)),
    )


FORM = FormEntry(
    DO,
    plain(
        Pleat,
        PieceRow(),
        ChoiceRow("kind", "Pleats", choices=lambda _step, _piece: KINDS),
        CountRow("count", "How many", read=whole_number(1, MOST)),
        LengthRow("depth", "Depth", empty="1 cm, or as there is room"),
        LengthRow("last", "Depth of the last", lambda step: step.count > 1, empty="all alike"),
        LengthRow("width", "Visible width", lambda step: step.kind == "box", empty="twice the depth"),
        EDGE,
        START,
        PlaceRow("stop", "Last at", lambda step: step.start is not None and step.count > 1, empty="by the spacing"),
        LengthRow("spacing", "Spacing", lambda step: step.stop is None and step.count > 1, empty="2.5 cm, or as needed"),
        TOWARDS,
        ChoiceRow(
            "lies", "Folds point", lambda step: step.kind in ("knife", "accordion"), choices=lambda _step, _piece: HEADINGS
        ),
        LengthRow("stitched", "Stitched down by", signed=True),
        FlagRow("edge_stitched", "Edge-stitched"),
        FlagRow("soft", "Soft, not pressed"),
        *LEADING,
    ),
    first_step,
    lambda _model: True,
    order=186,
)
