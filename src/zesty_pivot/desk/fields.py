"""Fields that calculate: what was typed stays, its value or its fault stands below."""

from __future__ import annotations

import re
from collections.abc import Callable, Hashable, Mapping

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLabel, QLineEdit, QMenu, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import repolish
from zesty_pivot.desk.theme import NOW

Known = Callable[[], Mapping[str, Mapping[str, str]]]  # names that can be picked, by heading, with what each is worth


class CalcField(QWidget):
    """A line edit with its worth below. `worth` turns the text into words, or raises a ZestyError.

    `committed` carries text that can be read, when the user is done with it and it has changed. Text that cannot be read
    stays as it was typed, also while something else is looked at; Escape gives it up.
    """

    committed = pyqtSignal(str)

    def __init__(
        self, worth: Callable[[str], str], name: str, *, may_be_empty: bool = False, known: Known | None = None
    ) -> None:  # fmt: skip
        """`known` gives the names that a formula may use here, each with what it is worth in words: they can be picked."""
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
        self._known = known
        if known is not None:
            pick = self.edit.addAction(icon("formula", NOW.quiet), QLineEdit.ActionPosition.TrailingPosition)
            if pick is not None:
                pick.setToolTip("Pick a measurement or a tape for a formula (Alt+Down)")
                pick.triggered.connect(self.pick_name)
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
        """Escape gives up what was typed; Enter on what cannot be read goes to the place; Alt+Down picks a name."""
        if not isinstance(event, QKeyEvent) or event.type() != QEvent.Type.KeyPress:
            return super().eventFilter(watched, event)
        key, alt = Qt.Key(event.key()), bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        if key == Qt.Key.Key_Escape and self.edit.isModified():
            self.give_up()
            return True
        if key == Qt.Key.Key_Down and alt and self._known is not None:
            self.pick_name()
            return True
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.fault():
            self._show_fault_place()
        return super().eventFilter(watched, event)

    def names_menu(self) -> QMenu:
        """The names that a formula may use here, with what each is worth."""
        menu = QMenu(self)
        for heading, names in (self._known() if self._known is not None else {}).items():
            menu.addSection(heading)
            for name, worth in names.items():
                found = menu.addAction(f"{name}\t{worth}")
                if found is not None:
                    found.triggered.connect(lambda _on=False, name=name: self.put_name(name))
        menu.aboutToHide.connect(menu.deleteLater)
        return menu

    def pick_name(self) -> None:
        """Opens the list of names under the field."""
        self.names_menu().popup(self.edit.mapToGlobal(self.edit.rect().bottomLeft()))

    def put_name(self, name: str) -> None:
        """Puts a name where the cursor is, or in the place of what is selected; the hand goes on writing."""
        text, at = self.edit.text(), self.edit.selectionStart()
        at = self.edit.cursorPosition() if at < 0 else at
        before = text[:at].rstrip()
        joins = "" if not before or before[-1] in "+-*/(×÷" else " + "
        self.edit.insert(f"{joins}{name}")
        self.edit.setModified(True)
        self.edit.setFocus()

    def _show_fault_place(self) -> None:
        """Selects the part of the text that the fault names."""
        text = self.edit.text()
        named = [part for part in re.findall(r"'([^']*)'", self.fault()) if part and part != text.strip() and part in text]
        if named:
            self.edit.setSelection(text.index(named[-1]), len(named[-1]))

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
