"""A card of what the stand tells, with a step that mends it where there is one."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QFrame, QLabel, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.stand.told import StandFinding
from zesty_pivot.desk.labels import label


class StandCard(QFrame):
    """Something that the stand tells. A click turns the figure so that its place is seen."""

    looked = pyqtSignal(object)
    mended = pyqtSignal(object)

    def __init__(self, told: StandFinding) -> None:
        super().__init__()
        self.told = told
        self.setObjectName("finding")
        self.setProperty("severity", told.finding.severity.value)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 7, 10, 8)
        column.setSpacing(4)
        text = told.finding.message
        self.words = QLabel(text[0].upper() + text[1:] + ".")
        self.words.setWordWrap(True)
        column.addWidget(self.words)
        self.setToolTip(told.finding.advice)
        self.setAccessibleName(f"{text}. {told.finding.advice}")
        self.mend: QPushButton | None = None
        if told.finding.mend is not None:
            self.mend = QPushButton(told.finding.mend.title)
            self.mend.clicked.connect(lambda _on=False, mend=told.finding.mend: self.mended.emit(mend))
            column.addWidget(self.mend)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.looked.emit(self.told)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.looked.emit(self.told)
        else:
            super().keyPressEvent(event)


class StandCards(QWidget):
    """All that it tells, one card each; they are made anew when it tells something else."""

    looked = pyqtSignal(object)  # a StandFinding
    mended = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__()
        self.cards: list[StandCard] = []
        self._shown: tuple[StandFinding, ...] | None = None
        self._nothing = label("", "quiet")
        self._rows = QVBoxLayout(self)
        self._rows.setContentsMargins(0, 0, 0, 0)
        self._rows.setSpacing(6)
        self._rows.addWidget(self._nothing)

    def show_told(self, told: tuple[StandFinding, ...], nothing: str = "") -> None:
        """What it tells; or what is said where that is nothing."""
        self._nothing.setText(nothing)
        self._nothing.setVisible(bool(nothing) and not told)
        if told == self._shown:
            return
        self._shown = told
        for card in self.cards:
            self._rows.removeWidget(card)
            card.deleteLater()
        self.cards = [StandCard(one) for one in told]
        for card in self.cards:
            card.looked.connect(self.looked)
            card.mended.connect(self.mended)
            self._rows.addWidget(card)
