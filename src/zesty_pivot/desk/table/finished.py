"""Finished pieces drawn: seams, cut lines, folds, notches, drill holes, words. Their lines are kept while the pieces are."""

from __future__ import annotations

from collections import OrderedDict

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QPainter, QPainterPath, QPen

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.desk.table.shapes import qt_path
from zesty_pivot.desk.theme import NOW, text_font

# Line widths of the finished pieces in px, and their dashes.
LOOKS: dict[str, tuple[float, tuple[float, ...]]] = {
    "seam": (1.1, ()), "leg": (1.1, ()), "cap": (1.1, ()), "fold": (1.4, (9, 3, 1.5, 3)), "cut": (2.4, ()),
    "crease": (1.0, (4, 4)), "notch": (2.4, ()), "grain": (1.2, ()), "arrow": (1.6, ()),
}  # fmt: skip


def paint_finished(painter: QPainter, piece: FinishedPiece, px: float, *, filled: bool = True) -> None:
    """A finished piece in mm; `px` is one pixel in mm."""
    ring, strokes = _lines(piece)
    if filled:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("paper"))
        painter.drawPath(ring)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for kind, path in strokes:
        width, dashes = LOOKS[kind]
        pen = QPen(NOW.color("ink"), width * px, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap)
        if dashes:
            pen.setDashPattern(list(dashes))
        painter.setPen(pen)
        painter.drawPath(path)
    painter.setPen(QPen(NOW.color("ink"), 1.1 * px))
    for circle in piece.circles:
        painter.drawEllipse(QPointF(*circle.at), circle.radius, circle.radius)
    for text in piece.texts:
        font = QFont(text_font(10, bold=text.bold))
        font.setPixelSize(100)
        painter.save()
        painter.translate(QPointF(*text.at))
        painter.scale(text.size / 100.0, text.size / 100.0)
        painter.setFont(font)
        painter.setPen(NOW.color("ink"))
        painter.drawText(QRectF(-2000, -100, 4000, 130), Qt.AlignmentFlag.AlignHCenter, text.text)
        painter.restore()


_Lines = tuple[QPainterPath, list[tuple[str, QPainterPath]]]
_kept: OrderedDict[int, tuple[FinishedPiece, _Lines]] = OrderedDict()


def _lines(piece: FinishedPiece) -> _Lines:
    """The cut line as an area, and every stroke with its kind."""
    found = _kept.get(id(piece))
    if found is None or found[0] is not piece:
        ring = QPainterPath()
        points = [QPointF(x, y) for x, y in piece.ring.tolist()]
        ring.moveTo(points[0])
        for point in points[1:]:
            ring.lineTo(point)
        ring.closeSubpath()
        found = (piece, (ring, [(stroke.kind, qt_path(stroke.paths)) for stroke in piece.strokes]))
        _kept[id(piece)] = found
        while len(_kept) > 64:
            _kept.popitem(last=False)
    return found[1]
