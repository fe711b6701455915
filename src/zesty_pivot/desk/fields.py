"""Fields that calculate: what was typed stays, its value or its fault stands below."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QLabel, QLineEdit, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError


class CalcField(QWidget):
    """A line edit with its worth below. `worth` turns the text into words, or raises a ZestyError.

    `committed` carries text that can be read, when the user is done with it and it has changed.
    """

    committed = pyqtSignal(str)

    def __init__(self, worth: Callable[[str], str], name: str, *, may_be_empty: bool = False) -> None:
        super().__init__()
        self._worth = worth
        self._may_be_empty = may_be_empty
        self._shown = ""
        self.edit = QLineEdit()
        self.edit.setAccessibleName(name)
        self.note = QLabel()
        self.note.setObjectName("quiet")
        self.note.setWordWrap(True)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2)
        layout.addWidget(self.edit)
        layout.addWidget(self.note)
        self.edit.textChanged.connect(self._check)
        self.edit.editingFinished.connect(self._commit)

    def set_text(self, text: str) -> None:
        """Shows a text from the model; it is not committed back. Text that is being typed is left alone."""
        self._shown = text
        if self.edit.text() != text and not (self.edit.hasFocus() and self.edit.isModified()):
            self.edit.blockSignals(True)
            self.edit.setText(text)
            self.edit.blockSignals(False)
        self._check()

    def fault(self) -> str:
        """What is wrong with the text, or nothing."""
        text = self.edit.text().strip()
        if not text and self._may_be_empty:
            return ""
        try:
            self._worth(text)
        except ZestyError as fault:
            return str(fault)
        return ""

    def _check(self) -> None:
        text, fault = self.edit.text().strip(), self.fault()
        self.note.setObjectName("fault" if fault else "quiet")
        self.note.setText(fault or (self._worth(text) if text else ""))
        self.note.setVisible(bool(self.note.text()))
        self.edit.setProperty("fault", bool(fault))
        for widget in (self.edit, self.note):
            style = widget.style()
            if style is not None:
                style.unpolish(widget)
                style.polish(widget)

    def _commit(self) -> None:
        text = self.edit.text().strip()
        if text != self._shown and not self.fault():
            self._shown = text
            self.edit.setModified(False)
            self.committed.emit(text)
