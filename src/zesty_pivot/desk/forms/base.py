"""What the forms of steps share: rows of fields, and reading a changed step."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError
from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QComboBox, QLabel, QLineEdit, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.files import faults
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import distance_mm, format_length, is_share, length_mm, share_of
from zesty_pivot.core.record import record
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.model import DeskModel


@record
class FormEntry:
    """How a step is edited, what it begins with when it is added, and whether it can be added now. `order` is its place
    among the steps to add."""

    do: str
    make: Callable[[DeskModel], StepForm]
    first: Callable[[DeskModel], dict[str, object] | None]
    can: Callable[[DeskModel], bool]
    order: int


class StepForm(QWidget):
    """Edits the step at a number of the recipe. Subclasses fill `show_step`. `done` is said when Enter ends a field."""

    done = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self.model = model
        self.at = 0
        self._rows = QVBoxLayout(self)
        self._rows.setContentsMargins(0, 0, 0, 0)
        self._rows.setSpacing(3)

    def add_row(self, title: str, widget: QWidget) -> None:
        """A field under its title."""
        label = QLabel(title)
        label.setObjectName("quiet")
        label.setBuddy(widget)
        self._rows.addWidget(label)
        self._rows.addWidget(widget)
        self._rows.addSpacing(5)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter, which the field has taken first, ends the editing; where it was refused the hand stays in the field."""
        plain = event is not None and event.modifiers() in (Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.KeypadModifier)
        if event is not None and plain and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            field = self.focusWidget()
            if field is None or not field.property("fault"):
                self.done.emit()
            return
        super().keyPressEvent(event)

    def edit_first(self) -> None:
        """Puts the hand into the first number field, its text selected, else into the first field."""
        fields = [field for field in self.findChildren(QLineEdit) if field.isEnabled() and field.isVisibleTo(self)]
        for field in fields[:1]:
            field.setFocus(Qt.FocusReason.ShortcutFocusReason)
            field.selectAll()
        for choice in () if fields else self.findChildren(QComboBox)[:1]:
            choice.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        """Shows a step; `before` is the pattern it meets."""
        raise RuntimeError("a form without fields")

    def change(self, values: dict[str, Any], title: str) -> None:
        """Exchanges the step for one with other values (None takes a value out); what cannot be is said."""
        value = registry.dump(self.model.style.steps[self.at])
        for key, new in values.items():
            if new is None:
                value.pop(key, None)
            else:
                value[key] = new
        try:
            step = registry.read(value)
        except ValidationError as fault:
            self.model.say(faults(fault), fault=True)
            return
        self.model.recipe.replace_step(self.at, step, title)

    def known_lengths(self) -> dict[str, dict[str, str]]:
        """The names that a formula of this step may use: the measurements, and the tapes that were kept before it."""
        scope, model = self.model.scope_before(self.at), self.model
        body = model.style.scope().measures
        tapes = {name: mm for name, mm in scope.measures.items() if name not in body}
        found = {"Tapes": tapes, "Measurements": dict(sorted(body.items()))}
        return {
            head: {name: format_length(mm, scope.unit) for name, mm in known.items()} for head, known in found.items() if known
        }

    def worth_of_length(self) -> Callable[[str], str]:
        """Words for a length field's value, in the style's unit."""

        def worth(text: str) -> str:
            unit = self.model.style.units
            mm = length_mm(text, self.model.scope_before(self.at))
            if mm <= 0.0:
                raise ZestyError("enter a length greater than 0", advice="Write a number such as 3.")
            return f"= {format_length(mm, unit, fine=unit != 'in')}"

        return worth

    def worth_of_place(self, text: str) -> str:
        """Words for how far along an edge a place is: a share or a length."""
        if is_share(text):
            return f"= {100 * share_of(text):.4g} % of the edge"
        distance_mm(text, 0.0, self.model.scope_before(self.at))  # refuses what may be a share or a length
        return self.worth_of_signed(text)

    def worth_of_signed(self, text: str) -> str:
        """Words for a length that may be negative or nothing."""
        return f"= {self.model.length(length_mm(text, self.model.scope_before(self.at)), fine=self.model.style.units != 'in')}"
