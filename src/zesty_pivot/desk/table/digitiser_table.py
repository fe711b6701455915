"""The digitiser's table: what is pressed is drawn as it comes."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from zesty_pivot.core.intake.digitiser.stream import Press, standing
from zesty_pivot.desk.digitising import Digitising
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.theme import NOW, display_font, text_font

TABLE = QRectF(0.0, 0.0, 1200.0, 700.0)  # mm that are seen before anything is pressed
ROOM = 60.0  # mm round what was pressed
NOWHERE = ("next", "back", "close")  # their places say nothing
ALONG = ("corner", "curve", "line")


class DigitiserTable(Canvas):
    """Draws the places in the order of pressing; the last one is lit."""

    def __init__(self, model: DeskModel, digitising: Digitising) -> None:
        super().__init__(model)
        self._digitising = digitising
        self._box = TABLE
        self._presses: list[Press] = []  # those that stand
        self.setAccessibleName("Digitiser")
        digitising.changed.connect(self.refresh)
        digitising.came.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Draws again; the view follows while it is not moved by hand."""
        self._presses = standing(self._digitising.presses)
        places = [QPointF(press.x, press.y) for press in self._presses if press.deed not in NOWHERE]
        box = TABLE
        if places:
            xs, ys = [at.x() for at in places], [at.y() for at in places]
            box = QRectF(QPointF(min(xs), min(ys)), QPointF(max(xs), max(ys))).adjusted(-ROOM, -ROOM, ROOM, ROOM)
            box = box.united(self._box) if self._digitising.is_running else box
        was, self._box = self._box, box
        self._fit_again(was)

    def content_box(self) -> QRectF:
        return self._box

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        px = 1.0 / self.scale
        painter.setPen(QPen(NOW.color("edge"), px))
        painter.setBrush(NOW.color("paper"))
        painter.drawRect(self._box)
        line, legs = QPainterPath(), QPainterPath()
        begun: QPointF | None = None
        before = ""
        for press in self._presses:
            at = QPointF(press.x, press.y)
            if press.deed in ALONG:
                if begun is None:
                    begun = at
                    line.moveTo(at)
                else:
                    line.lineTo(at)
            elif press.deed == "leg":
                if before == "leg":
                    legs.lineTo(at)
                else:
                    legs.moveTo(at)
            elif press.deed in ("close", "next") and begun is not None:
                line.lineTo(begun)
                begun = None
            before = press.deed
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(NOW.color("ink"), 1.6 * px))
        painter.drawPath(line)
        painter.setPen(QPen(NOW.color("ink"), 1.1 * px))
        painter.drawPath(legs)
        ends = [QPointF(press.x, press.y) for press in self._presses if press.deed == "grain"]
        painter.setPen(QPen(NOW.color("quiet"), 1.1 * px, Qt.PenStyle.DashDotLine))
        for start, stop in zip(ends[::2], ends[1::2], strict=False):
            painter.drawLine(start, stop)

    def paint_over(self, painter: QPainter) -> None:
        presses = [press for press in self._presses if press.deed not in NOWHERE]
        for press in presses:
            self._mark(painter, press)
        painter.setFont(text_font(10))
        painter.setPen(NOW.color("quiet"))
        if not presses:
            room = QRectF(self.rect()).adjusted(RULER + 60, RULER + 60, -60, -60)
            says = "Press the corners and curves all round a piece, then the button that closes it."
            painter.drawText(room, Qt.TextFlag.TextWordWrap, says)
            return
        last = presses[-1]
        at = self.to_px(last.x, last.y)
        painter.setPen(QPen(NOW.color("citrus"), 2.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(at, 8.0, 8.0)
        for dx, dy in ((1, 0), (-1, 0), (0, 1), (0, -1)):
            painter.drawLine(at + QPointF(8 * dx, 8 * dy), at + QPointF(15 * dx, 15 * dy))
        painter.setFont(display_font(11))
        painter.setPen(NOW.color("citrus_ink"))
        painter.drawText(at + QPointF(14, -12), last.deed)

    def _mark(self, painter: QPainter, press: Press) -> None:
        at = self.to_px(press.x, press.y)
        painter.setPen(QPen(NOW.color("ink"), 1.2))
        painter.setBrush(NOW.color("paper"))
        match press.deed:
            case "corner":
                painter.drawRect(QRectF(at.x() - 3, at.y() - 3, 6, 6))
            case "curve" | "line":
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(NOW.color("quiet"))
                painter.drawEllipse(at, 1.7, 1.7)
            case "notch":
                painter.setPen(QPen(NOW.color("cool"), 2.2))
                painter.drawLine(at + QPointF(-5, 0), at + QPointF(5, 0))
                painter.drawLine(at + QPointF(0, -5), at + QPointF(0, 5))
            case "hole":
                painter.drawEllipse(at, 4.0, 4.0)
            case "point":
                painter.drawEllipse(at, 5.0, 5.0)
                painter.drawLine(at + QPointF(-9, 0), at + QPointF(9, 0))
                painter.drawLine(at + QPointF(0, -9), at + QPointF(0, 9))
            case _:
                pass
