"""The form of piece.join."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from PyQt6.QtWidgets import QWidget

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.pattern import parts_of
from zesty_pivot.core.steps.piece_join import JoinPieces
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import PlainForm, plain
from zesty_pivot.desk.forms.rows import PieceRow, Row
from zesty_pivot.desk.model import DeskModel

DO = "piece.join"


@dataclass(frozen=True)
class OtherRow(Row):
    """Another piece, by its name."""

    def field(self, form: PlainForm) -> QWidget:
        choice = Choice(self.title)
        choice.picked.connect(lambda name: form.change({self.key: name}, f"with the {words(name)}"))
        return choice

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.show_choices([(piece.name, words(piece.name)) for piece in before.pieces if piece.name != step.on], step.other)


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: two pieces that lie flat together along their seam."""
    pairs = [(parts_of(seam.a)[0][0], parts_of(seam.b)[0][0]) for seam in model.pattern.seams if "+" not in seam.a + seam.b]
    return first_change(model, ({"do": DO, "on": one, "other": two} for one, two in pairs))


FORM = FormEntry(
    DO,
    plain(JoinPieces, PieceRow(title="Keeps its name"), OtherRow("other", "Is taped to it")),
    first_step,
    lambda model: len(model.pattern.pieces) > 1,
    order=90,
)
