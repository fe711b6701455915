"""Labels with an object name for the style sheet, and grids of figures."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QBoxLayout, QGridLayout, QLabel, QLayout, QWidget


def label(text: str, name: str = "", *, wraps: bool = True) -> QLabel:
    """A label with an object name for the style sheet."""
    found = QLabel(text)
    found.setObjectName(name)
    found.setWordWrap(wraps)
    return found


def titled(rows: QBoxLayout, title: str, widget: QWidget) -> QLabel:
    """Adds a widget below its quiet title."""
    name = label(title, "quiet")
    name.setBuddy(widget)
    rows.addWidget(name)
    rows.addWidget(widget)
    return name


def repolish(*widgets: QWidget) -> None:
    """The style sheet is looked at again, after another object name or property. One that was never shown does so anyway."""
    for widget in widgets:
        is_polished = widget.testAttribute(Qt.WidgetAttribute.WA_WState_Polished)
        if is_polished and (style := widget.style()) is not None:
            style.unpolish(widget)
            style.polish(widget)


def empty(layout: QLayout) -> None:
    """Takes every widget out of a layout."""
    while (item := layout.takeAt(0)) is not None:
        if (old := item.widget()) is not None:
            old.hide()
            old.deleteLater()


MANY = 6  # columns that stand closer together


class Figures(QWidget):
    """Rows of words and figures, the figures at the right in columns of one width."""

    def __init__(self, columns: int) -> None:
        super().__init__()
        self._columns = columns
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(10 if columns < MANY else 7)
        self._grid.setVerticalSpacing(3)
        self._grid.setColumnStretch(0, 1)
        self.rows: list[tuple[str, ...]] = []
        self._cells: list[QLabel] = []
        self._shape: tuple[bool, list[int]] = (False, [])

    def show_rows(self, rows: Sequence[tuple[str, ...]], *, head: tuple[str, ...] | None = None) -> None:
        """The rows, each as many cells as there are columns; a head above them is quiet."""
        wanted = [*([head] if head else []), *rows]
        if wanted == self.rows:
            return
        self.rows = wanted
        shape = (head is not None, [len(row[: self._columns]) for row in wanted])
        if shape == self._shape:  # other figures in the same places: nothing flickers while they run
            for cell, text in zip(self._cells, (text for row in wanted for text in row[: self._columns]), strict=True):
                cell.setText(text)
            return
        self._shape, self._cells = shape, []
        empty(self._grid)
        for number, row in enumerate(wanted):
            for column, text in enumerate(row[: self._columns]):
                is_head = head is not None and number == 0
                cell = label(text, "quiet" if is_head else "figure" if column else "", wraps=column == 0)
                cell.setAlignment(Qt.AlignmentFlag.AlignTop)
                if column:
                    cell.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
                self._cells.append(cell)
                self._grid.addWidget(cell, number, column)
