"""The form of piece.let_out."""

from __future__ import annotations

from zesty_pivot.core.steps.piece_let_out import LetOut
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import LengthRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.let_out"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: both sides let out."""
    names = [piece.name for piece in model.pattern.pieces]
    if {"front", "back"} <= {piece.of or piece.name for piece in model.pattern.pieces}:
        made = first_change(model, [{"do": DO, "on": "front"}])
        if made is not None:
            return made
    return first_change(model, ({"do": DO, "on": name, "other": ""} for name in names))


FORM = FormEntry(
    DO,
    plain(
        LetOut,
        LengthRow("top", "At the underarm, each edge", signed=True),
        LengthRow("waist", "At the waist of a longer piece", signed=True, empty="evenly between"),
        LengthRow("bottom", "At the lower end, each edge", signed=True),
    ),
    first_step,
    lambda model: any("side_seam" in dict(piece.roles).values() for piece in model.pattern.pieces),
    order=193,
)
