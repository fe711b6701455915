"""What a search in the drawer has found."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from zesty_pivot.desk.drawer.search import Found
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import empty, label
from zesty_pivot.desk.step_pictures import PICTURES


class Answered(QWidget):
    """What a search has found."""

    def __init__(self, take: Callable[[Found], None], take_as_variant: Callable[[Found], None]) -> None:
        super().__init__()
        self._take, self._take_as_variant = take, take_as_variant
        self.found: list[Found] = []
        self.buttons: list[QPushButton] = []
        self.note = label("", "quiet")  # what Enter does, and what the numbers are
        self._rows = QVBoxLayout()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.note)
        column.addLayout(self._rows)
        self._rows.setContentsMargins(0, 0, 0, 0)
        self._rows.setSpacing(2)

    def show_found(self, found: list[Found]) -> None:
        """The answers, the best first."""
        if found == self.found and self.buttons:
            return
        self.found = found
        empty(self._rows)
        self.buttons = []
        for one in found:
            button = QPushButton(one.title)
            button.setObjectName("offer")
            button.setIcon(icon(PICTURES.get(one.do, "plus") if one.do else "command"))
            button.setToolTip(one.hint or one.title)
            button.clicked.connect(lambda _on=False, one=one: self._take(one))
            button.installEventFilter(self)
            self.buttons.append(button)
            self._rows.addWidget(button)
        if not found:
            self._rows.addWidget(label("Nothing of that name. Try another word, such as boat neck or slash.", "quiet"))
        self._rows.addStretch(1)

    def enter(self) -> None:
        """The keyboard to the first answer."""
        if self.buttons:
            self.buttons[0].setFocus(Qt.FocusReason.TabFocusReason)

    def take(self, number: int, modifiers: Qt.KeyboardModifier) -> None:
        """Takes an answer as Enter does, with Shift as another variant."""
        is_other = bool(modifiers & Qt.KeyboardModifier.ShiftModifier)
        (self._take_as_variant if is_other else self._take)(self.found[number])

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Up and down go through the answers, Enter takes one, Shift+Enter as another variant."""
        if watched in self.buttons and isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            number, key = self.buttons.index(watched), Qt.Key(event.key())
            by = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(key, 0)
            if by:
                self.buttons[(number + by) % len(self.buttons)].setFocus(Qt.FocusReason.TabFocusReason)
                return True
            if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.take(number, event.modifiers())
                return True
        return super().eventFilter(watched, event)
