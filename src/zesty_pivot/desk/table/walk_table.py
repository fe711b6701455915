"""The table while a seam is walked: one piece lies still, the other rolls along it."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QPainter, QPen, QTransform

from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.piece.names import words
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.table.shapes import qt_path, shapes_of
from zesty_pivot.desk.theme import NOW, text_font

if TYPE_CHECKING:
    from zesty_pivot.core.finish.walk import NotchPair, Walk

STEP = 0.01  # of the seam for an arrow key


def transform_of(motion: Motion) -> QTransform:
    """A motion as Qt's transform."""
    (a, b), (c, d) = motion.matrix.tolist()
    x, y = (motion.target - motion.matrix @ motion.origin).tolist()
    return QTransform(a, c, b, d, x, y)


class WalkTable(Canvas):
    """Shows the walk of the lay."""

    def __init__(self, model: DeskModel, lay: Lay) -> None:
        super().__init__(model)
        self._lay = lay
        self.setAccessibleName("Two seams walked along each other")
        self.setAccessibleDescription("Left and right roll the one seam along the other.")
        lay.changed.connect(self._refresh)
        model.changed.connect(self._refresh)

    @contained("the table")
    def _refresh(self) -> None:
        if self.isVisible():
            if self._fitted:
                self.fit()
            self.update()

    def content_box(self) -> QRectF:
        found = self._lay.walked
        if found is None:
            return QRectF(0, 0, 100, 100)
        # The seam and a good piece of cloth on both sides, so that it is seen large.
        ends = [found.a.point(share * found.a.length) for share in (0.0, 0.5, 1.0)]
        box = QRectF(QPointF(*np.min(ends, axis=0)), QPointF(*np.max(ends, axis=0)))
        side = 0.42 * found.a.length
        return box.adjusted(-side, -0.12 * found.a.length, side, 0.12 * found.a.length)

    def distance(self) -> float:
        """How far has been walked, mm."""
        found = self._lay.walked
        return self._lay.at * found.length if found else 0.0

    def paint_content(self, painter: QPainter) -> None:
        found = self._lay.walked
        if found is None:
            return
        thin = 1.4 / self.scale
        self._piece(painter, found, thin, is_rolled=False)
        painter.save()
        painter.setTransform(transform_of(found.laid(self.distance())), True)
        self._piece(painter, found, thin, is_rolled=True)
        painter.restore()

    def _piece(self, painter: QPainter, found: Walk, thin: float, *, is_rolled: bool) -> None:
        side = found.b if is_rolled else found.a
        shapes = shapes_of(side.piece)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("cool_pale" if is_rolled else "paper", 215 if is_rolled else 255))
        painter.drawPath(shapes.fill)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(NOW.color("quiet"), thin * 0.8, Qt.PenStyle.DashLine if is_rolled else Qt.PenStyle.SolidLine))
        painter.drawPath(shapes.seams)
        painter.drawPath(shapes.folds)
        painter.setPen(QPen(NOW.color("cool" if is_rolled else "ink"), thin * 1.9))
        painter.drawPath(qt_path(run.path for run in side.runs))
        for notch in found.notches:
            at = notch.b_mm if is_rolled else notch.a_mm
            if at is not None:
                self._notch(painter, side.point(at), side.direction(at), notch, thin, is_rolled=is_rolled)

    def _notch(
        self, painter: QPainter, at: np.ndarray, along: np.ndarray, notch: NotchPair, thin: float, *, is_rolled: bool
    ) -> None:
        """A stroke square to the seam, across it: two that meet make one line, two that miss make a step."""
        out = np.array([along[1], -along[0]]) * (9.0 / self.scale)
        missed = notch.difference_mm is not None and not notch.meets
        painter.setPen(QPen(NOW.color("error" if missed else "cool" if is_rolled else "ink"), thin * 2.2))
        painter.drawLine(QPointF(*(at - out)), QPointF(*(at + out)))

    def paint_over(self, painter: QPainter) -> None:
        found = self._lay.walked
        if found is None:
            return
        at = self.distance()
        point = found.a.point(min(at, found.a.length))
        spot = self.to_px(float(point[0]), float(point[1]))
        painter.setPen(QPen(NOW.color("citrus"), 2.4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(spot, 9, 9)
        running = found.running(at)
        longer, text = words(found.b.piece.name), self._model.length(abs(running), fine=True)
        if abs(running) < 0.05:
            text = "no difference so far"
        else:
            text = f"{longer if running > 0 else words(found.a.piece.name)} longer by {text} so far"
        painter.setFont(text_font(9.5, bold=True))
        width = painter.fontMetrics().horizontalAdvance(text) + 24
        left = min(max(spot.x() + 16, RULER + 8), self.width() - width - 8)
        box = QRectF(left, spot.y() - 13, width, 27)
        painter.setPen(QPen(NOW.color("citrus"), 1.4))
        painter.setBrush(NOW.color("paper", 245))
        painter.drawRoundedRect(box, 6, 6)
        painter.setPen(NOW.color("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        steps = {
            Qt.Key.Key_Left: -STEP, Qt.Key.Key_Right: STEP, Qt.Key.Key_Up: -STEP, Qt.Key.Key_Down: STEP,
            Qt.Key.Key_Home: -1.0, Qt.Key.Key_End: 1.0,
        }  # fmt: skip
        key = Qt.Key(event.key())
        if key in steps:
            self._lay.walk_to(self._lay.at + steps[key])
        else:
            super().keyPressEvent(event)
