"""The doors of the drawer, two in a row, with the steps that were added last above them."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QToolButton, QVBoxLayout, QWidget

from zesty_pivot.core.steps.registry import headings
from zesty_pivot.desk.drawer.doors import DOORS, Door
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import empty
from zesty_pivot.desk.step_pictures import PICTURES


class DoorPage(QWidget):
    """The doors, two in a row, with the steps that were added last above them."""

    def __init__(self, enter: Callable[[str], None], add: Callable[[str], None]) -> None:
        super().__init__()
        self.setObjectName("left")
        self._add = add
        self.buttons: dict[str, QToolButton] = {}
        self.recent: list[QToolButton] = []
        self._last = QHBoxLayout()
        self._last.setSpacing(4)
        self._grid = QGridLayout()
        self._grid.setSpacing(6)
        for door in DOORS:
            self.buttons[door.id] = self._door(door, enter)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        column.addLayout(self._last)
        column.addLayout(self._grid)
        self.own = QPushButton()
        self.own.setObjectName("offer")
        self.own.setIcon(icon("save"))
        self._own_count = 0
        column.addWidget(self.own)
        column.addStretch(1)
        self._slim: bool | None = None
        self.set_slim(False)

    def _door(self, door: Door, enter: Callable[[str], None]) -> QToolButton:
        button = QToolButton()
        button.setObjectName("door")
        button.setText(door.title.replace(" and ", " and\n"))
        button.setAccessibleName(door.title)
        button.setIcon(icon(door.picture))
        button.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        button.setToolTip(f"{door.title}: {', '.join(headings()[do].title.lower() for do in door.steps)}")
        button.clicked.connect(lambda _on=False: enter(door.id))
        return button

    def show_recent(self, last: tuple[str, ...]) -> None:
        """The steps that were added last."""
        empty(self._last)
        self.recent = []
        for do in [do for do in last if do in headings()]:
            button = QToolButton()
            button.setObjectName("recent")
            button.setIcon(icon(PICTURES.get(do, "plus")))
            button.setIconSize(QSize(18, 18))
            button.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
            button.setAccessibleName(f"{headings()[do].title}, used before")
            button.setToolTip(f"{headings()[do].title}: used before")
            button.clicked.connect(lambda _on=False, do=do: self._add(do))
            button.setVisible(not self._slim)
            self.recent.append(button)
            self._last.addWidget(button)
        self._last.addStretch(1)

    def show_own(self, count: int) -> None:
        """The door of the user's own pieces."""
        self._own_count = count
        self.own.setText(f"Own pieces  {count}")
        self.own.setVisible(bool(count) and not self._slim)

    def set_slim(self, slim: bool) -> None:
        """The doors as pictures in one column, or with their titles in two."""
        if slim == self._slim:
            return
        self._slim = slim
        for number, button in enumerate(self.buttons.values()):
            beside = Qt.ToolButtonStyle.ToolButtonIconOnly if slim else Qt.ToolButtonStyle.ToolButtonTextUnderIcon
            button.setToolButtonStyle(beside)
            button.setIconSize(QSize(22, 22) if slim else QSize(40, 40))
            button.setFixedSize(QSize(38, 34) if slim else QSize(96, 92))
            self._grid.addWidget(button, *((number, 0) if slim else divmod(number, 2)))
        for button in self.recent:
            button.setVisible(not slim)
        self.own.setVisible(bool(self._own_count) and not slim)
