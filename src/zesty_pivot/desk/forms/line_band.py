"""The form of line.band."""

from __future__ import annotations

from zesty_pivot.core.steps.line_band import Band
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "line.band"
EDGES = [(edge, edge) for edge in ("waist", "hem", "neckline", "armhole")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: along the lower edge of the chosen piece, else along another edge."""
    return first_change(
        model, ({"do": DO, "on": piece.name, "edge": edge} for piece in chosen_first(model) for edge, _title in EDGES)
    )


FORM = FormEntry(
    DO,
    plain(
        Band,
        PieceRow(),
        ChoiceRow("edge", "Along", choices=lambda _step, _piece: EDGES),
        LengthRow("width", "Width"),
    ),
    first_step,
    lambda _model: True,
    order=179,
)
