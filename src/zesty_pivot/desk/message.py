"""The message beside the menus: a sentence that goes when it is no fault. It never lies over the pattern."""

from __future__ import annotations

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import QLabel, QMenuBar, QWidget

from zesty_pivot.desk.labels import repolish

SHOWN_MS = 6000  # a message that is no fault is read by then
SIDES = 28  # px of its own edges, and of what rounding may take from the words
SIZES = (0, 1)  # a long sentence is set smaller, in two lines: the style sheet says how small


class Message(QLabel):
    """Stands where the menu bar is empty, so that nothing jumps when it speaks."""

    def __init__(self, parent: QWidget, bar: QMenuBar) -> None:
        super().__init__(parent)
        self.setObjectName("message")
        self.setWordWrap(True)
        self.setIndent(0)  # a style sheet's border would else add one of its own
        self._bar, self._text = bar, ""
        self.is_whole = True  # whether all of the sentence can be read there
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self.hide)
        self.hide()

    def say(self, text: str, fault: bool) -> None:
        """Shows a sentence; a fault stays until the next."""
        self._text = text
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
        wide, lines, metrics, self.is_whole = room, 1, self.fontMetrics(), False
        for small in SIZES:
            if bool(self.property("small")) != small:
                self.setProperty("small", small)
                repolish(self)
            metrics = self.fontMetrics()
            wide = metrics.horizontalAdvance(self._text) + SIDES
            lines = max(1, (high - 2) // metrics.lineSpacing())
            self.is_whole = wide <= room * lines * (1.0 if lines == 1 else 0.9)
            if self.is_whole:
                break
        room_for = int((room - SIDES) * lines * 0.9)
        self.setText(self._text if self.is_whole else metrics.elidedText(self._text, Qt.TextElideMode.ElideRight, room_for))
        width = min(room, wide)
        self.setFixedSize(width, high)
        self.move(parent.width() - 8 - width, self._bar.y() + 1)
        self.raise_()
