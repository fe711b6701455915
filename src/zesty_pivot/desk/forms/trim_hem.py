"""The form of trim.hem."""

from __future__ import annotations

from zesty_pivot.core.steps.trim_hem import TrimHem
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import LengthRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "trim.hem"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the back first."""
    order = sorted(model.pattern.pieces, key=lambda piece: not (piece.of or piece.name).startswith("back"))
    return first_change(model, ({"do": DO, "on": piece.name} for piece in order))


FORM = FormEntry(
    DO,
    plain(TrimHem, PieceRow(), LengthRow("by", "Trimmed at the centre by", signed=True)),
    first_step,
    lambda model: first_step(model) is not None,
    order=81,
)
