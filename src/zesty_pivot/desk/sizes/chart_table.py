"""The size chart as a table: a row a measurement, a column a size; under each figure the step to it, marked where uneven."""

from __future__ import annotations

from PyQt6.QtCore import QAbstractItemModel, QModelIndex, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QPainter
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QLineEdit,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableWidget,
    QTableWidgetItem,
    QWidget,
)

from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.sizes.chart import BodySize
from zesty_pivot.core.sizes.jumps import Jump
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.charts import Charts
from zesty_pivot.desk.theme import NOW, text_font

WRITTEN, STEP, IS_ODD = (Qt.ItemDataRole(Qt.ItemDataRole.UserRole + n) for n in range(3))
ROW, COLUMN, COLUMN_IN = 36, 74, 94  # px; inches have fractions


class ChartTable(QTableWidget):
    """The sizes of one group. A cell is edited as it was written: a length, or a formula of the others."""

    committed = pyqtSignal(str, str, str)  # size, measurement, text

    def __init__(self, model: DeskModel, charts: Charts) -> None:
        super().__init__()
        self._model, self._charts = model, charts
        self.group = ""
        self.setAccessibleName("Size chart")
        self.setItemDelegate(_Cells(self))
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self._shown: tuple[object, ...] = ()

    @property
    def sizes(self) -> tuple[BodySize, ...]:
        """The sizes that are shown."""
        return self._charts.chart.of_group(self.group)

    @property
    def chosen(self) -> str:
        """The title of the size that the hand is in."""
        sizes = self.sizes
        return sizes[max(self.currentColumn(), 0)].title if sizes else ""

    @contained("the size chart")
    def refresh(self) -> None:
        """Shows the chart."""
        shown = (self._charts.chart, self.group, self._model.style.units, NOW.name)
        if shown == self._shown:
            return
        self._shown = shown
        sizes, base = self.sizes, self._charts.chart.base
        steps = {(one.measure, one.after): one for one in self._charts.jumps if one.group == self.group}
        worn = {one.title: one for one in self._charts.wearers}
        names = [name for name in MEASUREMENTS if any(name in size.measures for size in sizes)]
        names += [name for name in MEASUREMENTS if name not in names]
        self.setColumnCount(len(sizes))
        self.setRowCount(len(names))
        self.setHorizontalHeaderLabels([f"{size.name} (base)" if size.title == base else size.name for size in sizes])
        self.setVerticalHeaderLabels([capital(MEASUREMENTS[name]) for name in names])
        for column, size in enumerate(sizes):
            self.setColumnWidth(column, COLUMN_IN if self._model.style.units == "in" else COLUMN)
            lengths = dict(worn[size.title].lengths)
            for row, name in enumerate(names):
                self.setItem(row, column, self._cell(size, name, lengths.get(name), steps.get((name, size.name))))
        for row in range(len(names)):
            self.setRowHeight(row, ROW)

    def _cell(self, size: BodySize, name: str, mm: float | None, step: Jump | None) -> QTableWidgetItem:
        written = str(size.measures.get(name, ""))
        cell = QTableWidgetItem("" if mm is None else self._model.length(mm))
        cell.setData(WRITTEN, written)
        cell.setData(STEP, "" if step is None else f"{'+' if step.mm >= 0 else '−'}{self._model.length(abs(step.mm))}")
        cell.setData(IS_ODD, step is not None and step.is_odd)
        cell.setData(Qt.ItemDataRole.UserRole + 3, (size.title, name))
        said = f"{capital(MEASUREMENTS[name])}, size {size.title}"
        said += f": written as {written}" if written else ": not measured"
        if step is not None and step.is_odd:
            said += f". From {step.before} to {step.after} it grows unlike before and after: look whether it is a slip."
        cell.setToolTip(said)
        cell.setData(Qt.ItemDataRole.AccessibleTextRole, said)
        return cell


class _Cells(QStyledItemDelegate):
    """Two lines: what it comes to, and the step from the size before."""

    def __init__(self, table: ChartTable) -> None:
        super().__init__(table)
        self._table = table

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        text = index.data(Qt.ItemDataRole.DisplayRole) or ""
        if painter is None:
            return
        bare = QStyleOptionViewItem(option)
        self.initStyleOption(bare, index)
        bare.text = ""
        widget = self._table
        style = widget.style()
        if style is not None:
            style.drawControl(style.ControlElement.CE_ItemViewItem, bare, painter, widget)
        box = QRectF(option.rect).adjusted(6.0, 3.0, -6.0, -3.0)
        right = Qt.AlignmentFlag.AlignRight
        painter.save()
        painter.setFont(text_font(9.5))
        painter.setPen(NOW.color("ink"))
        painter.drawText(box, right | Qt.AlignmentFlag.AlignTop, str(text))
        is_odd = bool(index.data(IS_ODD))
        painter.setFont(text_font(8, bold=is_odd))
        color: QColor = NOW.color("error" if is_odd else "quiet")
        painter.setPen(color)
        step = str(index.data(STEP) or "")
        painter.drawText(box, right | Qt.AlignmentFlag.AlignBottom, f"◆ {step}" if is_odd else step)
        painter.restore()

    def createEditor(self, parent: QWidget | None, _option: QStyleOptionViewItem, _index: QModelIndex) -> QWidget:
        edit = QLineEdit(parent)
        edit.setAccessibleName("What was measured")
        return edit

    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        if isinstance(editor, QLineEdit):
            editor.setText(str(index.data(WRITTEN) or ""))
            editor.selectAll()

    def setModelData(self, editor: QWidget | None, _model: QAbstractItemModel | None, index: QModelIndex) -> None:
        if isinstance(editor, QLineEdit) and editor.text() != str(index.data(WRITTEN) or ""):
            title, name = index.data(Qt.ItemDataRole.UserRole + 3)
            self._table.committed.emit(title, name, editor.text())
