"""The message over the foot of the view: a sentence that fades when it is no fault."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QLabel, QWidget

from zesty_pivot.desk.labels import repolish
from zesty_pivot.desk.table.canvas import Canvas

SHOWN_MS = 6000  # a message that is no fault is read by then


class Message(QLabel):
    """Lies over the canvas, so that nothing jumps when it speaks."""

    def __init__(self, parent: QWidget, canvas: Callable[[], Canvas]) -> None:
        super().__init__(parent)
        self.setObjectName("message")
        self.setWordWrap(True)
        self._canvas = canvas
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self.hide)
        self.hide()

    def say(self, text: str, fault: bool) -> None:
        """Shows a sentence; a fault stays until the next."""
        self.setText(text)
        self.setProperty("fault", fault)
        repolish(self)
        self.setVisible(bool(text))
        self.place()
        self._quiet.stop()
        if not fault:
            self._quiet.start(SHOWN_MS)

    def place(self) -> None:
        """At the foot of the canvas, in the middle."""
        parent = self.parentWidget()
        if parent is None:
            return
        canvas = self._canvas()
        over: QWidget = canvas if canvas.isVisibleTo(parent) else parent
        text = self.fontMetrics().horizontalAdvance(self.text()) + 40
        width = max(200, min(over.width() - 50, text))
        self.setFixedSize(width, max(30, self.heightForWidth(width)))
        corner = over.mapTo(parent, over.rect().bottomLeft())
        self.move(corner.x() + (over.width() - width) // 2, corner.y() - self.height() - 10)
        self.raise_()
