"""The history as a list: what was done in words and pictures, and the way back to any of it."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt, QTimer
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QDialog, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.thumbs import thumbnail

PICTURE = QSize(104, 54)
MOST = 200  # entries that are listed, the latest


class UndoList(QDialog):
    """The latest on top, what was taken back above the present; Enter or a double click goes there."""

    def __init__(self, model: DeskModel, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("What was done")
        self.resize(460, 560)
        self._model, self._evaluator = model, Evaluator()
        self.list = QListWidget()
        self.list.setIconSize(PICTURE)
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setAccessibleName("What was done, the latest first")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(14, 14, 14, 12)
        layout.addWidget(label("The style after each of these. Enter goes there; nothing is lost.", "quiet"))
        layout.addWidget(self.list)
        history = model.history
        self._entries = list(range(len(history.values)))[-MOST:][::-1]
        for number in self._entries:
            title = capital(history.titles[number]) or "As it was opened"
            item = QListWidgetItem(f"{title}\n{'now' if number == history.at else 'taken back' if number > history.at else ''}")
            if number > history.at:
                item.setForeground(self.palette().placeholderText())
            self.list.addItem(item)
        self.list.setCurrentRow(self._entries.index(history.at) if history.at in self._entries else 0)
        self.list.itemActivated.connect(lambda _item: self.go())
        self._waiting = list(range(len(self._entries)))
        self._later = QTimer(self)
        self._later.setInterval(0)
        self._later.timeout.connect(self._next)
        self._later.start()

    def go(self) -> None:
        """The style as it was after the chosen entry."""
        number = self._entries[self.list.currentRow()]
        self.accept()
        self._model.travel_to(number)

    @contained("a picture of what was done")
    def _next(self) -> None:
        if not self._waiting:
            self._later.stop()
            return
        row = self._waiting.pop(0)
        item = self.list.item(row)
        derived = derive(self._model.history.values[self._entries[row]], self._evaluator)
        picture = thumbnail(
            derived.pattern, derived.derivation.block, PICTURE, self.devicePixelRatioF(), derived.style.table.left
        )
        if item is not None:
            item.setIcon(QIcon(picture))

    def finish(self) -> None:
        """Makes the pictures that are still waiting at once."""
        while self._waiting:
            self._next()

    def sizeHint(self) -> QSize:
        return QSize(460, 560)
