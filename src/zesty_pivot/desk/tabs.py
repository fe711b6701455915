"""A row of buttons of which one is chosen, and the pages that they show."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from zesty_pivot.desk.column import Column


class Tabs(QWidget):
    """Pages under their names; each is a column that scrolls."""

    turned = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.buttons: dict[str, QPushButton] = {}
        self.pages: dict[str, Column] = {}
        self.stack = QStackedWidget()
        self._row = QHBoxLayout()
        self._row.setContentsMargins(10, 6, 10, 0)
        self._row.setSpacing(4)
        self._row.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addLayout(self._row)
        layout.addWidget(self.stack, 1)

    def add(self, id: str, title: str, tip: str = "") -> Column:
        """Another page, empty."""
        button = QPushButton(title)
        button.setObjectName("tab")
        button.setCheckable(True)
        button.setToolTip(tip or title)
        button.clicked.connect(lambda: self.turn(id))
        self._row.insertWidget(self._row.count() - 1, button)
        page = Column()
        page.rows.setSpacing(4)
        self.stack.addWidget(page.scrolled())
        self.buttons[id], self.pages[id] = button, page
        if len(self.pages) == 1:
            self.turn(id)
        return page

    @property
    def shown(self) -> str:
        """The page that is seen."""
        return list(self.pages)[self.stack.currentIndex()]

    def turn(self, id: str) -> None:
        """Shows a page."""
        self.stack.setCurrentIndex(list(self.pages).index(id))
        for other, button in self.buttons.items():
            button.setChecked(other == id)
        self.turned.emit(id)


def station_row(stations: Mapping[str, str], turn: Callable[[str], object]) -> tuple[QHBoxLayout, dict[str, QPushButton]]:
    """A row of buttons over the stations of a view, by their ids."""
    row, buttons = QHBoxLayout(), dict[str, QPushButton]()
    row.setContentsMargins(12, 6, 12, 4)
    row.setSpacing(4)
    for id, title in stations.items():
        button = QPushButton(title)
        button.setObjectName("tab")
        button.setCheckable(True)
        button.clicked.connect(lambda _on=False, id=id: turn(id))
        buttons[id] = button
        row.addWidget(button)
    row.addStretch(1)
    return row, buttons
