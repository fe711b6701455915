"""A field of the ruler's sheet: small, one of many; what cannot be read stays and is marked."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent
from PyQt6.QtWidgets import QLineEdit

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.desk.labels import repolish

WIDE = 66


class RulerField(QLineEdit):
    """Says what was typed when Enter is pressed or it is left; Enter goes on to the next field, Escape gives up."""

    entered = pyqtSignal()

    def __init__(self, name: str, say: Callable[[str], None], tip: str = "") -> None:
        """`say` takes the text, or raises a ZestyError."""
        super().__init__()
        self.setAccessibleName(name)
        self.setFixedWidth(WIDE)
        self.setObjectName("cell")
        self._say, self._tip, self._shown = say, tip or name, ""
        self.fault = ""
        self.setToolTip(self._tip)
        self.editingFinished.connect(self._commit)

    def show_text(self, text: str) -> None:
        """What is so; text that cannot be read yet stays as it was typed."""
        if text != self._shown or not self.fault:
            self._shown = text
            self._mark("")
            if self.text() != text:
                self.setText(text)

    def _commit(self) -> None:
        text = self.text().strip()
        if text == self._shown:
            self._mark("")
            return
        try:
            self._say(text)
        except ZestyError as fault:
            self._mark(str(fault))
        else:
            self._shown = text
            self._mark("")

    def _mark(self, fault: str) -> None:
        if fault != self.fault:
            self.fault = fault
            self.setProperty("fault", bool(fault))
            self.setToolTip(fault or self._tip)
            repolish(self)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.setText(self._shown)
            self._mark("")
            return
        super().keyPressEvent(event)
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not self.fault:
            self.focusNextChild()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        self.entered.emit()
