"""The form of line.contour."""

from __future__ import annotations

from zesty_pivot.core.piece import Body
from zesty_pivot.core.steps.line_contour import Contour
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "line.contour"
GIVE_BACK = [("none", "not given back"), ("side", "given back at the side seam")]
ENDS = [("chest", "the chest line"), ("armhole", "mid armhole")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the back, or its centre panel."""
    backs = [piece for piece in model.pattern.pieces if piece.body is Body.BACK]
    return first_change(model, ({"do": DO, "on": piece.name} for piece in backs))


FORM = FormEntry(
    DO,
    plain(
        Contour,
        PieceRow(),
        LengthRow("by", "In at the waist by"),
        ChoiceRow("give_back", "Width taken at the waist", choices=lambda _step, _piece: GIVE_BACK),
        ChoiceRow("to", "Tapering to nothing at", choices=lambda _step, _piece: ENDS),
    ),
    first_step,
    lambda model: any(piece.fold is not None for piece in model.pattern.pieces),
    order=180,
)
