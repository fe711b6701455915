"""One row of the measurement chart: the title, the field that calculates, and what it comes to beside it."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QSizePolicy, QWidget

from zesty_pivot.core.measure import Measurement
from zesty_pivot.desk.labels import label, repolish

TITLE_WIDTH, FIELD_WIDTH = 166, 112


class MeasureRow(QWidget):
    """Carries what is typed when Enter is pressed or the row is left; Enter goes on to the next row, Escape gives up."""

    committed = pyqtSignal(str, str)  # the measurement's name, the text
    entered = pyqtSignal(str)  # the row has the keyboard
    done = pyqtSignal(str)  # Enter was pressed

    def __init__(self, measurement: Measurement) -> None:
        super().__init__()
        self.name = measurement.name
        self.title = label(measurement.short.capitalize(), wraps=False)
        self.title.setToolTip(f"{measurement.title}. {measurement.tape}")
        self.title.setFixedWidth(TITLE_WIDTH)
        self.edit = QLineEdit()
        self.edit.setFixedWidth(FIELD_WIDTH)
        self.edit.setAccessibleName(measurement.title)
        self._tape = measurement.tape
        self.note = QLabel()
        self.note.setObjectName("quiet")
        self.note.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)  # its tooltip has the words whole
        self._shown = ""
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(self.title)
        row.addWidget(self.edit)
        row.addWidget(self.note, 1)
        self.edit.installEventFilter(self)
        self.edit.editingFinished.connect(self._commit)
        self.edit.returnPressed.connect(lambda: self.done.emit(self.name))

    def fit(self, *, is_narrow: bool) -> None:
        """Without the words beside the field where the window is narrow: its tooltip has them."""
        self.note.setVisible(not is_narrow)

    def show_body(self, text: str, note: str, kind: str, placeholder: str = "") -> None:
        """Shows what was written and the words beside it, in the look of `kind`: quiet, fault or warning."""
        self._shown = text
        if not (self.edit.hasFocus() and self.edit.isModified()) and self.edit.text() != text:
            self.edit.setText(text)
        self.edit.setPlaceholderText(placeholder)
        self.edit.setProperty("fault", kind == "fault")
        self.note.setText(note)
        self.note.setToolTip(note)
        self.edit.setToolTip(f"{self._tape} {note}".strip())
        if self.note.objectName() != kind:
            self.note.setObjectName(kind)
            repolish(self.note, self.edit)

    def _commit(self) -> None:
        text = self.edit.text().strip()
        self.edit.setModified(False)
        if text != self._shown:
            self.committed.emit(self.name, text)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Tells when the row is entered; Escape gives up what was typed."""
        if event is not None and event.type() == QEvent.Type.FocusIn:
            self.entered.emit(self.name)
        is_key = isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress
        if is_key and isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape and self.edit.isModified():
            self.edit.setText(self._shown)
            self.edit.setModified(False)
            return True
        return super().eventFilter(watched, event)
