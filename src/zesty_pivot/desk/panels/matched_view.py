"""A small picture of front and back laid together at the shoulder."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from zesty_pivot.core.finish.matched import Half, Matched
from zesty_pivot.desk.table.shapes import add_path, qt_path
from zesty_pivot.desk.theme import NOW, text_font

_MARGIN = 14.0  # mm round what is shown
_BELOW = 1.25  # of the necklines' height, shown


class MatchedView(QWidget):
    """Paper, the shoulder seam dashed, the neckline bold across it."""

    def __init__(self) -> None:
        super().__init__()
        self.shown: Matched | None = None
        self.setFixedHeight(150)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("Front and back matched at the shoulder")

    def sizeHint(self) -> QSize:
        return QSize(280, 150)

    def show_matched(self, matched: Matched | None) -> None:
        """Another pattern's, or nothing."""
        self.shown = matched
        self.update()

    @staticmethod
    def _box(matched: Matched) -> QRectF:
        """What is shown: both necklines and shoulders, and some cloth beside them."""
        found = QRectF()
        for half in (matched.front, matched.back):
            for role, path in half.runs:
                if role in ("neckline", "shoulder"):
                    low, high = path.box()
                    found = found.united(QRectF(low[0], low[1], high[0] - low[0], high[1] - low[1]))
        return found.adjusted(-_MARGIN, -_MARGIN, _MARGIN, _MARGIN)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), NOW.color("table"))
        if self.shown is None:
            painter.setPen(NOW.color("quiet"))
            painter.setFont(text_font(9))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "no neckline that ends on the shoulder")
            painter.end()
            return
        box = self._box(self.shown)
        scale = min(self.width() / box.width(), self.height() / box.height())
        painter.save()
        painter.setClipRect(self.rect())
        painter.translate(QPointF(self.width() / 2, self.height() / 2) - box.center() * scale)
        painter.scale(scale, scale)
        for half in (self.shown.back, self.shown.front):
            self._half(painter, half, 1.0 / scale)
        painter.restore()
        painter.setPen(NOW.color("quiet"))
        painter.setFont(text_font(8.5))
        painter.drawText(
            self.rect().adjusted(8, 5, -8, -5), Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignRight, "front"
        )
        painter.drawText(self.rect().adjusted(8, 5, -8, -5), Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignRight, "back")
        painter.end()

    @staticmethod
    def _half(painter: QPainter, half: Half, px: float) -> None:
        paper = QPainterPath()
        for number, (_role, path) in enumerate(half.runs):
            add_path(paper, path, joined=number > 0)
        paper.closeSubpath()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("paper"))
        painter.drawPath(paper)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for role, color, width, style in (
            ("armhole", "quiet", 1.2, Qt.PenStyle.SolidLine), ("centre", "quiet", 1.2, Qt.PenStyle.DashDotLine),
            ("shoulder", "cool", 1.4, Qt.PenStyle.DashLine), ("neckline", "citrus", 2.4, Qt.PenStyle.SolidLine),
        ):  # fmt: skip
            painter.setPen(QPen(NOW.color(color), width * px, style))
            painter.drawPath(qt_path(path for its, path in half.runs if its == role))
