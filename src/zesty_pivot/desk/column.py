"""A column of widgets that scrolls instead of squeezing what stands in it."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget


def side(name: str) -> QWidget:
    """A side of a view, `left` or `right`, with the background of its name."""
    found = QWidget()
    found.setObjectName(name)
    found.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
    return found


def abreast(view: QWidget, *parts: QWidget, widest: int) -> None:
    """Fills a view with parts side by side; the one of that number takes all the room that the others leave."""
    row = QHBoxLayout(view)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(0)
    for number, part in enumerate(parts):
        row.addWidget(part, int(number == widest))


class Column(QWidget):
    """Keeps itself as tall as its wrapped text needs; a scroll area by itself would squeeze wrapped labels."""

    def __init__(self) -> None:
        super().__init__()
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(16, 14, 14, 14)

    def event(self, event: QEvent | None) -> bool:
        done = super().event(event)
        if event is not None and event.type() == QEvent.Type.LayoutRequest:
            self._keep_height()
        return done

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._keep_height()

    def _keep_height(self) -> None:
        wanted = self.rows.totalHeightForWidth(self.width()) if self.rows.hasHeightForWidth() else self.rows.sizeHint().height()
        if wanted != self.minimumHeight():
            self.setMinimumHeight(wanted)

    def scrolled(self) -> QScrollArea:
        """The column in a scroll area that only scrolls up and down."""
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setWidget(self)
        return area


class SideColumn(QWidget):
    """A side of a view: rows that scroll, and buttons that stay at its foot."""

    def __init__(self, name: str, spacing: int = 5) -> None:
        """`name` is `left` or `right`; `spacing` stands between the rows, px."""
        super().__init__()
        self.setObjectName(name)
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        around = QVBoxLayout(self)
        around.setContentsMargins(0, 0, 0, 0)
        inside = Column()
        self.rows, self.foot = QVBoxLayout(), QVBoxLayout()
        self.rows.setSpacing(spacing)
        inside.rows.addLayout(self.rows)
        inside.rows.addStretch(1)
        around.addWidget(inside.scrolled(), 1)
        self.foot.setContentsMargins(14, 6, 14, 10)
        self.foot.setSpacing(4)
        around.addLayout(self.foot)

    def ask(
        self, asked: Iterable[tuple[str, str]], run: Callable[[str], None], tip: Callable[[str], str] | None = None
    ) -> dict[str, QPushButton]:
        """Buttons for actions, by id, at the foot: each an action and what it says here. The first is the one that leads on."""
        found: dict[str, QPushButton] = {}
        for id, text in asked:
            button = asking(id, text, run, tip)
            if not found:
                button.setObjectName("primary")
            found[id] = button
            self.foot.addWidget(button)
        return found


def asking(id: str, text: str, run: Callable[[str], None], tip: Callable[[str], str] | None = None) -> QPushButton:
    """A button for an action."""
    button = QPushButton(text)
    button.clicked.connect(lambda _checked=False: run(id))
    if tip is not None:
        button.setToolTip(tip(id))
    return button
