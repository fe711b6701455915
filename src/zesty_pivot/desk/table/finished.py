"""Finished pieces drawn on the screen. Their lines are kept while the pieces are."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QPainter, QPainterPath, QPen

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import DRILL, LOOKS, LineLook
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.kept import kept_with
from zesty_pivot.desk.table.shapes import qt_path
from zesty_pivot.desk.theme import NOW, text_font


class ScreenPen:
    """Draws with a painter whose frame is the sheet's, in mm; `px` is one pixel in mm. `filled` lays the paper under each
    piece; `ink` is the theme's colour of the lines."""

    def __init__(self, painter: QPainter, px: float, *, filled: bool = True, ink: str = "ink") -> None:
        self._painter, self._px, self._filled, self._ink = painter, px, filled, ink
        self._frame = painter.transform()

    def begin(self, piece: FinishedPiece, dx: float, dy: float) -> None:
        painter = self._painter
        painter.setTransform(self._frame)
        painter.translate(dx, dy)
        if self._filled:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(NOW.color("paper"))
            painter.drawPath(_area(piece))
        painter.setBrush(Qt.BrushStyle.NoBrush)

    def _pen(self, look: LineLook) -> QPen:
        pen = QPen(NOW.color(self._ink), look.px * self._px, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap)
        if look.dash_px:
            pen.setDashPattern(list(look.dash_px))
        return pen

    def stroke(self, stroke: Stroke) -> None:
        self._painter.setPen(self._pen(LOOKS[stroke.kind]))
        self._painter.drawPath(_lines(stroke))

    def circle(self, circle: Circle) -> None:
        self._painter.setPen(self._pen(DRILL))
        self._painter.drawEllipse(QPointF(*circle.at), circle.radius, circle.radius)

    def text(self, text: Text) -> None:
        painter, font = self._painter, QFont(text_font(10, bold=text.bold))
        font.setPixelSize(100)
        painter.save()
        painter.translate(QPointF(*text.at))
        painter.rotate(math.degrees(text.turn))
        painter.scale(text.size / 100.0, text.size / 100.0)
        painter.setFont(font)
        painter.setPen(NOW.color(self._ink))
        painter.drawText(QRectF(-2000, -100, 4000, 130), Qt.AlignmentFlag.AlignHCenter, text.text)
        painter.restore()


@kept_with
def _lines(stroke: Stroke) -> QPainterPath:
    return qt_path(stroke.paths)


@kept_with
def _area(piece: FinishedPiece) -> QPainterPath:
    """What lies inside the cut line."""
    ring = QPainterPath()
    points = [QPointF(x, y) for x, y in piece.ring.tolist()]
    ring.moveTo(points[0])
    for point in points[1:]:
        ring.lineTo(point)
    ring.closeSubpath()
    return ring
