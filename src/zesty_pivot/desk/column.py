"""A column of widgets that scrolls instead of squeezing what stands in it."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QScrollArea, QVBoxLayout, QWidget


def side(name: str) -> QWidget:
    """A side of a view, `left` or `right`, with the background of its name."""
    found = QWidget()
    found.setObjectName(name)
    found.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
    return found


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
