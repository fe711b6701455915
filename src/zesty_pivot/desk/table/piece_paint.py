"""A piece on the table: its paper with a shadow, its seams, legs, marks and fold."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from zesty_pivot.core.piece import Piece
from zesty_pivot.desk.table import laid
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW


def paint_piece(painter: QPainter, piece: Piece, px: float, *, is_traced: bool, moves_from: Piece | None = None) -> None:
    """Draws a piece in mm; `px` is one pixel in mm. Over tracing paper it lets it show through.

    One that moves from frame to frame has lines of one pixel, which take a fifth of the time of wider ones, only the rim of its
    shadow, and the grain where the piece has it that it was before.
    """
    shapes, is_moving = shapes_of(piece), moves_from is not None
    thin = px if is_moving else 1.4 * px
    shadow = NOW.color("shadow", 12 if is_traced else 34)
    if is_moving:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(shadow, px))
        _cast(painter, shapes.fill, 0.8 * px)
        _cast(painter, shapes.fill, 1.6 * px)
    else:
        painter.setBrush(shadow)
        painter.setPen(Qt.PenStyle.NoPen)
        _cast(painter, shapes.fill, 1.6 * px)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(NOW.color("paper", 165 if is_traced else 255))
    painter.drawPath(shapes.fill)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(NOW.color("quiet"), px if is_moving else thin * 0.8))
    painter.drawPath(shapes.legs)
    painter.drawPath(shapes.grain if moves_from is None else shapes_of(moves_from).grain)
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


def _cast(painter: QPainter, path: QPainterPath, away: float) -> None:
    """Draws a path a little to the right and below."""
    painter.translate(away, 1.4 * away)
    painter.drawPath(path)
    painter.translate(-away, -1.4 * away)
