"""The table of a block by ruler: its points, the outline through them, the arcs of the point that is measured, and what does
not close."""

from __future__ import annotations

import math

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetricsF, QMouseEvent, QPainter, QPen

from zesty_pivot.core.intake.ruler.sheet import NECK, WAIST, point_words
from zesty_pivot.core.quantity import format_length
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.ruling import Ruling
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.table.shapes import qt_path
from zesty_pivot.desk.theme import NOW, text_font

EMPTY = QRectF(-60.0, -130.0, 400.0, 640.0)  # mm, before anything is measured
ROOM = 75.0  # mm round the points, for their names
NEAR = 10.0  # px from a point that is meant
SWEEP = 16.0  # degrees of an arc to both sides of its point


class RulerTable(Canvas):
    """Draws the piece that is looked at; pressing on a point leads to its fields."""

    picked = pyqtSignal(str)

    def __init__(self, model: DeskModel, ruling: Ruling) -> None:
        super().__init__(model)
        self._ruling = ruling
        self._box = EMPTY
        self.setAccessibleName("Block by ruler")
        ruling.changed.connect(self.refresh)
        ruling.lit_changed.connect(self.update)
        self.refresh()

    @property
    def points(self) -> dict[str, QPointF]:
        """The points, mm; those that too little holds lie where pieces usually have them."""
        net = self._ruling.source.nets.get(self._ruling.body)
        return {id: QPointF(float(at[0]), float(at[1])) for id, at in net.points.items()} if net is not None else {}

    def refresh(self) -> None:
        """Draws again."""
        at = list(self.points.values())
        box = EMPTY
        if at:
            xs, ys = [one.x() for one in at], [one.y() for one in at]
            box = QRectF(QPointF(min(xs), min(ys)), QPointF(max(xs), max(ys))).adjusted(-ROOM, -ROOM, ROOM, ROOM)
        was, self._box = self._box, box
        self._fit_again(was)

    def content_box(self) -> QRectF:
        return self._box

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        px = 1.0 / self.scale
        points, ruling = self.points, self._ruling
        piece = ruling.source.pieces.get(ruling.body)
        if piece is not None:
            corner = piece.corners[NECK]
            painter.save()
            painter.translate(-corner[0], -corner[1])
            painter.setBrush(NOW.color("paper"))
            painter.setPen(QPen(NOW.color("ink"), 1.8 * px))
            painter.drawPath(qt_path([piece.traced.outline]))
            painter.restore()
        if NECK in points and WAIST in points:
            painter.setPen(QPen(NOW.color("quiet"), 1.0 * px, Qt.PenStyle.DashDotLine))
            painter.drawLine(points[NECK], points[WAIST])
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for one in ruling.open:
            painter.setPen(QPen(NOW.color("error"), 1.4 * px, Qt.PenStyle.DashLine))
            painter.drawLine(points[one.point], points[one.source])
        self._arcs(painter, points, px)

    def _arcs(self, painter: QPainter, points: dict[str, QPointF], px: float) -> None:
        """The arcs that cross at the point whose measures are typed."""
        ruling = self._ruling
        net, lit = ruling.source.nets.get(ruling.body), ruling.lit
        if net is None or lit not in points:
            return
        painter.setPen(QPen(NOW.color("citrus"), 1.3 * px))
        for (point, source), off in net.off.items():
            if lit not in (point, source) or {point, source} == {NECK, WAIST}:
                continue
            centre, at = (points[source], points[point]) if point == lit else (points[point], points[source])
            way = at - centre
            r = math.hypot(way.x(), way.y()) - off
            angle = math.degrees(math.atan2(-way.y(), way.x()))
            box = QRectF(centre.x() - r, centre.y() - r, 2.0 * r, 2.0 * r)
            painter.drawArc(box, round((angle - SWEEP) * 16), round(2.0 * SWEEP * 16))
            painter.drawLine(centre, centre + way * (r / max(math.hypot(way.x(), way.y()), 1e-9)))

    def paint_over(self, painter: QPainter) -> None:
        points, ruling = self.points, self._ruling
        net = ruling.source.nets.get(ruling.body)
        if net is None:
            painter.setFont(text_font(11))
            painter.setPen(NOW.color("quiet"))
            room = QRectF(self.rect()).adjusted(RULER + 40, RULER + 40, -40, -40)
            painter.drawText(room, Qt.TextFlag.TextWordWrap, ruling.source.faults.get(ruling.body, ""))
            return
        middle = self.to_px(*np.mean([(at.x(), at.y()) for at in points.values()], axis=0))
        taken: list[QRectF] = []
        for id, at in points.items():
            place = self.to_px(at.x(), at.y())
            is_lit, is_loose = id == ruling.lit, id in net.loose
            colour = "cool" if is_lit else "quiet" if is_loose else "ink"
            painter.setPen(
                QPen(NOW.color(colour), 2.2 if is_lit else 1.3, Qt.PenStyle.DotLine if is_loose else Qt.PenStyle.SolidLine)
            )
            painter.setBrush(NOW.color("cool_pale" if is_lit else "paper"))
            painter.drawEllipse(place, 5.5 if is_lit else 4.0, 5.5 if is_lit else 4.0)
            self._name(painter, f"{point_words(id)}?" if is_loose else point_words(id), place, middle, taken)
        painter.setPen(NOW.color("error"))
        for one in ruling.open[:6]:
            a, b = points[one.point], points[one.source]
            how = f"{format_length(abs(one.off), ruling.file.units, fine=True)} {'short' if one.off > 0 else 'long'}"
            at = self.to_px((a.x() + b.x()) / 2.0, (a.y() + b.y()) / 2.0)
            wide = QFontMetricsF(painter.font()).horizontalAdvance(how)
            box = QRectF(at.x() + 4, at.y() - 7, wide, 14)
            while any(box.intersects(other) for other in taken):
                box.translate(0, 12)
            taken.append(box)
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, how)

    def _name(self, painter: QPainter, name: str, place: QPointF, middle: QPointF, taken: list[QRectF]) -> None:
        """A point's name, away from the middle of the piece where there is room."""
        painter.setFont(text_font(8))
        wide = QFontMetricsF(painter.font()).horizontalAdvance(name)
        left, right = -wide - 9.0, 9.0
        near, far = (left, right) if place.x() < middle.x() else (right, left)
        for dx, dy in ((near, -7.0), (near, -20.0), (near, 6.0), (far, -7.0), (far, -20.0), (far, 6.0)):
            box = QRectF(place.x() + dx, place.y() + dy, wide, 14.0)
            if not any(box.intersects(other) for other in taken):
                taken.append(box)
                painter.drawText(box, Qt.AlignmentFlag.AlignCenter, name)
                return

    # Pointing.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            here = event.position()
            near = {id: (self.to_px(at.x(), at.y()) - here).manhattanLength() for id, at in self.points.items() if id != NECK}
            best = min(near, key=lambda id: near[id], default=None)
            if best is not None and near[best] <= NEAR:
                self.picked.emit(best)
                return
        super().mousePressEvent(event)
