"""The user's own pieces of recipes, in the drawer."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QToolButton, QVBoxLayout, QWidget

from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import empty
from zesty_pivot.desk.recipe_pieces import RecipePieces


class OwnPieces(QWidget):
    """A row for each: a click puts it in, the bin takes it away."""

    refilled = pyqtSignal()

    def __init__(self, pieces: RecipePieces) -> None:
        super().__init__()
        self._pieces = pieces
        self.buttons: dict[str, QPushButton] = {}
        self.bins: dict[str, QToolButton] = {}
        self._rows = QVBoxLayout(self)
        self._rows.setContentsMargins(0, 0, 0, 0)
        self._rows.setSpacing(2)
        pieces.changed.connect(self.refresh)
        self.refresh()

    @property
    def count(self) -> int:
        """How many there are."""
        return len(self.buttons)

    @contained("the own pieces")
    def refresh(self) -> None:
        """Shows the pieces that were kept."""
        empty(self._rows)
        self.buttons, self.bins = {}, {}
        for path, piece in self._pieces.all.items():
            row = QWidget()
            inside = QHBoxLayout(row)
            inside.setContentsMargins(0, 0, 0, 0)
            inside.setSpacing(2)
            button = QPushButton(piece.name.replace("&", "&&"))
            button.setObjectName("offer")
            button.setToolTip(f"{piece.name}: {'; '.join(step.said() for step in piece.steps)}")
            button.clicked.connect(lambda _on=False, piece=piece: self._pieces.put_in(piece))
            gone = QToolButton()
            gone.setIcon(icon("trash-2"))
            gone.setAccessibleName(f"Take {piece.name} away")
            gone.setToolTip(f"Take {piece.name} away")
            gone.clicked.connect(lambda _on=False, path=path: self._forget(path))
            inside.addWidget(button, 1)
            inside.addWidget(gone)
            self.buttons[piece.name], self.bins[piece.name] = button, gone
            self._rows.addWidget(row)
        self._rows.addStretch(1)
        self.refilled.emit()

    def _forget(self, path: Path) -> None:
        self._pieces.forget(path)
