"""The form of piece.square."""

from __future__ import annotations

from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.piece_square import SquareAtCentre
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, edge_choices
from zesty_pivot.desk.model import DeskModel

DO = "piece.square"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: where a finding asks for one, else the waist of the chosen piece."""
    for finding in model.findings:
        step = finding.mend.step if finding.mend is not None else None
        if step is not None and step.get("do") == DO:
            return dict(step)
    for piece in chosen_first(model):
        for edge in ("waist", "neckline"):
            value: dict[str, object] = {"do": DO, "on": piece.name, "edge": edge}
            if model.would_change(registry.read(value)):
                return value
    return None


FORM = FormEntry(
    DO,
    plain(
        SquareAtCentre,
        PieceRow(),
        ChoiceRow("edge", "Edge", choices=edge_choices),
        LengthRow("over", "Redrawn over"),
    ),
    first_step,
    lambda _model: True,
    order=94,
)
