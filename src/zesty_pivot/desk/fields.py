"""Fields that calculate: what was typed stays, its value or its fault stands below."""

from __future__ import annotations

from collections.abc import Callable, Hashable

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLabel, QLineEdit, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.desk.labels import repolish


class CalcField(QWidget):
    """A line edit with its worth below. `worth` turns the text into words, or raises a ZestyError.

    `committed` carries text that can be read, when the user is done with it and it has changed. Text that cannot be read
    stays as it was typed, also while something else is looked at; Escape gives it up.
    """

    committed = pyqtSignal(str)

    def __init__(self, worth: Callable[[str], str], name: str, *, may_be_empty: bool = False) -> None:
        super().__init__()
        self._worth = worth
        self._may_be_empty = may_be_empty
        self._shown = ""
        self._owner: Hashable = None
        self._drafts: dict[Hashable, str] = {}  # what was typed and cannot be read yet, by what it belongs to
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
        self.edit.installEventFilter(self)
        self.edit.textChanged.connect(self._check)
        self.edit.editingFinished.connect(self._commit)

    def set_text(self, text: str, owner: Hashable = None) -> None:
        """Shows a text from the model; it is not committed back. `owner` is what the text belongs to (a step, a document).

        Text that is being typed for the same owner is left alone, and so is text that cannot be read yet.
        """
        typed = self.edit.text() if self.edit.isModified() else None
        if owner != self._owner:
            self._keep_draft()
            self._owner, typed = owner, self._drafts.get(owner)
        self._shown = text
        is_kept = typed is not None and (self.edit.hasFocus() or self._faulty(typed))
        wanted = typed if is_kept and typed is not None else text
        if self.edit.text() != wanted:
            self.edit.blockSignals(True)
            self.edit.setText(wanted)
            self.edit.blockSignals(False)
        self.edit.setModified(is_kept)
        self._check()

    def _keep_draft(self) -> None:
        """Remembers what cannot be read, for when its owner is looked at again."""
        typed = self.edit.text()
        if self.edit.isModified() and self._faulty(typed):
            self._drafts[self._owner] = typed
        else:
            self._drafts.pop(self._owner, None)

    def give_up(self) -> None:
        """Shows the model's text again, whatever was typed."""
        self._drafts.pop(self._owner, None)
        self.edit.setModified(False)
        self.set_text(self._shown, self._owner)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Escape gives up what was typed."""
        is_key = isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress
        if is_key and isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape and self.edit.isModified():
            self.give_up()
            return True
        return super().eventFilter(watched, event)

    def fault(self) -> str:
        """What is wrong with the text, or nothing."""
        return self._fault_of(self.edit.text().strip())

    def _fault_of(self, text: str) -> str:
        if not text and self._may_be_empty:
            return ""
        try:
            self._worth(text)
        except ZestyError as fault:
            return str(fault)
        return ""

    def _faulty(self, text: str) -> bool:
        return bool(self._fault_of(text.strip()))

    def _check(self) -> None:
        text, fault = self.edit.text().strip(), self.fault()
        self.note.setObjectName("fault" if fault else "quiet")
        self.note.setText(fault or (self._worth(text) if text else ""))
        self.note.setVisible(bool(self.note.text()))
        self.edit.setProperty("fault", bool(fault))
        repolish(self.edit, self.note)

    def _commit(self) -> None:
        text = self.edit.text().strip()
        if text != self._shown and not self.fault():
            self._shown = text
            self.edit.setModified(False)
            self._drafts.pop(self._owner, None)
            self.committed.emit(text)
