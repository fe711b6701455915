"""How seams grow: a row a seam, a column a size, a small curve at the end; what grows unevenly is marked."""

from __future__ import annotations

from PyQt6.QtCore import QModelIndex, QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractItemView, QStyledItemDelegate, QStyleOptionViewItem, QTableWidget, QTableWidgetItem

from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.sizes.nested import SeamGrowth
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.sizes import Sizes
from zesty_pivot.desk.theme import NOW, text_font

CURVES, COLUMN, COLUMN_IN = 128, 68, 88  # px; inches have fractions
ODD = "◆"  # beside a figure to look at
CURVE = Qt.ItemDataRole.UserRole


class GrowthTable(QTableWidget):
    """The table. Lengths are sewn ones, in the style's unit."""

    def __init__(self, model: DeskModel, sizes: Sizes) -> None:
        super().__init__()
        self._model, self._sizes = model, sizes
        self.setAccessibleName("How seams grow")
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setItemDelegate(_Curves(self))
        self._shown: tuple[object, ...] = ()
        self._show_names(False)

    def _show_names(self, shown: bool) -> None:
        header = self.verticalHeader()
        if header is not None:
            header.setVisible(shown)

    @contained("how seams grow")
    def refresh(self) -> None:
        """Shows what is known by now."""
        sizes, unit = self._sizes.sizes, self._model.style.units
        shown = (self._sizes.growth, unit, NOW.name)
        if shown == self._shown:
            return
        self._shown = shown
        rows = self._sizes.growth
        self.setColumnCount(len(sizes) + 1)
        self.setRowCount(len(rows))
        titles = [one.wearer.short for one in sizes]
        self.setHorizontalHeaderLabels(["how it grows", *titles])
        self._show_names(bool(rows))
        self.setVerticalHeaderLabels([f"{capital(words(one.piece))}: {words(one.edge)}" for one in rows])
        for n, one in enumerate(rows):
            self._show(n, one)
        self.setColumnWidth(0, CURVES)
        for column in range(1, len(sizes) + 1):
            self.setColumnWidth(column, COLUMN_IN if unit == "in" else COLUMN)

    def _show(self, row: int, one: SeamGrowth) -> None:
        curve = QTableWidgetItem()
        curve.setData(CURVE, one)
        said = "It grows evenly." if not one.has_odd else "It grows unevenly where it is marked: a place to look at."
        curve.setData(Qt.ItemDataRole.AccessibleTextRole, said)
        curve.setToolTip(said)
        self.setItem(row, 0, curve)
        for n, (mm, is_odd) in enumerate(zip(one.mm, one.is_odd, strict=True)):
            text = "" if mm is None else f"{ODD} {self._model.length(mm)}" if is_odd else self._model.length(mm)
            cell = QTableWidgetItem(text)
            cell.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            if is_odd:
                cell.setFont(text_font(9, bold=True))
                cell.setForeground(NOW.color("error"))
                cell.setToolTip("Here it grows unlike before and after: a place to look at.")
            self.setItem(row, n + 1, cell)


class _Curves(QStyledItemDelegate):
    """Draws the steps from size to size as a curve over the line of no growth; what grows evenly is level."""

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        super().paint(painter, option, index)
        one = index.data(CURVE)
        if painter is None or not isinstance(one, SeamGrowth):
            return
        steps = [
            (n, step, is_odd) for n, (step, is_odd) in enumerate(zip(one.steps, one.is_odd, strict=True)) if step is not None
        ]
        if len(steps) < 2:
            return
        box = QRectF(option.rect).adjusted(8.0, 5.0, -8.0, -5.0)
        low, high = (pick([0.0, *(step for _n, step, _odd in steps)]) for pick in (min, max))
        high = max(high, low + 1e-6)

        def at(n: int, step: float) -> QPointF:
            across = box.left() + box.width() * (n - 1) / max(len(one.mm) - 2, 1)
            return QPointF(across, box.bottom() - box.height() * (step - low) / (high - low))

        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(NOW.color("edge"), 1.0))
        painter.drawLine(QPointF(box.left(), at(0, 0.0).y()), QPointF(box.right(), at(0, 0.0).y()))
        painter.setPen(QPen(NOW.color("cool"), 1.5))
        painter.drawPolyline(QPolygonF([at(n, step) for n, step, _odd in steps]))
        painter.setPen(QPen(NOW.color("error"), 1.0))
        painter.setBrush(NOW.color("error"))
        for n, step, is_odd in steps:
            if is_odd:
                painter.drawEllipse(at(n, step), 3.0, 3.0)
        painter.restore()
