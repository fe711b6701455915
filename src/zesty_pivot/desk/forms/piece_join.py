"""The form of piece.join."""

from __future__ import annotations

from zesty_pivot.core.steps.piece_join import JoinPieces
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import OtherRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.join"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: two pieces that lie flat together along their seam."""
    pairs = [tuple(part.piece for part in seam.pair) for seam in model.pattern.seams if seam.pair is not None]
    return first_change(model, ({"do": DO, "on": one, "other": two} for one, two in pairs))


FORM = FormEntry(
    DO,
    plain(JoinPieces, PieceRow(title="Keeps its name"), OtherRow("other", "Is taped to it")),
    first_step,
    lambda model: len(model.pattern.pieces) > 1,
    order=191,
)
