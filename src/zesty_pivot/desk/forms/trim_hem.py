"""The form of trim.hem."""

from __future__ import annotations

from zesty_pivot.core.piece import Body, Piece
from zesty_pivot.core.steps.trim_hem import TrimHem
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import LengthRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "trim.hem"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the back first."""
    order = sorted(model.pattern.pieces, key=lambda piece: piece.body is not Body.BACK)
    return first_change(model, ({"do": DO, "on": piece.name} for piece in order))


def _can(piece: Piece) -> bool:
    """Whether the piece has a lower edge without a mouth that ends at its centre."""
    lower = [run for run in piece.runs if piece.role(run.edge) in ("waist", "hem")]
    has_centre = any(role == "centre" for _edge, role in piece.roles)
    return has_centre and bool(lower) and not any(run.mouth for run in lower)


FORM = FormEntry(
    DO,
    plain(TrimHem, PieceRow(), LengthRow("by", "Trimmed at the centre by", signed=True)),
    first_step,
    lambda model: any(_can(piece) for piece in model.pattern.pieces),
    order=180,
)
