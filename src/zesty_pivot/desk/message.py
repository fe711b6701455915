"""The message beside the menus: a sentence that goes when it is no fault. It never lies over the pattern."""

from __future__ import annotations

from PyQt6.QtCore import QTimer
from PyQt6.QtGui import QFontMetrics
from PyQt6.QtWidgets import QLabel, QMenuBar, QWidget

from zesty_pivot.desk.labels import repolish
from zesty_pivot.desk.theme import text_font

SHOWN_MS = 6000  # a message that is no fault is read by then
SIDES = 24  # px of its own edges
SIZES = (9.5, 8.5, 7.5)  # points: a long sentence is set smaller, in two lines


class Message(QLabel):
    """Stands where the menu bar is empty, so that nothing jumps when it speaks."""

    def __init__(self, parent: QWidget, bar: QMenuBar) -> None:
        super().__init__(parent)
        self.setObjectName("message")
        self.setWordWrap(True)
        self._bar = bar
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self.hide)
        self.hide()

    def say(self, text: str, fault: bool) -> None:
        """Shows a sentence; a fault stays until the next."""
        self.setText(text)
        self.setToolTip(text)
        self.setProperty("fault", fault)
        repolish(self)
        self.setVisible(bool(text))
        self.place()
        self._quiet.stop()
        if not fault:
            self._quiet.start(SHOWN_MS)

    def place(self) -> None:
        """At the right of the menus, as wide as its words need."""
        parent, actions = self.parentWidget(), self._bar.actions()
        if parent is None:
            return
        left = self._bar.actionGeometry(actions[-1]).right() + 14 if actions else 14
        room, high = max(parent.width() - left - 8, 60), self._bar.height() - 2
        for size in SIZES:
            font = text_font(size)
            metrics = QFontMetrics(font)
            wide = metrics.horizontalAdvance(self.text()) + SIDES
            lines = max(1, (high - 2) // metrics.lineSpacing())
            if wide <= room * lines * (1.0 if lines == 1 else 0.92):
                break
        self.setFont(font)
        width = min(room, wide)
        self.setFixedSize(width, high)
        self.move(parent.width() - 8 - width, self._bar.y() + 1)
        self.raise_()
