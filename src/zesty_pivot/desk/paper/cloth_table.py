"""The cloth on the cutting table, with the pieces where they lie: dragged by hand, or moved by keys."""

from __future__ import annotations

import shapely
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen

from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.nest.cut_pieces import CutPiece
from zesty_pivot.core.nest.lay import LayPlan, OnCloth
from zesty_pivot.core.piece.names import words
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.cloths import Cloths
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.finished import ScreenPen
from zesty_pivot.desk.table.shapes import qt_area
from zesty_pivot.desk.theme import NOW, text_font

STEP, LEAP = 1.0, 10.0  # mm that an arrow key moves a piece, and with Shift


class ClothTable(Canvas):
    """Pieces that lie on each other are seen as such; the chosen one has a frame, a locked one says so."""

    def __init__(self, model: DeskModel, cloths: Cloths) -> None:
        super().__init__(model)
        self._cloths = cloths
        self._held: tuple[str, QPointF, float, float] | None = None
        self._was = QRectF()
        self._middles: dict[str, tuple[CutPiece, float, float, float]] = {}
        self.setAccessibleName("Cloth")
        cloths.changed.connect(self.refresh)
        cloths.dragged.connect(self.update)

    def refresh(self) -> None:
        """Draws again; the view follows a lay that has become another length."""
        box = self.content_box()
        if self._held is None and box != self._was:
            self._was = box
            if self._fitted:
                self.fit()
        self.update()

    def content_box(self) -> QRectF:
        plan = self._cloths.plan
        if plan is None:
            return QRectF(0, 0, 1000, 1400)
        cloth = plan.cloth
        edge = 0.0 if cloth.is_folded else cloth.selvedge
        return QRectF(0.0, -edge, max(plan.length, 300.0), cloth.usable + edge + cloth.selvedge)

    def paint_content(self, painter: QPainter) -> None:
        plan, px = self._cloths.plan, 1.0 / self.scale
        if plan is None:
            return
        box = self.content_box()
        painter.fillRect(box, NOW.color("panel"))
        painter.setPen(QPen(NOW.color("edge"), px))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)
        painter.setPen(QPen(NOW.color("quiet"), px, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(0.0, plan.cloth.usable), QPointF(box.right(), plan.cloth.usable))
        if not plan.cloth.is_folded:
            painter.drawLine(QPointF(0.0, 0.0), QPointF(box.right(), 0.0))
        self._stripes(painter, plan, box)
        for piece, shape in zip(plan.pieces, plan.shapes, strict=True):
            is_chosen, clashes = piece.key == self._cloths.chosen, piece.key in plan.clashes
            painter.setBrush(NOW.color("error_pale" if clashes else "cool_pale" if is_chosen else "paper"))
            style = Qt.PenStyle.DashLine if clashes else Qt.PenStyle.SolidLine
            colour = "error" if clashes else "cool" if is_chosen else "edge"
            painter.setPen(QPen(NOW.color(colour), (2.4 if is_chosen or clashes else 1.0) * px, style))
            painter.drawPath(qt_area(shape))
        painter.save()
        draw(plan.laid, ScreenPen(painter, px, filled=False))
        painter.restore()

    def _stripes(self, painter: QPainter, plan: LayPlan, box: QRectF) -> None:
        along, across = plan.cloth.repeat
        painter.setPen(QPen(NOW.color("edge"), 1.0 / self.scale, Qt.PenStyle.DotLine))
        for number in range(1, int(box.right() / along) + 1 if along else 0):
            painter.drawLine(QPointF(number * along, box.top()), QPointF(number * along, box.bottom()))
        for number in range(1, int(plan.cloth.usable / across) + 1 if across else 0):
            painter.drawLine(QPointF(0.0, number * across), QPointF(box.right(), number * across))

    def paint_over(self, painter: QPainter) -> None:
        plan = self._cloths.plan
        painter.setFont(text_font(9))
        painter.setPen(NOW.color("quiet"))
        if plan is None:
            text = self._cloths.fault or "Laying the pieces on the cloth…"
            painter.drawText(self.rect().adjusted(60, 60, -60, -60), Qt.TextFlag.TextWordWrap, text)
            return
        for piece, shape, place in zip(plan.pieces, plan.shapes, plan.places, strict=True):
            at = self._middle(piece, place, shape)
            name = words(piece.key) + ("  (locked)" if place.is_locked else "")
            box = QRectF(painter.boundingRect(QRectF(at.x() - 90, at.y() - 9, 180, 18), Qt.AlignmentFlag.AlignCenter, name))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(NOW.color("paper", 225))
            painter.drawRoundedRect(box.adjusted(-5, -1, 5, 1), 4, 4)
            painter.setPen(NOW.color("cool" if piece.key == self._cloths.chosen else "quiet"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, name)
        if plan.cloth.is_folded:
            at = self.to_px(0.0, 0.0)
            painter.setPen(NOW.color("quiet"))
            painter.drawText(QPointF(at.x() + 8, at.y() - 5), "fold")

    def _middle(self, piece: CutPiece, place: OnCloth, shape: shapely.Polygon) -> QPointF:
        """Where a piece is widest, px: worked out once for each piece, it goes along with it."""
        known = self._middles.get(piece.key)
        if known is None or known[0] is not piece or known[1] != place.turn:
            circle = shapely.maximum_inscribed_circle(shape, tolerance=2.0)
            (x, y), aside = circle.coords[0], 0.5 * float(circle.length)  # below the grain line, which runs through it
            known = self._middles[piece.key] = (piece, place.turn, float(x) - place.x, float(y) + aside - place.y)
        return self.to_px(known[2] + place.x, known[3] + place.y)

    # By hand.

    def _under(self, at: QPointF) -> str:
        plan, place = self._cloths.plan, self.to_mm(at)
        if plan is None:
            return ""
        point = shapely.Point(place.x(), place.y())
        return next((p.key for p, shape in zip(plan.pieces, plan.shapes, strict=True) if shape.contains(point)), "")

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            super().mousePressEvent(event)
            return
        key = self._under(event.position())
        place = self._cloths.place(key)
        self._cloths.chosen = key
        if place is None:
            super().mousePressEvent(event)
        else:
            self._held = (key, event.position(), place.x, place.y)
            self.setFocus()
        self._cloths.changed.emit()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._held is None:
            super().mouseMoveEvent(event)
            return
        self._cloths.shown_at(self._held[0], *self._dragged(event.position()))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._held is None:
            super().mouseReleaseEvent(event)
            return
        key, begun, x, y = self._held
        to = self._dragged(event.position())
        self._held = None
        if (event.position() - begun).manhattanLength() >= 3:
            self._cloths.put(key, *to)
        else:
            self._cloths.shown_at(key, x, y)

    def _dragged(self, at: QPointF) -> tuple[float, float]:
        assert self._held is not None
        _key, begun, x, y = self._held
        moved = (at - begun) / self.scale
        number = next(n for n, piece in enumerate(self._cloths.plan.pieces) if piece.key == self._held[0])  # type: ignore[union-attr]
        at_fold = self._cloths.plan is not None and self._cloths.plan.pieces[number].is_at_fold
        return x + moved.x(), y if at_fold else y + moved.y()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        keys = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
        if event is None or not self._cloths.chosen or Qt.Key(event.key()) not in keys:
            if event is not None and event.key() in (Qt.Key.Key_N, Qt.Key.Key_P) and self._cloths.plan is not None:
                self.choose_next(1 if event.key() == Qt.Key.Key_N else -1)
                return
            super().keyPressEvent(event)
            return
        dx, dy = keys[Qt.Key(event.key())]
        step = LEAP if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else STEP
        self._cloths.nudge(dx * step, dy * step)

    def choose_next(self, by: int) -> None:
        """Chooses the next piece, or the one before."""
        plan = self._cloths.plan
        if plan is None or not plan.pieces:
            return
        keys = [piece.key for piece in plan.pieces]
        now = keys.index(self._cloths.chosen) if self._cloths.chosen in keys else -1 if by > 0 else 0
        self._cloths.chosen = keys[(now + by) % len(keys)]
        self._cloths.changed.emit()
