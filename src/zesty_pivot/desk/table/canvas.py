"""A sheet seen through a window: pan, zoom, rulers along two sides. What lies on it is drawn by the subclass."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QResizeEvent, QWheelEvent
from PyQt6.QtWidgets import QWidget

from zesty_pivot.core import faults
from zesty_pivot.core.quantity import MM_PER, Unit
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.theme import NOW, text_font

RULER = 22  # px
LEAST, MOST = 0.05, 40.0  # px per mm


class Canvas(QWidget):
    """Base of the table, the finish view and the paper view."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.scale = 1.0  # px per mm
        self.origin = QPointF(RULER, RULER)  # where (0, 0) mm lies, px
        self._grab: QPointF | None = None
        self._fitted = True  # keeps the whole in view while the window is resized, until the user zooms
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setMinimumSize(320, 240)

    # What subclasses say.

    def content_box(self) -> QRectF:
        """What there is to see, mm."""
        raise RuntimeError("a canvas without content")

    def paint_content(self, painter: QPainter) -> None:
        """Draws in mm; the painter is set up."""

    def paint_over(self, painter: QPainter) -> None:
        """Draws in px over the content."""

    def unit(self) -> Unit:
        """The unit of the rulers: the style's."""
        return self._model.style.units

    def length_words(self, mm: float) -> str:
        """A small length in the unit of the rulers."""
        return self._model.length(mm, fine=True)

    # Places.

    def to_px(self, x: float, y: float) -> QPointF:
        """A place in mm as a place in px."""
        return QPointF(self.origin.x() + x * self.scale, self.origin.y() + y * self.scale)

    def to_mm(self, at: QPointF) -> QPointF:
        """A place in px as a place in mm."""
        return QPointF((at.x() - self.origin.x()) / self.scale, (at.y() - self.origin.y()) / self.scale)

    # Looking.

    @contained("the view of the table")
    def fit(self) -> None:
        """Everything in view."""
        box = self.content_box()
        if box.isEmpty() or self.width() <= RULER or self.height() <= RULER:
            return
        self.fit_to(box)
        self._fitted = True

    def _fit_again(self, was: QRectF) -> None:
        """There is something else to see than `was` (mm): all of it in view, unless the view was moved by hand."""
        if self._fitted and self.content_box() != was:
            self.fit()
        self.update()

    def shows(self, box: QRectF) -> bool:
        """Whether a box (mm) lies wholly in view."""
        seen = QRectF(self.to_mm(QPointF(RULER, RULER)), self.to_mm(QPointF(self.width(), self.height())))
        return seen.adjusted(-0.5, -0.5, 0.5, 0.5).contains(box)

    def fit_to(self, box: QRectF) -> None:
        """A box (mm) as large as the view has room for; the view stays so while the window is resized."""
        room = QRectF(RULER + 14, RULER + 14, self.width() - RULER - 28, self.height() - RULER - 28)
        self.scale = min(max(min(room.width() / box.width(), room.height() / box.height()), LEAST), MOST)
        self.origin = room.center() - box.center() * self.scale
        self.update()

    def zoom(self, factor: float, at: QPointF | None = None) -> None:
        """Nearer or further, keeping one place (px) where it is."""
        keep = at or QPointF(self.width() / 2, self.height() / 2)
        place = self.to_mm(keep)
        self.scale = min(max(self.scale * factor, LEAST), MOST)
        self.origin = keep - place * self.scale
        self._fitted = False
        self.update()

    def pan(self, dx: float, dy: float) -> None:
        """Shifts the view by px."""
        self.origin = self.origin + QPointF(dx, dy)
        self._fitted = False
        self.update()

    # Events.

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        if self._fitted:
            self.fit()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            self.zoom(1.0015 ** event.angleDelta().y(), event.position())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() in (Qt.MouseButton.LeftButton, Qt.MouseButton.MiddleButton):
            self._grab = event.position()
            self.setCursor(Qt.CursorShape.ClosedHandCursor)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._grab is not None:
            step = event.position() - self._grab
            self._grab = event.position()
            self.pan(step.x(), step.y())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._grab = None
        self.unsetCursor()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        pans = {
            Qt.Key.Key_Left: (40, 0), Qt.Key.Key_Right: (-40, 0), Qt.Key.Key_Up: (0, 40), Qt.Key.Key_Down: (0, -40),
        }  # fmt: skip
        key = Qt.Key(event.key())
        if key in pans:
            self.pan(*pans[key])
        else:
            super().keyPressEvent(event)

    # Drawing.

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        try:
            self._render(painter)
        except Exception as fault:  # noqa: BLE001 - the boundary of a picture: the window goes on, and says what it cannot draw
            self._say_fault(painter, faults.caught(fault, f"the picture of {self.accessibleName().lower() or 'the table'}"))
        finally:
            painter.end()

    def _say_fault(self, painter: QPainter, reference: str) -> None:
        painter.resetTransform()
        painter.setClipping(False)
        painter.fillRect(self.rect(), NOW.color("table"))
        painter.setFont(text_font(10, bold=True))
        painter.setPen(NOW.color("error"))
        words = f"{faults.sentence('This picture', reference)}. Your work is safe."
        painter.drawText(self.rect().adjusted(60, 40, -40, -40), Qt.TextFlag.TextWordWrap, words)

    def _render(self, painter: QPainter) -> None:
        """Draws the widget."""
        self.render_to(painter)

    def _ground(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), NOW.color("table"))
        self._grid(painter)

    def _in_mm(self, painter: QPainter, paint: Callable[[QPainter], None]) -> None:
        painter.save()
        painter.translate(self.origin)
        painter.scale(self.scale, self.scale)
        paint(painter)
        painter.restore()

    def render_to(self, painter: QPainter) -> None:
        """Draws everything with a painter of this widget's size."""
        self._ground(painter)
        self._in_mm(painter, self.paint_content)
        self.paint_over(painter)
        self._rulers(painter)
        self._focus_frame(painter)

    def _focus_frame(self, painter: QPainter) -> None:
        if self.hasFocus():
            painter.setPen(QPen(NOW.color("cool"), 1.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(RULER + 1, RULER + 1, self.width() - RULER - 2, self.height() - RULER - 2))

    def _major(self) -> float:
        """The distance in mm of the numbered ticks: a round number of units, at least 55 px apart."""
        unit = MM_PER[self.unit()]
        for count in (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000):
            if count * unit * self.scale >= 55:
                return count * unit
        return 5000 * unit

    def _grid(self, painter: QPainter) -> None:
        painter.setPen(QPen(NOW.color("table_line"), 1))
        step = self._major()
        for across in (True, False):
            start, stop = self._span(across)
            tick = int(start // step) * step
            while tick <= stop:
                at = round(self.to_px(tick, 0).x() if across else self.to_px(0, tick).y()) + 0.5
                if across:
                    painter.drawLine(QPointF(at, RULER), QPointF(at, self.height()))
                else:
                    painter.drawLine(QPointF(RULER, at), QPointF(self.width(), at))
                tick += step

    def _span(self, across: bool) -> tuple[float, float]:
        first, last = self.to_mm(QPointF(RULER, RULER)), self.to_mm(QPointF(self.width(), self.height()))
        return (first.x(), last.x()) if across else (first.y(), last.y())

    def _rulers(self, painter: QPainter) -> None:
        painter.fillRect(QRectF(0, 0, self.width(), RULER), NOW.color("panel"))
        painter.fillRect(QRectF(0, 0, RULER, self.height()), NOW.color("panel"))
        painter.setPen(QPen(NOW.color("edge"), 1))
        painter.drawLine(QPointF(0, RULER - 0.5), QPointF(self.width(), RULER - 0.5))
        painter.drawLine(QPointF(RULER - 0.5, 0), QPointF(RULER - 0.5, self.height()))
        painter.setFont(text_font(7.5))
        for across in (True, False):
            self._ticks(painter, across)
        painter.fillRect(QRectF(0, 0, RULER - 1, RULER - 1), NOW.color("panel"))
        painter.setPen(NOW.color("quiet"))
        painter.drawText(QRectF(0, 0, RULER, RULER), Qt.AlignmentFlag.AlignCenter, self.unit())

    def _ticks(self, painter: QPainter, across: bool) -> None:
        step, unit = self._major(), MM_PER[self.unit()]
        parts = 5 if step / unit % 4 else 4
        start, stop = self._span(across)
        number = int(start / step * parts) - parts
        painter.setPen(NOW.color("quiet"))
        while number * step / parts <= stop:
            tick = number * step / parts
            at = round(self.to_px(tick, 0).x() if across else self.to_px(0, tick).y()) + 0.5
            size = 9 if number % parts == 0 else 4
            if at >= RULER:
                if across:
                    painter.drawLine(QPointF(at, RULER - size), QPointF(at, RULER - 1))
                else:
                    painter.drawLine(QPointF(RULER - size, at), QPointF(RULER - 1, at))
                if number % parts == 0:
                    self._number(painter, f"{tick / unit:g}", at, across)
            number += 1

    def _number(self, painter: QPainter, text: str, at: float, across: bool) -> None:
        if across:
            painter.drawText(QRectF(at + 2, 0, 50, RULER - 7), Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, text)
            return
        painter.save()
        painter.translate(0, at - 2)
        painter.rotate(-90)
        painter.drawText(QRectF(0, 0, 50, RULER - 7), Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, text)
        painter.restore()
