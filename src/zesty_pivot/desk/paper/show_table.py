"""What the true-size station shows in the window: the mat under the simulated projector, or the picture of a real device; and
the picture itself, filling that device."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QEvent, QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from zesty_pivot.core import faults
from zesty_pivot.core.quantity import MM_PER
from zesty_pivot.core.true_size.display import mark_places
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.show_picture import GRID, paint_picture, qt_projection
from zesty_pivot.desk.paper.showing import Showing
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.theme import NOW, text_font

ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
BEAM, WASHED = 0.9, 0.6  # how far light lines, and a light ground, outshine the mat that they fall on
ROUND = 60.0  # mm of the table that is seen round the mat


def took_key(showing: Showing, event: QKeyEvent, step: Callable[[int], None]) -> bool:
    """Arrow keys, N and P, Enter when the marks are set: of the picture wherever it is seen."""
    key = Qt.Key(event.key())
    if key in ARROWS:
        showing.nudge(*ARROWS[key], leaps=bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier))
    elif key in (Qt.Key.Key_N, Qt.Key.Key_P):
        step(1 if key == Qt.Key.Key_N else -1)
    elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and showing.is_aiming:
        showing.aim()
    else:
        return False
    return True


class ShowTable(Canvas):
    """The simulated projector's picture lies askew on a mat, in mm; of a real device its px are seen as they are."""

    def __init__(self, model: DeskModel, showing: Showing) -> None:
        super().__init__(model)
        self._showing = showing
        self._was = QRectF()
        self._holds = False
        self.setAccessibleName("True size")
        showing.changed.connect(self.refresh)
        showing.dragged.connect(self.update)

    def refresh(self) -> None:
        """Draws again; another device comes wholly into view."""
        was, self._was = self._was, self.content_box()
        self._fit_again(was)

    def content_box(self) -> QRectF:
        if not self._showing.displays.is_simulated:
            wide, tall = self._showing.size
            return QRectF(0.0, 0.0, wide, tall)
        falls = np.array(self._showing.displays.projector.falls)
        (left, top), (right, low) = falls.min(axis=0) - ROUND, falls.max(axis=0) + ROUND
        return QRectF(QPointF(left, top), QPointF(right, low))

    def paint_content(self, painter: QPainter) -> None:
        showing = self._showing
        if showing.displays.is_simulated:
            self._mat(painter)
            painter.setTransform(qt_projection(showing.displays.projector.matrix), combine=True)
            if showing.device.inverted:
                painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Screen)  # light adds to what it falls on
            painter.setOpacity(BEAM if showing.device.inverted else WASHED)
        paint_picture(painter, showing, self.unit())

    def _mat(self, painter: QPainter) -> None:
        """A cutting mat with a cross wherever a mark belongs."""
        box, step = self.content_box(), GRID[self.unit()] * MM_PER[self.unit()]
        painter.fillRect(box, NOW.color("mat"))
        painter.setPen(QPen(NOW.color("mat_line"), 0.6))
        xs = np.arange(np.ceil(box.left() / step), np.floor(box.right() / step) + 1.0) * step
        ys = np.arange(np.ceil(box.top() / step), np.floor(box.bottom() / step) + 1.0) * step
        painter.drawLines(*[QLineF(float(x), box.top(), float(x), box.bottom()) for x in xs])
        painter.drawLines(*[QLineF(box.left(), float(y), box.right(), float(y)) for y in ys])
        painter.setPen(QPen(NOW.color("citrus"), 1.6))
        for x, y in mark_places(self._showing.device).tolist():
            painter.drawLines(*[QLineF(x - 12.0, y, x + 12.0, y), QLineF(x, y - 12.0, x, y + 12.0)])

    def paint_over(self, painter: QPainter) -> None:
        if self._showing.is_aiming or self._showing.shown is not None:
            return
        painter.setFont(text_font(10))
        box = self.content_box()
        at = self.to_px(box.center().x(), box.top() + 0.2 * box.height())
        painter.setPen(
            NOW.color("beam_light" if self._showing.displays.is_simulated or self._showing.device.inverted else "beam_dark")
        )
        where = QRectF(at.x() - 240, at.y() - 20, 480, 40)
        painter.drawText(where, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self._showing.told)

    def _grid(self, painter: QPainter) -> None:
        if self._showing.displays.is_simulated:
            super()._grid(painter)

    def _rulers(self, painter: QPainter) -> None:
        """A picture in px has none."""
        if self._showing.displays.is_simulated:
            super()._rulers(painter)

    def _px(self, at: QPointF) -> tuple[float, float]:
        """A place on the canvas as px of the picture."""
        place = self.to_mm(at)
        if not self._showing.displays.is_simulated:
            return place.x(), place.y()
        x, y = self._showing.displays.projector.px_at(np.array([place.x(), place.y()]))
        return float(x), float(y)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            super().mousePressEvent(event)
            return
        self.setFocus()
        self._holds = True
        self._showing.press(self._px(event.position()))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not self._holds:
            super().mouseMoveEvent(event)
        else:
            self._showing.drag(self._px(event.position()))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        super().mouseReleaseEvent(event)
        self._holds = False
        self._showing.let_go()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and not took_key(self._showing, event, self.choose_next):
            super().keyPressEvent(event)

    def choose_next(self, by: int) -> None:
        """The next mark or piece, or the one before."""
        self._showing.step(by)


class ShowWindow(QWidget):
    """The picture and nothing else, filling its screen. Escape ends it; everything of the station goes on here."""

    def __init__(self, model: DeskModel, showing: Showing) -> None:
        super().__init__(None, Qt.WindowType.Window)
        self._model, self._showing = model, showing
        self._holds = False
        self.setWindowTitle("True size")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        showing.changed.connect(self.update)
        showing.dragged.connect(self.update)

    def fill(self) -> None:
        """Fills the screen of the device."""
        screen = self._showing.displays.all()[self._showing.displays.key]
        if screen is not None:
            self.setGeometry(screen.geometry())
        self.showFullScreen()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        try:
            paint_picture(painter, self._showing, self._model.style.units)
        except Exception as fault:  # noqa: BLE001 - the boundary of a picture
            faults.caught(fault, "the picture at true size")
        finally:
            painter.end()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._holds = True
            self._showing.press((event.position().x(), event.position().y()))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._holds:
            self._showing.drag((event.position().x(), event.position().y()))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._holds = False
        self._showing.let_go()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or took_key(self._showing, event, self._showing.step):
            return
        if event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_Q):
            self.close()
        else:
            super().keyPressEvent(event)

    def changeEvent(self, event: QEvent | None) -> None:
        super().changeEvent(event)
        self.update()
