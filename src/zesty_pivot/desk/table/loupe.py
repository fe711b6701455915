"""A loupe: what lies under the hand, several times as large, beside it."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.theme import NOW

ACROSS, TIMES, OFF = 150.0, 5.0, 28.0  # px, how many times, px from the hand


def paint_loupe(painter: QPainter, canvas: Canvas, at: QPointF) -> None:
    """Draws the canvas about a place (px), TIMES as large, in a round glass above the hand, or below it near the upper edge;
    a cross marks the place."""
    x = min(max(at.x() - ACROSS / 2.0, RULER + 4.0), canvas.width() - ACROSS - 4.0)
    y = at.y() - OFF - ACROSS
    glass = QRectF(x, y if y > RULER + 4.0 else at.y() + OFF, ACROSS, ACROSS)
    round_glass = QPainterPath()
    round_glass.addEllipse(glass)
    place = canvas.to_mm(at)
    painter.save()
    painter.setClipPath(round_glass)
    painter.fillRect(glass, NOW.color("table"))
    scale, origin = canvas.scale, canvas.origin
    canvas.scale = scale * TIMES  # what is drawn by the scale, a pen's width, keeps it in the glass
    painter.translate(glass.center())
    painter.scale(canvas.scale, canvas.scale)
    painter.translate(-place)
    try:
        canvas.paint_content(painter)
    finally:
        canvas.scale, canvas.origin = scale, origin
        painter.restore()
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(NOW.color("citrus"), 1.2))
    middle = glass.center()
    painter.drawLine(middle - QPointF(12, 0), middle + QPointF(12, 0))
    painter.drawLine(middle - QPointF(0, 12), middle + QPointF(0, 12))
    painter.setPen(QPen(NOW.color("edge"), 2.0))
    painter.drawEllipse(glass)
