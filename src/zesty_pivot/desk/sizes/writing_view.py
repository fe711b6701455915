"""Write all: what is written of each size, how far it is, and what is not sound, by name."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QHeaderView,
    QProgressBar,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.sizes.batch import Made
from zesty_pivot.desk.beside import rest_timer
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.sizes.writing_all import WritingAll
from zesty_pivot.desk.theme import NOW

SOON_MS = 200  # between two looks at the list while it grows
LIST = 200  # px of the list at least
ACROSS = 3  # formats beside each other


class WritingView(QWidget):
    """The order above, the list below."""

    opened = pyqtSignal(object)  # a Made that somebody wants to look at

    def __init__(self, writing: WritingAll, run: Callable[[str], None]) -> None:
        super().__init__()
        self._writing = writing
        self.formats: dict[str, QCheckBox] = {}
        self.nested, self.zipped = QCheckBox("Nested sheets as well"), QCheckBox("An archive each, no folder")
        self.bar, self.state = QProgressBar(), label("")
        self.list = QTableWidget()
        self.begin, self.table, self.stop = (
            QPushButton("Write these sizes…"), QPushButton("Write everybody in a table…"), QPushButton("Stop"),
        )  # fmt: skip
        inside = Column()
        around = QVBoxLayout(self)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(inside.scrolled())
        column = inside.rows
        column.setSpacing(8)
        column.addWidget(label("What is written of each", "heading"))
        column.addLayout(self._order())
        for box in (self.nested, self.zipped):
            box.clicked.connect(self._choose)
            column.addWidget(box)
        row = QHBoxLayout()
        self.begin.setObjectName("primary")
        for button, id in ((self.begin, "sizes.write_all"), (self.table, "sizes.write_table"), (self.stop, "sizes.stop")):
            button.clicked.connect(lambda _on=False, id=id: run(id))
            row.addWidget(button)
        row.addStretch(1)
        column.addLayout(row)
        self.bar.setTextVisible(False)
        self.bar.setFixedHeight(8)
        self.bar.setAccessibleName("How many are written")
        self.state.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        column.addWidget(self.bar)
        column.addWidget(self.state)
        column.addWidget(self._list(), 1)
        self._soon = rest_timer(self, SOON_MS, self.refresh)
        writing.changed.connect(self._later)
        writing.begun.connect(self.refresh)
        self.refresh()

    def _later(self) -> None:
        """Not for each body by itself: thousands come one after the other."""
        if not self._soon.isActive():
            self._soon.start()

    def _order(self) -> QGridLayout:
        grid = QGridLayout()
        for n, one in enumerate(all_exports().values()):
            box = QCheckBox(capital(one.title))
            box.setToolTip(one.tip or one.title)
            box.clicked.connect(self._choose)
            self.formats[one.id] = box
            grid.addWidget(box, n // ACROSS, n % ACROSS)
        return grid

    def _list(self) -> QTableWidget:
        table = self.list
        table.setAccessibleName("What came of each")
        table.setMinimumHeight(LIST)
        table.setColumnCount(3)
        table.setHorizontalHeaderLabels(["size or person", "what came of it", "why"])
        table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        table.setWordWrap(True)
        header, rows = table.horizontalHeader(), table.verticalHeader()
        if header is not None and rows is not None:
            header.setStretchLastSection(True)
            header.setSectionResizeMode(0, QHeaderView.ResizeMode.ResizeToContents)
            header.setSectionResizeMode(1, QHeaderView.ResizeMode.ResizeToContents)
            rows.hide()
            rows.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        table.cellActivated.connect(self._open)
        table.cellClicked.connect(self._open)
        return table

    def _choose(self) -> None:
        writing = self._writing
        writing.formats = tuple(id for id, box in self.formats.items() if box.isChecked())
        writing.is_nested, writing.is_zip = self.nested.isChecked(), self.zipped.isChecked()
        self.refresh()

    @contained("the list of sizes")
    def refresh(self) -> None:
        """Shows how it goes."""
        writing = self._writing
        at_work = writing.work.is_at_work
        for id, box in self.formats.items():
            box.setChecked(id in writing.formats)
            box.setEnabled(not at_work)
        self.nested.setChecked(writing.is_nested)
        self.zipped.setChecked(writing.is_zip)
        self.begin.setEnabled(not at_work)
        self.table.setEnabled(not at_work)
        self.stop.setEnabled(at_work)
        self.bar.setVisible(at_work)
        self.bar.setRange(0, writing.total or 0)
        self.bar.setValue(writing.count)
        self.state.setText(writing.said())
        shown = sorted(writing.made, key=lambda made: (made.is_valid, made.number))
        self.list.setRowCount(len(shown))
        for n, made in enumerate(shown):
            self._row(n, made)

    def _row(self, n: int, made: Made) -> None:
        said, why = _words(made)
        for column, text in enumerate((made.name or f"number {made.number}", said, why)):
            cell = QTableWidgetItem(text)
            cell.setData(Qt.ItemDataRole.UserRole, made)
            cell.setToolTip(text)
            if column == 1 and not made.is_valid:
                cell.setForeground(NOW.color("error"))
            self.list.setItem(n, column, cell)

    def _open(self, row: int, _column: int) -> None:
        cell = self.list.item(row, 0)
        if cell is not None:
            self.opened.emit(cell.data(Qt.ItemDataRole.UserRole))


def _words(made: Made) -> tuple[str, str]:
    """What came of one, and why."""
    if made.fault:
        return "not written", made.fault
    why = "\n".join((*made.broken, *made.errors))
    if made.broken:
        return "written, a step broke", why
    if made.errors:
        return "written, to be mended", why
    return "written, sound" + (f", {made.warnings} to look at" if made.warnings else ""), why
