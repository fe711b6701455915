"""The header: where we are, the views in the order of the work, and the hand-most actions."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QToolButton, QWidget

from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import VIEWS, DeskModel

BUTTONS = (
    "file.start",
    "file.open",
    "file.save",
    "edit.undo",
    "edit.redo",
    "step.duplicate",
    "step.off",
    "step.earlier",
    "step.later",
    "step.remove",
    "view.fit",
)


ROOMY = 1180  # px; a narrower window leaves out the block's name


class Header(QWidget):
    """One row above the views."""

    _is_made = False

    def __init__(self, model: DeskModel, action: Callable[[str], QAction]) -> None:
        super().__init__()
        self.setObjectName("header")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._model = model
        self.crumb, self.title = QLabel(), QLabel()
        self.crumb.setObjectName("crumb")
        self.title.setObjectName("title")
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 4, 12, 0)
        row.setSpacing(5)
        row.addWidget(self.crumb)
        row.addWidget(self.title)
        row.addSpacing(18)
        self._of_steps: list[
            QToolButton
        ] = []  # there is no room for them where the window is narrow; cards and menus have them
        for id in BUTTONS:
            button = QToolButton()
            button.setDefaultAction(action(id))
            button.setIconSize(QSize(18, 18))
            button.setAccessibleName(action(id).toolTip())
            row.addWidget(button)
            if id.startswith("step."):
                self._of_steps.append(button)
        row.addStretch(1)
        self.tabs: dict[str, QPushButton] = {}
        for view in VIEWS:
            tab = QPushButton(view.capitalize())
            tab.setObjectName("tab")
            tab.setCheckable(True)
            tab.setToolTip(action(f"view.{view}").toolTip())
            tab.clicked.connect(action(f"view.{view}").trigger)
            self.tabs[view] = tab
            row.addWidget(tab)
        self._name_room = 260
        self._is_roomy = True
        model.pace.followed.connect(self.refresh)
        model.view_changed.connect(self.refresh)
        self._is_made = True
        self.refresh()

    def changeEvent(self, event: QEvent | None) -> None:
        """The names are measured anew when the style sheet gives them another type."""
        super().changeEvent(event)
        if event is not None and event.type() == QEvent.Type.StyleChange and self._is_made:
            self.refresh()

    def fit_width(self, width: int) -> None:
        """Less of the names where the window is narrow; tooltips and the window's title have them whole."""
        self.crumb.setVisible(width >= ROOMY)
        self._is_roomy = width >= ROOMY
        self._show_step_buttons()
        room = 260 if width >= ROOMY else 84
        if room != self._name_room:
            self._name_room = room
            self.refresh()

    def _show_step_buttons(self) -> None:
        for button in self._of_steps:
            button.setVisible(self._is_roomy and self._model.view not in ("measure", "block"))

    @contained("the header")
    def refresh(self) -> None:
        """Shows the model."""
        block, name = self._model.style.block.name, self._model.style.name
        metrics = self.crumb.fontMetrics()
        self.crumb.setText(metrics.elidedText(block.partition(",")[0], Qt.TextElideMode.ElideRight, 190) + "  ›")
        self.crumb.setToolTip(f"The block: {block}")
        shown = self.title.fontMetrics().elidedText(name, Qt.TextElideMode.ElideRight, self._name_room)
        self.title.setText(f"{shown}{' *' if self._model.file.is_dirty else ''}")
        self.title.setToolTip(name)
        for view, tab in self.tabs.items():
            tab.setChecked(view == self._model.view)
        self._show_step_buttons()
