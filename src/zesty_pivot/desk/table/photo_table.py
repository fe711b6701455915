"""A photograph on the table, with the points of what is known in it to be dragged, under a loupe."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QImage, QKeyEvent, QMouseEvent, QPainter, QPen, QPolygonF

from zesty_pivot.core.formats.photographed import BarePhoto
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizing import Sizing
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.loupe import paint_loupe
from zesty_pivot.desk.theme import NOW, text_font

NEAR = 14.0  # px of the screen from a point that it is meant
STEP, FAR = 1.0, 10.0  # px of the picture that an arrow key moves a point, and with Shift held
SIDES = ("width", "height")


class PhotoTable(Canvas):
    """Draws the picture in its own pixels. A point is dragged, or chosen by Page Down and moved by the arrow keys."""

    def __init__(self, model: DeskModel, sizing: Sizing) -> None:
        super().__init__(model)
        self._sizing = sizing
        self._image: tuple[BarePhoto, QImage] | None = None
        self.chosen = 0
        self._moving: int | None = None
        self._moved: QPointF | None = None
        self.setAccessibleName("Photograph")
        sizing.changed.connect(self.refresh)

    def refresh(self) -> None:
        """Draws again; another picture is seen whole."""
        photo = self._sizing.photo
        if photo is not None and (self._image is None or self._image[0] is not photo):
            high, wide = photo.pixels.shape[:2]
            image = QImage(photo.pixels.tobytes(), wide, high, 3 * wide, QImage.Format.Format_BGR888).copy()
            self._image = (photo, image)
            self.fit()
        self.chosen = min(self.chosen, max(len(self._sizing.pointed.points) - 1, 0))
        self.update()

    def content_box(self) -> QRectF:
        return QRectF(0.0, 0.0, *map(float, self._sizing.size))

    @property
    def points(self) -> list[QPointF]:
        """The points, px of the picture; the one that is dragged where the hand is."""
        found = [QPointF(*at) for at in self._sizing.pointed.points]
        if self._moving is not None and self._moved is not None:
            found[self._moving] = self._moved
        return found

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        if self._image is None:
            return
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(QPointF(0.0, 0.0), self._image[1])
        painter.setPen(QPen(NOW.color("citrus"), 1.6 / self.scale))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self._sizing.pointed.way == "sheet":
            painter.drawPolygon(QPolygonF(self.points))
        elif len(self.points) == 2:
            painter.drawLine(self.points[0], self.points[1])

    def paint_over(self, painter: QPainter) -> None:
        points = self.points
        for number, at in enumerate(points):
            place = self.to_px(at.x(), at.y())
            is_chosen = number == self.chosen
            painter.setPen(QPen(NOW.color("cool" if is_chosen else "citrus_ink"), 2.4))
            painter.setBrush(NOW.color("paper", 150))
            painter.drawEllipse(place, 7.0, 7.0)
            painter.drawLine(place - QPointF(3, 0), place + QPointF(3, 0))
            painter.drawLine(place - QPointF(0, 3), place + QPointF(0, 3))
        self._sides(painter, points)
        if self._moving is not None and self._moved is not None:
            paint_loupe(painter, self, self.to_px(self._moved.x(), self._moved.y()))

    def _sides(self, painter: QPainter, points: list[QPointF]) -> None:
        """Which side is which, with its size."""
        pointed = self._sizing.pointed
        painter.setFont(text_font(9, bold=True))
        for number, text in enumerate((pointed.width, pointed.height) if pointed.way == "sheet" else (pointed.width,)):
            middle = (points[number] + points[number + 1]) / 2.0
            at = self.to_px(middle.x(), middle.y())
            box = QRectF(at.x() - 60, at.y() - 11, 120, 22)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(NOW.color("paper", 215))
            painter.drawRoundedRect(box.adjusted(14, 0, -14, 0), 4, 4)
            painter.setPen(NOW.color("ink"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _rulers(self, painter: QPainter) -> None:
        """None: before its size is told, a picture has no lengths."""

    # The hand.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            near = [(self.to_px(at.x(), at.y()) - event.position()).manhattanLength() for at in self.points]
            if near and min(near) <= NEAR:
                self._moving = self.chosen = near.index(min(near))
                self.update()
                return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._moving is not None:
            self._moved = self.to_mm(event.position())
            self.update()
            return
        super().mouseMoveEvent(event)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        moving, moved = self._moving, self._moved
        self._moving = self._moved = None
        if moving is not None and moved is not None:
            self._sizing.move(moving, moved.x(), moved.y())
        super().mouseReleaseEvent(event)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or not self.points:
            return
        key = Qt.Key(event.key())
        step = FAR if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else STEP
        moves = {
            Qt.Key.Key_Left: (-step, 0.0), Qt.Key.Key_Right: (step, 0.0),
            Qt.Key.Key_Up: (0.0, -step), Qt.Key.Key_Down: (0.0, step),
        }  # fmt: skip
        if key in moves:
            at = self.points[self.chosen]
            self._sizing.move(self.chosen, at.x() + moves[key][0], at.y() + moves[key][1])
        elif key in (Qt.Key.Key_PageDown, Qt.Key.Key_PageUp):
            by = 1 if key == Qt.Key.Key_PageDown else -1
            self.chosen = (self.chosen + by) % len(self.points)
            self.update()
        else:
            super().keyPressEvent(event)
