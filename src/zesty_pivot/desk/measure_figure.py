"""A small figure that shows where the tape goes: the line of one measurement is lit. Its own drawing, front or back."""

from __future__ import annotations

from typing import Literal

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from zesty_pivot.core.record import record
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.theme import NOW, text_font

WIDE, HIGH = 100.0, 152.0  # the figure's own measures


@record
class TapeLine:
    """Where a tape goes on the figure: its view, its points, and how far its middle sags (all round) when it is a girth."""

    view: Literal["front", "back"]
    points: tuple[tuple[float, float], ...]
    sag: float = 0.0


LINES: dict[str, TapeLine] = {
    "bust": TapeLine("front", ((29.0, 65.0), (71.0, 65.0)), 4.0),
    "over_bust": TapeLine("front", ((30.0, 56.0), (70.0, 56.0)), 3.0),
    "under_bust": TapeLine("front", ((31.0, 76.0), (69.0, 76.0)), 3.0),
    "waist": TapeLine("front", ((34.0, 95.0), (66.0, 95.0)), 3.0),
    "hip": TapeLine("front", ((26.5, 122.0), (73.5, 122.0)), 4.0),
    "shoulder": TapeLine("back", ((24.0, 39.0), (76.0, 39.0)), -3.0),
    "across_chest": TapeLine("front", ((30.0, 49.0), (70.0, 49.0)), 1.0),
    "across_back": TapeLine("back", ((30.0, 49.0), (70.0, 49.0)), 1.0),
    "sh_bp": TapeLine("front", ((43.5, 33.5), (40.5, 66.0))),
    "sh_under_bust": TapeLine("front", ((43.5, 33.5), (40.5, 66.0), (41.0, 77.0))),
    "fwl": TapeLine("front", ((43.5, 33.5), (40.5, 66.0), (43.0, 96.0))),
    "bwl": TapeLine("back", ((50.0, 31.0), (50.0, 96.0))),
    "span": TapeLine("front", ((40.5, 66.0), (59.5, 66.0))),
    "hip_depth": TapeLine("front", ((66.0, 95.0), (70.5, 108.0), (73.5, 122.0))),
    "armhole": TapeLine("front", ((24.0, 39.0), (30.5, 47.0), (30.0, 58.0), (23.0, 52.0), (24.0, 39.0))),
    "neck": TapeLine("front", ((44.0, 31.5), (56.0, 31.5)), 4.0),
    "head": TapeLine("front", ((41.0, 11.0), (59.0, 11.0)), 2.5),
}


def _outline() -> QPainterPath:
    """Head, neck, shoulders, trunk to the thighs; arms cut short."""
    path = QPainterPath()
    path.addEllipse(QPointF(50.0, 14.0), 9.0, 11.5)
    for side in (-1.0, 1.0):

        def at(x: float, y: float, side: float = side) -> QPointF:
            return QPointF(50.0 + side * (50.0 - x), y)

        path.moveTo(at(45.5, 24.0))
        path.cubicTo(at(45.5, 30.0), at(44.5, 32.5), at(40.0, 34.0))
        path.cubicTo(at(33.0, 36.0), at(27.0, 36.5), at(24.0, 39.0))
        path.cubicTo(at(19.0, 43.0), at(18.0, 54.0), at(17.0, 64.0))
        path.lineTo(at(24.0, 66.0))
        path.cubicTo(at(25.0, 60.0), at(27.0, 56.0), at(30.0, 57.0))
        path.cubicTo(at(28.0, 62.0), at(28.0, 68.0), at(30.0, 73.0))
        path.cubicTo(at(32.0, 80.0), at(34.5, 86.0), at(34.0, 95.0))
        path.cubicTo(at(33.0, 104.0), at(26.0, 110.0), at(26.0, 124.0))
        path.cubicTo(at(26.0, 134.0), at(28.0, 142.0), at(29.0, 150.0))
        path.moveTo(at(50.0, 130.0))
        path.cubicTo(at(47.5, 136.0), at(46.5, 143.0), at(46.5, 150.0))
    return path


OUTLINE = _outline()


class MeasureFigure(QWidget):
    """The figure with all lines faint and one lit."""

    def __init__(self) -> None:
        super().__init__()
        self.shown = "bust"
        self.setMinimumHeight(210)
        self.setAccessibleName("Where the tape goes")

    def sizeHint(self) -> QSize:
        return QSize(260, 250)

    def show_line(self, name: str) -> None:
        """Lights the line of a measurement."""
        self.shown = name
        self.update()

    @contained("the figure")
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        scale = min(self.width() / WIDE, self.height() / HIGH)
        painter.translate((self.width() - WIDE * scale) / 2.0, (self.height() - HIGH * scale) / 2.0)
        painter.scale(scale, scale)
        line = LINES[self.shown]
        painter.setPen(QPen(NOW.color("quiet"), 0.9, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(OUTLINE)
        if line.view == "front":
            for x in (40.5, 59.5):
                painter.drawEllipse(QPointF(x, 66.0), 0.7, 0.7)
        for name, other in LINES.items():
            if name != self.shown and other.view == line.view:
                self._draw(painter, other, QPen(NOW.color("edge"), 0.6))
        self._draw(painter, line, QPen(NOW.color("citrus"), 1.8, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        font = text_font(10)
        font.setPixelSize(7)
        painter.setFont(font)
        painter.setPen(NOW.color("quiet"))
        painter.drawText(QRectF(62.0, 2.0, 36.0, 12.0), Qt.AlignmentFlag.AlignRight, line.view)
        painter.end()

    def _draw(self, painter: QPainter, line: TapeLine, pen: QPen) -> None:
        """A girth as the front half of a ring, with the half behind dotted; any other line from point to point."""
        painter.setPen(pen)
        first, last = QPointF(*line.points[0]), QPointF(*line.points[-1])
        path = QPainterPath(first)
        if line.sag:
            middle = (first + last) / 2.0
            path.quadTo(middle + QPointF(0.0, 2.0 * line.sag), last)
        else:
            for point in line.points[1:]:
                path.lineTo(QPointF(*point))
        painter.drawPath(path)
        for end in (first, last):
            if not line.sag and line.points[0] != line.points[-1]:
                painter.drawEllipse(end, 0.6, 0.6)
