"""A piece on the table: its paper with a shadow, its seams, legs, marks and fold."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPainter, QPen

from zesty_pivot.core.piece import Piece
from zesty_pivot.desk.table import laid
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW


def paint_piece(painter: QPainter, piece: Piece, px: float, *, is_traced: bool) -> None:
    """Draws a piece in mm; `px` is one pixel in mm. Over tracing paper it lets it show through."""
    shapes = shapes_of(piece)
    thin = 1.4 * px
    painter.setPen(Qt.PenStyle.NoPen)
    shadow = 1.6 * px
    painter.translate(shadow, shadow * 1.4)
    painter.setBrush(NOW.color("shadow", 12 if is_traced else 34))
    painter.drawPath(shapes.fill)
    painter.translate(-shadow, -shadow * 1.4)
    painter.setBrush(NOW.color("paper", 165 if is_traced else 255))
    painter.drawPath(shapes.fill)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(NOW.color("quiet"), thin * 0.8))
    painter.drawPath(shapes.legs)
    painter.drawPath(shapes.grain)
    painter.setPen(QPen(NOW.color("cool"), thin))
    painter.drawPath(shapes.marks)
    painter.setPen(QPen(NOW.color("ink"), thin, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
    painter.drawPath(shapes.seams)
    fold = QPen(NOW.color("ink"), thin * 1.2)
    fold.setDashPattern([9, 3, 1.5, 3])
    painter.setPen(fold)
    painter.drawPath(shapes.folds)
    painter.setPen(QPen(NOW.color("citrus"), thin, Qt.PenStyle.DotLine))
    for first, pin, second in laid.tears(piece):
        painter.drawPolyline(first, pin, second)
