"""The form of fullness.flare."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.fullness_flare import MOST, Flare
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, NumberRow, PieceRow, ShareRow, edge_choices, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "fullness.flare"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the lower edge, slashes hanging straight."""
    return first_change(model, ({"do": DO, "on": piece.name} for piece in chosen_first(model)))


def _edges(step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    return [("", "the lower edge"), *edge_choices(step, piece)]


def _hinges(step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    return [
        ("", "straight above: they hang"),
        *((edge, f"the {title}: they radiate") for edge, title in edge_choices(step, piece)),
    ]


DARTS = [("round", "shut while it is slashed"), ("feed", "feeds the slashes and stays open")]


FORM = FormEntry(
    DO,
    plain(
        Flare,
        PieceRow(),
        ChoiceRow("edge", "Edge that is flared", choices=_edges),
        ChoiceRow("hinge", "Hinges", choices=_hinges),
        NumberRow("count", "Slashes", read=whole_number(1, MOST)),
        LengthRow("by", "Each opened by"),
        ShareRow("start", "First slash at"),
        ShareRow("stop", "Last slash at"),
        ShareRow("hinge_start", "First hinge at, from the far end"),
        ShareRow("hinge_stop", "Last hinge at"),
        ChoiceRow("darts", "A dart in the way", choices=lambda _step, _piece: DARTS),
    ),
    first_step,
    lambda _model: True,
    order=184,
)
