"""Grading seen: where each point of the block goes for the chosen size, and why; the ways to its block compared."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractItemView, QHBoxLayout, QHeaderView, QTableWidget, QTableWidgetItem, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.sizes.graded import Arrow
from zesty_pivot.core.sizes.ways import WAYS, Ways, arrows_to, compared
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.sizes import Sizes
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.shapes import Shapes, shapes_of
from zesty_pivot.desk.theme import NOW, text_font

GAP = 60.0  # mm between two pieces
HEAD = 9.0  # px, how long an arrow's head is
SAID = 0.05  # mm: what goes less far stays


class GradingCanvas(Canvas):
    """The block of the style, the block of the chosen size over it, and an arrow from each point to where it goes."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.setAccessibleName("Grading")
        self._lines: list[tuple[QPointF, QPainterPath, QPainterPath, str, QPainterPath]] = []
        self._shifts: dict[str, QPointF] = {}
        self.arrows: tuple[Arrow, ...] = ()
        self.chosen = -1  # the arrow that is pointed at in the list
        self._box = QRectF(0.0, 0.0, 500.0, 500.0)

    def show_blocks(self, base: Pattern, graded: Pattern | None, arrows: tuple[Arrow, ...]) -> None:
        """The block, where it goes, and the arrows."""
        before = QRectF(self._box)
        self.arrows, self._lines, self._shifts, left = arrows, [], {}, 0.0
        whole = QRectF()
        for piece in base.pieces:
            shape = shapes_of(piece)
            over = shapes_of(graded.piece(piece.name)) if graded is not None and graded.has(piece.name) else None
            box = shape.box if over is None else shape.box.united(over.box)
            shift = QPointF(left - box.left(), -box.top())
            self._shifts[piece.name] = shift
            graded_to = _outline(over) if over is not None else QPainterPath()
            self._lines.append((shift, _outline(shape), graded_to, piece.name, shape.fill))
            whole = whole.united(box.translated(shift))
            left += box.width() + GAP
        self._box = whole if not whole.isEmpty() else self._box
        self._fit_again(before)

    def content_box(self) -> QRectF:
        return self._box.adjusted(-20.0, -30.0, 20.0, 20.0)

    def paint_content(self, painter: QPainter) -> None:
        px = 1.0 / self.scale
        for shift, base, graded, _name, paper in self._lines:
            painter.save()
            painter.translate(shift)
            painter.fillPath(paper, NOW.color("paper"))
            painter.setPen(QPen(NOW.color("ink"), 1.2 * px))
            painter.drawPath(base)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            pen = QPen(NOW.color("cool"), 1.6 * px)
            pen.setDashPattern([5.0, 3.0])
            painter.setPen(pen)
            painter.drawPath(graded)
            painter.restore()

    def paint_over(self, painter: QPainter) -> None:
        painter.setFont(text_font(10, bold=True))
        painter.setPen(NOW.color("ink"))
        for shift, base, _graded, name, _paper in self._lines:
            box = base.controlPointRect().translated(shift)
            painter.drawText(self.to_px(box.left(), box.top() - 12.0), capital(words(name)))
        for n, arrow in enumerate(self.arrows):
            if arrow.piece in self._shifts:
                ends = (QPointF(*at) + self._shifts[arrow.piece] for at in (arrow.start, arrow.end))
                _arrow(painter, *(self.to_px(at.x(), at.y()) for at in ends), is_chosen=n == self.chosen)


