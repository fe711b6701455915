"""The picture that a screen or a projector shows: the pattern at true size and a grid, or what true size is told by."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QPainter, QPen, QTransform

from zesty_pivot.core.finish.pen import LOOKS, draw
from zesty_pivot.core.geometry.projective import Places
from zesty_pivot.core.quantity import MM_PER, Unit
from zesty_pivot.core.true_size.display import bar_px
from zesty_pivot.desk.paper.showing import Showing
from zesty_pivot.desk.table.finished import ScreenPen
from zesty_pivot.desk.theme import NOW, text_font

CROSS = 26.0  # px from the middle of a mark to the ends of its cross
GRID = {"mm": 50.0, "cm": 5.0, "in": 2.0}  # units between two lines of the grid


def qt_projection(matrix: Places) -> QTransform:
    """A matrix (3, 3) that takes columns (x, y, 1), as Qt takes it."""
    return QTransform(*matrix.T.ravel().tolist())


def paint_picture(painter: QPainter, showing: Showing, unit: Unit) -> None:
    """Draws the picture; the painter's frame is its px."""
    wide, tall = showing.size
    light, dark = ("beam_light", "beam_dark") if showing.device.inverted else ("beam_dark", "beam_light")
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setClipRect(QRectF(0.0, 0.0, wide, tall))
    painter.fillRect(QRectF(0.0, 0.0, wide, tall), NOW.color(dark))
    if showing.is_aiming:
        if showing.device.way == "marks":
            _marks(painter, showing, light)
        else:
            _bars(painter, showing, light)
    elif (shown := showing.shown) is not None:
        painter.setTransform(qt_projection(shown.matrix), combine=True)
        if showing.device.grid:
            _grid(painter, showing, unit)
        draw(showing.laid, ScreenPen(painter, showing.device.line / LOOKS["seam"].px, filled=False, ink=light))
    painter.restore()


def _marks(painter: QPainter, showing: Showing, light: str) -> None:
    painter.setFont(_font(26))
    shown = showing.shown
    if shown is not None and showing.device.grid:
        painter.save()
        painter.setTransform(qt_projection(shown.matrix), combine=True)
        painter.setPen(QPen(NOW.color("beam_grid"), showing.device.line))
        painter.drawLines(*_mat_lines(showing))
        painter.restore()
    painter.setPen(NOW.color(light))
    hint = "Drag each mark to its cross of the mat, or move it by arrow keys; N and P: the next; Enter: done"
    painter.drawText(QRectF(0.0, 6.0, showing.size[0], 40.0), Qt.AlignmentFlag.AlignHCenter, hint)
    for number, (x, y) in enumerate(showing.marks):
        colour = NOW.color("beam_mark" if number == showing.mark else light)
        painter.setPen(QPen(colour, 2.0 if number == showing.mark else 1.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawLine(QPointF(x - CROSS, y), QPointF(x + CROSS, y))
        painter.drawLine(QPointF(x, y - CROSS), QPointF(x, y + CROSS))
        painter.drawEllipse(QPointF(x, y), CROSS / 2.0, CROSS / 2.0)
        painter.drawText(QPointF(x + CROSS / 2.0, y - CROSS / 2.0), str(number + 1))


def _bars(painter: QPainter, showing: Showing, light: str) -> None:
    (wide, tall), (across, down) = showing.size, bar_px(showing.size)
    painter.setPen(QPen(NOW.color(light), 2.0, cap=Qt.PenCapStyle.FlatCap))
    painter.setFont(_font(20))
    left, top = (wide - across) / 2.0, (tall - down) / 2.0
    lines = [
        QLineF(left, tall / 2.0, left + across, tall / 2.0), QLineF(wide / 2.0, top, wide / 2.0, top + down),
        *(QLineF(x, tall / 2.0 - 14.0, x, tall / 2.0 + 14.0) for x in (left, left + across)),
        *(QLineF(wide / 2.0 - 14.0, y, wide / 2.0 + 14.0, y) for y in (top, top + down)),
    ]  # fmt: skip
    painter.drawLines(*lines)
    painter.drawText(QPointF(left + 20.0, tall / 2.0 - 20.0), "across: measure from stroke to stroke")
    painter.drawText(QPointF(wide / 2.0 + 20.0, top + 40.0), "down")


def _mat_lines(showing: Showing) -> list[QLineF]:
    wide, tall = showing.device.mat
    columns, rows = (5, 3)
    xs, ys = np.linspace(-wide / 2, wide / 2, columns), np.linspace(-tall / 2, tall / 2, rows)
    return [
        *(QLineF(float(x), -tall / 2, float(x), tall / 2) for x in xs),
        *(QLineF(-wide / 2, float(y), wide / 2, float(y)) for y in ys),
    ]


def _grid(painter: QPainter, showing: Showing, unit: Unit) -> None:
    """Lines a round distance apart, from the middle, over what is seen."""
    shown, (wide, tall) = showing.shown, showing.size
    assert shown is not None
    seen = shown.to_mm(np.array([(0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall)]))
    step = GRID[unit] * MM_PER[unit]
    (left, top), (right, low) = np.floor(seen.min(axis=0) / step), np.ceil(seen.max(axis=0) / step)
    if max(right - left, low - top) > 400:
        return
    painter.setPen(QPen(NOW.color("beam_grid"), 0.5 * showing.device.line))
    xs, ys = (np.arange(first, last + 1.0) * step for first, last in ((left, right), (top, low)))
    painter.drawLines(*[QLineF(float(x), float(ys[0]), float(x), float(ys[-1])) for x in xs])
    painter.drawLines(*[QLineF(float(xs[0]), float(y), float(xs[-1]), float(y)) for y in ys])


def _font(px: int) -> QFont:
    found = text_font(10)
    found.setPixelSize(px)
    return found
