"""The form of fullness.gather."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_gather import Gather
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.let_in_rows import EDGE, LEADING
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import (
    ChoiceRow,
    CountRow,
    FlagRow,
    LengthRow,
    NumberRow,
    PieceRow,
    PlaceRow,
    ShareRow,
    ratio,
    whole_number,
)
from zesty_pivot.desk.model import DeskModel

DO = "fullness.gather"

CLOTHS = [("light", "light: 1.5 to 1"), ("usual", "usual: 2 to 1"), ("sheer", "sheer: 2.5 to 1")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: below a yoke across the piece, else the lower edge, hinged above."""
    seams = [(p.name, edge) for p in chosen_first(model) for edge, role in p.roles if role == "style_line" and "yoke" in edge]
    tried: list[dict[str, object]] = [{"do": DO, "on": name, "edge": e} for name, e in seams if not name.endswith("_yoke")]
    tried += [{"do": DO, "on": piece.name, "far": "0%"} for piece in chosen_first(model)]
    return first_change(model, tried)


FORM = FormEntry(
    DO,
    plain(
        Gather,
        PieceRow(),
        EDGE,
        PlaceRow("start", "Gathers start", empty="near the end of the edge"),
        PlaceRow("stop", "Gathers stop", empty="near the end of the edge"),
        ChoiceRow(
            "cloth", "Cloth", lambda step: step.ratio is None and step.by is None and not step.fit,
            choices=lambda _step, _piece: CLOTHS,
        ),
        NumberRow("ratio", "Ratio", lambda step: not step.fit, empty="by the cloth", read=ratio, clears=("by",)),
        LengthRow("by", "Or by how much more", lambda step: not step.fit, empty="by the ratio", clears=("ratio",)),
        FlagRow("fit", "Fit it to its partner"),
        LengthRow("raised", "Raised in the middle by", lambda step: not step.fit, signed=True),
        CountRow("rows", "Rows of shirring", read=whole_number(0, 30)),
        LengthRow("apart", "Rows apart", lambda step: step.rows > 0),
        ShareRow("elastic", "Elastic cut to", lambda step: step.rows > 0, empty="no elastic"),
        *LEADING,
    ),
    first_step,
    lambda _model: True,
    order=185,
)  # fmt: skip