class GradingView(QWidget):
    """The canvas, and beside it the arrows with their reasons and the ways compared."""

    def __init__(self, model: DeskModel, sizes: Sizes) -> None:
        super().__init__()
        self._model, self._sizes = model, sizes
        self.canvas = GradingCanvas(model)
        self.rules, self.ways = _table("Where points go, and why"), _table("Three ways to the block")
        self.head, self.told = label("", "heading"), label("", "quiet")
        self._arrows: Kept[tuple[Arrow, ...] | str] = Kept(4)
        self._compared: Kept[Ways] = Kept(4)
        side = QVBoxLayout()
        side.setContentsMargins(8, 8, 8, 8)
        for widget, share in ((self.head, 0), (self.rules, 3), (self.told, 0), (self.ways, 2)):
            side.addWidget(widget, share)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.canvas, 1)
        row.addLayout(side, 1)
        self.rules.itemSelectionChanged.connect(self._point)
        self._shown: tuple[object, ...] = ()

    @contained("grading")
    def refresh(self) -> None:
        """Shows the chosen size."""
        style, under = self._model.style, self._sizes.under()
        wearer = self._sizes.who.one(self._sizes.chosen)
        body = tuple(sorted(style.body().items()))  # what is graded from: edited measurements go before the block's
        shown = (style.block, body, under, wearer, style.units, NOW.name)
        if wearer is None or wearer.fault or self._shown == shown:
            return
        self._shown = shown

        def graded() -> tuple[Arrow, ...] | str:
            try:
                return arrows_to(style, under, wearer)
            except ZestyError as fault:
                return str(fault)

        found = self._arrows.get((style.block, under, wearer), body, graded)
        ways = self._compared.get((style.block, under, wearer), body, lambda: compared(style, under, wearer))
        block = ways.blocks[ways.known.index("grade")] if "grade" in ways.known else None
        arrows = () if isinstance(found, str) else found
        self.head.setText(f"From {style.block.name.partition(',')[0]} to {wearer.title}")
        over = block_file.pattern(block) if block is not None else None
        self.canvas.show_blocks(block_file.pattern(style.block), over, arrows)
        self._show_rules(arrows)
        self._show_ways(ways, "" if not isinstance(found, str) else found)

    def _show_rules(self, arrows: tuple[Arrow, ...]) -> None:
        _fill(
            self.rules, ("point", "across", "down", "why"),
            [(f"{capital(words(one.piece))}, {words(one.point)}", self._way(one.end[0] - one.start[0]),
              self._way(one.end[1] - one.start[1]), one.why) for one in arrows],
        )  # fmt: skip

    def _show_ways(self, ways: Ways, fault: str) -> None:
        said = [f"{capital(WAYS[way])}: {why}" for way, why in ways.faults]
        if len(ways.known) > 1 and ways.rows:
            most = max(ways.rows, key=lambda row: row.apart)
            apart = self._model.length(most.apart, fine=True)
            said.insert(0, f"The ways lie {apart} apart at most, at the {words(most.piece)}, {words(most.edge)}.")
        self.told.setText(" ".join(filter(None, (fault, *said))) or "There is one way to this block.")
        is_compared = len(ways.known) > 1
        rows = []
        for row in ways.rows:
            lengths = tuple(self._model.length(mm, fine=True) for mm in row.mm)
            last = (self._model.length(row.apart, fine=True),) if is_compared else ()
            rows.append((f"{capital(words(row.piece))}, {words(row.edge)}", *lengths, *last))
        _fill(self.ways, ("edge", *(WAYS[way] for way in ways.known), *(("apart",) if is_compared else ())), rows)

    def _way(self, mm: float) -> str:
        if abs(mm) < SAID:
            return "stays"
        return f"{'+' if mm > 0 else '−'}{self._model.length(abs(mm), fine=True)}"

    def _point(self) -> None:
        self.canvas.chosen = self.rules.currentRow()
        self.canvas.update()


def _table(name: str) -> QTableWidget:
    found = QTableWidget()
    found.setAccessibleName(name)
    found.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
    found.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
    found.setWordWrap(True)
    header = found.verticalHeader()
    if header is not None:
        header.hide()
    return found


def _fill(table: QTableWidget, titles: tuple[str, ...], rows: list[tuple[str, ...]]) -> None:
    """Rows of words and figures; the last column takes what room is left."""
    table.setColumnCount(len(titles))
    table.setRowCount(len(rows))
    table.setHorizontalHeaderLabels(list(titles))
    for n, row in enumerate(rows):
        for column, text in enumerate(row):
            cell = QTableWidgetItem(text)
            cell.setToolTip(text)
            table.setItem(n, column, cell)
    header = table.horizontalHeader()
    if header is not None:
        header.setStretchLastSection(True)
        for column in range(len(titles) - 1):
            header.setSectionResizeMode(column, QHeaderView.ResizeMode.ResizeToContents)
    table.resizeRowsToContents()


def _outline(shape: Shapes) -> QPainterPath:
    found = QPainterPath(shape.seams)
    found.addPath(shape.folds)
    found.addPath(shape.legs)
    return found


def _arrow(painter: QPainter, start: QPointF, end: QPointF, *, is_chosen: bool) -> None:
    """From where a point was to where it goes; what stays is a dot."""
    color = NOW.color("citrus_ink" if is_chosen else "citrus")
    painter.setPen(QPen(color, 3.0 if is_chosen else 1.8))
    painter.setBrush(color)
    way = end - start
    long = math.hypot(way.x(), way.y())
    if long < 1.0:
        painter.drawEllipse(start, 2.5, 2.5)
        return
    painter.drawLine(start, end)
    along = way / long
    across = QPointF(-along.y(), along.x())
    size = min(HEAD, 0.5 * long + 2.0)
    back = end - along * size
    painter.drawPolygon(QPolygonF([end, back + across * size * 0.4, back - across * size * 0.4]))
