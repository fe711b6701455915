"""The form of dart.merge."""

from __future__ import annotations

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.dart_merge import MergeDarts
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.dart_list import DartList, pair_to_begin
from zesty_pivot.desk.forms.places import has_pairs, place_choices, place_key, place_value
from zesty_pivot.desk.model import DeskModel

DO = "dart.merge"
FIRST = "first"


class MergeDartsForm(StepForm):
    """Which darts, and where the one opens."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.list = DartList(self)
        self.to = Choice("Opens at")
        self._rows.addWidget(self.list)
        self.add_row("Opens at", self.to)
        self.to.picked.connect(self._to)

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        if not isinstance(step, MergeDarts):
            return
        self.at = at
        self.list.show_darts(step.on, step.darts, before)
        piece = before.piece(step.on) if before.has(step.on) else None
        darts = piece.darts if piece else ()
        places = [(FIRST, "where the first is"), *place_choices(piece, darts, step.to)]
        self.to.show_choices(places, FIRST if step.to is None else place_key(step.to))

    def _to(self, key: str) -> None:
        value = place_value(key)
        if key == FIRST or value is not None:
            self.change({"to": value}, "another place")


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: two darts of one pivot, into the first."""
    found = pair_to_begin(model)
    return {"do": DO, "on": found[0], "darts": found[1]} if found else None


FORM = FormEntry(DO, MergeDartsForm, first_step, has_pairs, order=30)
