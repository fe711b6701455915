"""The form of neck.opening."""

from __future__ import annotations

from zesty_pivot.core.piece import Body
from zesty_pivot.core.steps.neck_opening import NeckOpening
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change, offered
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "neck.opening"
KINDS = [("zip", "zip in a seam at the centre"), ("slit", "slit with button and loop")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: what the finding about the head offers, else a zip at the back."""
    pieces = sorted(model.pattern.pieces, key=lambda piece: piece.body is not Body.BACK)
    wanted = offered(model, DO)
    values: list[dict[str, object]] = [wanted] if wanted is not None else []
    values += [{"do": DO, "on": name} for name in dict.fromkeys(piece.of or piece.name for piece in pieces)]
    return first_change(model, values)


FORM = FormEntry(
    DO,
    plain(
        NeckOpening,
        PieceRow(),
        ChoiceRow("kind", "Opens by", choices=lambda _step, _piece: KINDS),
        LengthRow("length", "Length"),
    ),
    first_step,
    lambda model: any(piece.fold is not None for piece in model.pattern.pieces),
    order=86,
)
