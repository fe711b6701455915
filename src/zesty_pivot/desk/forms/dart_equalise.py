"""The form of dart.equalise."""

from __future__ import annotations

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.dart_equalise import EqualiseDarts
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.dart_list import DartList, pair_to_begin
from zesty_pivot.desk.forms.places import has_pairs
from zesty_pivot.desk.model import DeskModel

DO = "dart.equalise"


class EqualiseDartsForm(StepForm):
    """Which darts."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.list = DartList(self)
        self._rows.addWidget(self.list)

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        if isinstance(step, EqualiseDarts):
            self.at = at
            self.list.show_darts(step.on, step.darts, before)


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: all darts of one pivot."""
    found = pair_to_begin(model)
    return {"do": DO, "on": found[0], "darts": found[1]} if found else None


FORM = FormEntry(DO, EqualiseDartsForm, first_step, has_pairs, order=40)
