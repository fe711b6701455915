"""The form of piece.square."""

from __future__ import annotations

from zesty_pivot.core.steps.piece_square import SquareAtCentre
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change, offered
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, edge_choices
from zesty_pivot.desk.model import DeskModel

DO = "piece.square"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: where a finding asks for one, else the waist of the chosen piece."""
    return offered(model, DO) or first_change(
        model, ({"do": DO, "on": piece.name, "edge": edge} for piece in chosen_first(model) for edge in ("waist", "neckline"))
    )


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
    order=196,
)
