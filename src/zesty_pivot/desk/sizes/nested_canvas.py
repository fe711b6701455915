"""Sizes over each other on the table: every piece once, a line a size, the chosen one on top."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Sequence

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sizes.nested import NestedLine, NestedPiece, nested, point_of
from zesty_pivot.core.sizes.nested_sheet import label_corner, labels_of
from zesty_pivot.core.sizes.sized import Sized
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.size_looks import color_of, hairline_of, pen_of
from zesty_pivot.desk.sizes.sizes import Sizes
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.table.kept_canvas import KeptCanvas
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW, text_font

GAP = 40.0  # mm between two pieces
HEAD = 22.0  # mm above a piece, for its name
ASPECT = 1.35  # about how much wider than tall the room for the pieces is
LABEL_PX, APART_PX = 11.0, 20.0  # px, how high the name of a size is, and how far the first and the last one lie apart at least
MOST_NAMED = 10  # sizes that are all named beside their lines; the names of more hide them
LEGS = 130  # how strong the legs of darts are, of 255
REACH = 8.0  # px from the pointer to a line


@record(eq=False)
class LaidLine:
    """One size of a piece where it lies on the canvas, mm. `number` is what it looks by, however many are known by now."""

    line: NestedLine
    number: int
    title: str
    at: QPointF


@record(eq=False)
class LaidNest:
    """A piece in all its sizes, in the room that it takes."""

    nested: NestedPiece
    lines: tuple[LaidLine, ...]
    box: QRectF
    corner: str  # where the sizes' names stand


class NestedCanvas(KeptCanvas):
    """The pieces side by side. A click on a line chooses its size; so do the keys [ and ]."""

    picked = pyqtSignal(str)

    def __init__(self, model: DeskModel, sizes: Sizes) -> None:
        super().__init__(model)
        self.setAccessibleName("Sizes over each other")
        self._sizes = sizes
        self.pieces: tuple[LaidNest, ...] = ()
        self._laid: tuple[Sized, ...] = ()  # the sizes that they are of
        self.pointed = ""  # what lies under the pointer, in words
        self._pressed: QPointF | None = None

    @contained("the sizes over each other")
    def refresh(self) -> None:
        """Lays out what is known by now."""
        before = self.content_box()
        sizes = self._sizes.sizes
        shown = self._sizes.who.shown
        base = next((n for n, one in enumerate(sizes) if one.wearer is shown[self._sizes.who.base]), 0)
        numbers = [shown.index(one.wearer) for one in sizes]
        self.pieces = _in_rows([_laid(one, sizes, numbers) for one in nested(sizes, self._sizes.point, base)])
        self._laid = sizes
        self._fit_again(before)

    def content_box(self) -> QRectF:
        if not self.pieces:
            return QRectF(0.0, 0.0, 500.0, 500.0)
        whole = QRectF(self.pieces[0].box)
        for one in self.pieces[1:]:
            whole = whole.united(one.box)
        return whole.adjusted(-6.0, -HEAD, 30.0, 24.0)

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        self.paint_still(painter)
        self.paint_moving(painter)

    def still_key(self) -> Hashable:
        """All but the chosen one, which may follow a hand."""
        lines = self._lines(is_chosen=False)
        seen = ((id(one.line.piece), one.number, one.at.x(), one.at.y()) for one in lines)
        return (self._sizes.chosen, *seen)

    def paint_still(self, painter: QPainter) -> None:
        for one in self._lines(is_chosen=False):
            self._paint(painter, one, is_chosen=False)

    def paint_moving(self, painter: QPainter) -> None:
        for one in self._lines(is_chosen=True):
            self._paint(painter, one, is_chosen=True)

    def _lines(self, *, is_chosen: bool) -> Iterator[LaidLine]:
        return (one for piece in self.pieces for one in piece.lines if (one.title == self._sizes.chosen) is is_chosen)

    def _paint(self, painter: QPainter, one: LaidLine, *, is_chosen: bool) -> None:
        shape, is_plain = shapes_of(one.line.piece), self.devicePixelRatioF() == 1.0 and not is_chosen
        pen = hairline_of(one.number) if is_plain else pen_of(one.number, is_chosen=is_chosen, px=1.0 / self.scale)
        painter.save()
        painter.translate(one.at)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen)
        painter.drawPath(shape.seams)
        painter.drawPath(shape.folds)
        color = pen.color()
        color.setAlpha(LEGS)
        pen.setColor(color)
        painter.setPen(pen)
        painter.drawPath(shape.legs)
        painter.restore()

    def paint_over(self, painter: QPainter) -> None:
        for piece in self.pieces:
            painter.setFont(text_font(10, bold=True))
            painter.setPen(NOW.color("ink"))
            top = self.to_px(piece.box.left(), piece.box.top() - HEAD * 0.3)
            wide = max(int((piece.box.width() + GAP) * self.scale) - 4, 20)
            name = painter.fontMetrics().elidedText(capital(words(piece.nested.name)), Qt.TextElideMode.ElideRight, wide)
            painter.drawText(top, name)
            self._cross(painter, piece)
            if not self._has_room(piece):
                continue  # the list has the names beside their lines
            painter.setFont(text_font(8))
            shift = piece.lines[0].at - QPointF(*piece.lines[0].line.shift.tolist())
            lines = [one.line for one in self._named(piece)]
            known = {one.line.number + 1: one.number for one in piece.lines}
            for text in labels_of(lines, self._laid, piece.corner, LABEL_PX / self.scale):
                painter.setPen(color_of(known[text.of_size]))
                at = self.to_px(text.at[0] + shift.x(), text.at[1] + shift.y())
                painter.drawText(QRectF(at.x() - 10.0, at.y() - 8.0, 90.0, 16.0), Qt.AlignmentFlag.AlignVCenter, text.text)
        painter.setPen(NOW.color("ink"))
        painter.setFont(text_font(9.5))
        said = self.pointed or self._sizes.fault or self._sizes.note
        painter.drawText(QRectF(RULER + 14.0, RULER + 6.0, self.width() - 60.0, 20.0), Qt.AlignmentFlag.AlignLeft, said)

    def _has_room(self, piece: LaidNest) -> bool:
        """Whether the names of the sizes can stand at their corner: under each other, and the corners apart."""
        spots = [found + one.line.shift for one in piece.lines if (found := point_of(one.line.piece, piece.corner)) is not None]
        apart = float(np.ptp(spots, axis=0).max()) * self.scale if len(spots) > 1 else APART_PX
        return apart >= APART_PX and len(self._named(piece)) * LABEL_PX < piece.box.height() * self.scale

    def _named(self, piece: LaidNest) -> list[LaidLine]:
        """Those whose names stand beside them: all, or of many the first, the last and the chosen one."""
        last = len(piece.lines) - 1
        return [
            one for n, one in enumerate(piece.lines)
            if last < MOST_NAMED or n in (0, last) or one.title == self._sizes.chosen
        ]  # fmt: skip

    def _cross(self, painter: QPainter, piece: LaidNest) -> None:
        """The point that lies on itself."""
        first = piece.lines[0]
        at = point_of(first.line.piece, piece.nested.point)
        if at is None:
            return
        spot = self.to_px(float(at[0]) + first.at.x(), float(at[1]) + first.at.y())
        painter.setPen(QPen(NOW.color("citrus"), 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(spot, 6.0, 6.0)
        painter.drawLine(spot - QPointF(10.0, 0.0), spot + QPointF(10.0, 0.0))
        painter.drawLine(spot - QPointF(0.0, 10.0), spot + QPointF(0.0, 10.0))

    # Hands.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        super().mousePressEvent(event)
        self._pressed = event.position() if event is not None else None

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        super().mouseReleaseEvent(event)
        if event is not None and self._pressed is not None:
            off = event.position() - self._pressed
            found = self._near(event.position()) if abs(off.x()) + abs(off.y()) < 4.0 else None
            if found is not None:
                self.picked.emit(found[0].title)
        self._pressed = None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        super().mouseMoveEvent(event)
        if event is not None and self._grab is None:
            found = self._near(event.position())
            said = "" if found is None else self._said(*found)
            if said != self.pointed:
                self.pointed = said
                self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        steps = {"[": -1, "]": 1}
        if event is not None and event.text() in steps and self._sizes.who.shown:
            titles = [one.title for one in self._sizes.who.shown]
            at = titles.index(self._sizes.chosen) if self._sizes.chosen in titles else 0
            self.picked.emit(titles[(at + steps[event.text()]) % len(titles)])
            return
        super().keyPressEvent(event)

    def _near(self, at: QPointF) -> tuple[LaidLine, str] | None:
        """The size and the edge nearest to a place, where one is near."""
        spot = self.to_mm(at)
        found: tuple[float, LaidLine, str] | None = None
        for piece in self.pieces:
            for one in piece.lines:
                for run in one.line.piece.runs:
                    points = run.path.outline
                    off = float(np.hypot(points[:, 0] + one.at.x() - spot.x(), points[:, 1] + one.at.y() - spot.y()).min())
                    off = min(off, _beside(points, spot.x() - one.at.x(), spot.y() - one.at.y()))
                    if off * self.scale < REACH and (found is None or off < found[0]):
                        found = off, one, run.edge
        return None if found is None else found[1:]

    def _said(self, one: LaidLine, edge: str) -> str:
        piece = one.line.piece
        return f"{one.title}: {words(piece.name)}, {words(edge)} {self._model.length(piece.edge(edge).sewn_length)}"


def _beside(points: np.ndarray, x: float, y: float) -> float:
    """How far a place lies from the line through points, mm."""
    start, way = points[:-1], np.diff(points, axis=0)
    long = np.maximum((way**2).sum(axis=1), 1e-12)
    share = np.clip((((x, y) - start) * way).sum(axis=1) / long, 0.0, 1.0)
    return float(np.hypot(*((start + share[:, None] * way - (x, y)).T)).min())


def _laid(one: NestedPiece, sizes: Sequence[Sized], numbers: Sequence[int]) -> LaidNest:
    """A piece where it lies by itself."""
    whole = QRectF()
    for line in one.lines:
        whole = whole.united(shapes_of(line.piece).box.translated(*line.shift.tolist()))
    lines = (
        LaidLine(line, numbers[line.number], sizes[line.number].wearer.title, QPointF(*line.shift.tolist()))
        for line in one.lines
    )
    return LaidNest(one, tuple(lines), whole, label_corner(one.lines))


def _in_rows(pieces: Sequence[LaidNest]) -> tuple[LaidNest, ...]:
    """The pieces in rows from left to right, so that long strips do not make the others small."""
    room = sum((one.box.width() + GAP) * (one.box.height() + GAP + HEAD) for one in pieces)
    most = max([ASPECT * room**0.5, *(one.box.width() for one in pieces)], default=0.0)
    left = top = tall = 0.0
    found = []
    for one in pieces:
        if left and left + one.box.width() > most:
            left, top, tall = 0.0, top + tall + GAP + HEAD, 0.0
        move = QPointF(left, top) - one.box.topLeft()
        lines = tuple(replace(line, at=line.at + move) for line in one.lines)
        found.append(replace(one, lines=lines, box=one.box.translated(move)))
        left, tall = left + one.box.width() + GAP, max(tall, one.box.height())
    return tuple(found)
