"""The form of trim.strapless."""

from __future__ import annotations

from zesty_pivot.core.steps.trim_strapless import Strapless
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, PlaceRow
from zesty_pivot.desk.model import DeskModel

DO = "trim.strapless"
SHAPES = [("straight", "straight"), ("sweetheart", "sweetheart")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen piece, or another half with its neckline."""
    return first_change(
        model, ({"do": DO, "on": piece.name, "depth": depth} for piece in chosen_first(model) for depth in ("7 in", "5 in"))
    )


FORM = FormEntry(
    DO,
    plain(
        Strapless,
        PieceRow(),
        ChoiceRow("shape", "Edge", choices=lambda _step, _piece: SHAPES),
        LengthRow("depth", "Below the neck point"),
        LengthRow("rise", "Rises over its dip by", when=lambda step: bool(step.shape == "sweetheart")),
        PlaceRow("to", "Ends at"),
    ),
    first_step,
    lambda model: any(not piece.is_unfolded for piece in model.pattern.pieces),
    order=177,
)
