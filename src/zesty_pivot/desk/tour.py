"""The first-run walk through the ring: a few bubbles beside what they speak of."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout

from zesty_pivot.core.record import record
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.table.style_table import StyleTable

WIDTH = 292
NAMES = 130  # px that the stations' names need beside the ring


@record
class Stop:
    """One bubble: what it says, and what goes on by itself (`moved`: once a dart has been moved)."""

    title: str
    text: str
    waits: str = ""


STOPS = (
    Stop(
        "The pivot ring",
        "The ring lies round the bust point. Every wedge on it is a dart, as wide as its angle; the names round it are the "
        "places where a dart can open.",
    ),
    Stop(
        "Move a dart",
        "Take a wedge with the mouse and drag it round the ring, to the mid armhole for instance. The pattern opens there "
        "while you drag. By keyboard: Enter picks it up, left and right carry it, Enter puts it down.",
        "moved",
    ),
    Stop(
        "Leave some behind",
        "Hold Shift while you drag and half of the dart stays; the wheel, or up and down, changes how much. The figure stands "
        "in the step's fields, where you can also type it.",
    ),
    Stop(
        "Nothing is lost",
        "The figure in the middle is the account: what the block holds at this pivot, and whether all of it is placed. Ctrl+Z "
        "takes every step back.",
    ),
    Stop(
        "What will not sew",
        "Findings at the right say what would not sew together, with value and limit. Where a step can mend it there is a "
        "button. When all is well, Paper prints the sheet.",
    ),
)


class Tour(QFrame):
    """Shows one stop after the other over the table."""

    ended = pyqtSignal()

    def __init__(self, table: StyleTable, model: DeskModel) -> None:
        super().__init__(table)
        self.setObjectName("tour")
        self._table, self._model = table, model
        self.at = -1
        self._before = model.style
        self.title, self.text, self.count = label("", "heading"), label(""), label("", "quiet", wraps=False)
        self.next, self.leave = QPushButton("Next"), QPushButton("Leave")
        self.next.setObjectName("primary")
        row = QHBoxLayout()
        row.addWidget(self.count)
        row.addStretch(1)
        row.addWidget(self.leave)
        row.addWidget(self.next)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 14, 12)
        layout.setSpacing(6)
        layout.addWidget(self.title)
        layout.addWidget(self.text)
        layout.addLayout(row)
        self.setFixedWidth(WIDTH)
        self.next.clicked.connect(self.go_on)
        self.leave.clicked.connect(self.end)
        model.document_changed.connect(self._follow)
        self.hide()

    def begin(self) -> None:
        """From the first stop."""
        self.at = -1
        self.go_on()
        self.show()
        self.raise_()

    def go_on(self) -> None:
        """The next stop, or the end."""
        self.at += 1
        if self.at >= len(STOPS):
            self.end()
            return
        stop = STOPS[self.at]
        self._before = self._model.style
        self.title.setText(stop.title)
        self.text.setText(stop.text)
        self.count.setText(f"{self.at + 1} of {len(STOPS)}")
        self.next.setText("Done" if self.at == len(STOPS) - 1 else "Skip" if stop.waits else "Next")
        self._place()

    def _follow(self) -> None:
        waits = self.isVisible() and 0 <= self.at < len(STOPS) and STOPS[self.at].waits == "moved"
        if waits and self._model.style.steps != self._before.steps:
            self.go_on()

    def _place(self) -> None:
        """Beside the ring where there is room, else in the corner of the table."""
        self.setFixedHeight(self.sizeHint().height() if self.heightForWidth(WIDTH) < 0 else self.heightForWidth(WIDTH))
        table, pin = self._table, self._table.pin()
        x, y = RULER + 12, RULER + 12
        if pin is not None:
            y = round(min(max(pin.y() - self.height() / 2, RULER + 12), table.height() - self.height() - 12))
            outer = table.ring_size().outer
            for room in (outer + NAMES, outer + 16):  # beside the stations' names; on a small table over them
                right, left = pin.x() + room, pin.x() - room - WIDTH
                if right + WIDTH < table.width() or left > RULER:
                    x = round(right if right + WIDTH < table.width() else left)
                    break
        self.move(QPoint(x, y))

    def end(self) -> None:
        """Takes the bubbles away."""
        self.at = len(STOPS)
        self.hide()
        self._table.setFocus()
        self.ended.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.end()
        else:
            super().keyPressEvent(event)
