"""The variants of a style as tabs over the recipe; there only where a style has some."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QScrollArea, QWidget

from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import empty
from zesty_pivot.desk.model import DeskModel

HIGH = 30  # px
LONGEST = 200  # px of a name
MENU = ("variant.rename", "variant.sheet", "variant.trace", "variant.remove")


class VariantBar(QWidget):
    """A tab for each variant."""

    def __init__(self, model: DeskModel, menu: Callable[[tuple[str, ...]], QMenu]) -> None:
        super().__init__()
        self._model, self._menu = model, menu
        self.tabs: dict[str, QPushButton] = {}
        inside = QWidget()
        inside.setObjectName("strip")
        self._row = QHBoxLayout(inside)
        self._row.setContentsMargins(12, 3, 12, 0)
        self._row.setSpacing(2)
        self._area = QScrollArea()
        self._area.setWidget(inside)
        self._area.setWidgetResizable(True)
        self._area.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self._area)
        self.setFixedHeight(HIGH)

    @contained("the variants")
    def refresh(self) -> None:
        """Shows the model."""
        names = [one.name for one in self._model.variants.all]
        if names != list(self.tabs):
            empty(self._row)
            self.tabs = {name: self._tab(name) for name in names}
            for tab in self.tabs.values():
                self._row.addWidget(tab)
            self._row.addStretch(1)
        for name, tab in self.tabs.items():
            tab.setChecked(name == self._model.variants.shown)
            if tab.isChecked():
                self._area.ensureWidgetVisible(tab)

    def _tab(self, name: str) -> QPushButton:
        tab = QPushButton()
        tab.setObjectName("variant")
        tab.setText(tab.fontMetrics().elidedText(name, Qt.TextElideMode.ElideRight, LONGEST).replace("&", "&&"))
        tab.setAccessibleName(f"Variant: {name}")
        tab.setToolTip(f"{name}\nClick to put it on the table; right-click for its name, a sheet of all, tracing paper")
        tab.setCheckable(True)
        tab.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        tab.clicked.connect(lambda _on=False: self._show(name))
        tab.customContextMenuRequested.connect(lambda at: self._ask(name, tab.mapToGlobal(at)))
        return tab

    def _show(self, name: str) -> None:
        self._model.variants.show(name)
        self.refresh()

    def _ask(self, name: str, at: QPoint) -> None:
        self._model.variants.show(name)
        self._menu(MENU).popup(at)
