"""What is written on the table of the import: names of pieces, edges and corners, signs to point at, the largest distance."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QFontMetricsF, QPainter, QPen, QPolygonF

from zesty_pivot.core.intake.guesses import Sure
from zesty_pivot.core.quantity import format_length
from zesty_pivot.desk.incoming import Incoming
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.incoming_things import IncomingThing, LaidPiece
from zesty_pivot.desk.theme import NOW, display_font, text_font

ROLE_WORDS = {"side_seam": "side seam"}


class IncomingMarks:
    """Writes with one painter, in px; what is written does not lie on what was written before."""

    def __init__(
        self, painter: QPainter, canvas: Canvas, incoming: Incoming, laid: Sequence[LaidPiece], *, on_picture: bool
    ) -> None:
        """`on_picture`: a photograph lies under it, and words need paper behind them."""
        self._painter, self._canvas, self._incoming, self._laid, self._on_picture = painter, canvas, incoming, laid, on_picture
        self._taken: list[QRectF] = []

    def title(self, laid: LaidPiece) -> None:
        """The name of a piece above it."""
        painter = self._painter
        at = self._canvas.to_px(laid.box.center().x(), laid.box.top())
        painter.setFont(display_font(13))
        painter.setPen(NOW.color("ink" if laid.tagged is not None else "quiet"))
        name = laid.tagged.name if laid.tagged is not None else "no part of the block"
        painter.drawText(QRectF(at.x() - 140, at.y() - 48, 280, 22), Qt.AlignmentFlag.AlignCenter, name)

    def roles(self, laid: LaidPiece) -> None:
        """The names of its edges, inside them."""
        painter = self._painter
        tagged = laid.tagged
        assert tagged is not None
        painter.setFont(text_font(8))
        painter.setPen(NOW.color("quiet"))
        middle = self._canvas.to_px(laid.box.center().x(), laid.box.center().y())
        for role, span in tagged.seen.edges.items():
            run = max(span.runs, key=lambda run: run.length)
            x, y = map(float, laid.shift(run.point_at(run.length / 2.0)))
            at = self._canvas.to_px(x, y)
            name = "hem" if role == "waist" and tagged.is_hip else ROLE_WORDS.get(role, role)
            way = middle - at
            size = max(1.0, (way.x() ** 2 + way.y() ** 2) ** 0.5)
            metrics = QFontMetricsF(painter.font())
            wide = metrics.horizontalAdvance(name)
            centre = at + way * ((14.0 + 0.45 * wide * abs(way.x()) / size) / size)
            box = QRectF(centre.x() - wide / 2.0, centre.y() - 7.0, wide, 14.0)
            if not any(box.intersects(other) for other in self._taken):
                self._taken.append(box)
                self._write(box, name)

    def thing(self, thing: IncomingThing, at: QPointF, *, is_pointed: bool) -> None:
        """The sign of a thing at a place, px, with its name."""
        painter = self._painter
        is_chosen = (thing.number, thing.what) == self._incoming.chosen
        is_lit = is_chosen or is_pointed
        colour = "error" if thing.sure is Sure.UNSURE else "citrus_ink" if thing.sure is Sure.LIKELY else "ink"
        painter.setPen(QPen(NOW.color("cool" if is_lit else colour), 2.4 if is_lit else 1.4))
        painter.setBrush(QBrush(NOW.color("cool_pale" if is_lit else "paper")))
        size = 5.5 if is_lit else 4.0
        if thing.what.startswith("corner"):
            painter.drawRect(QRectF(at.x() - size, at.y() - size, 2 * size, 2 * size))
        elif thing.what.startswith("dart"):
            painter.drawPolygon(
                QPolygonF([at + QPointF(0, -size - 1), at + QPointF(size, size - 1), at + QPointF(-size, size - 1)])
            )
        else:
            painter.drawEllipse(at, size + 1, size + 1)
            painter.drawLine(at - QPointF(size + 4, 0), at + QPointF(size + 4, 0))
            painter.drawLine(at - QPointF(0, size + 4), at + QPointF(0, size + 4))
        name = f"{thing.name}?" if thing.sure is Sure.UNSURE else thing.name
        painter.setFont(text_font(8.5, bold=is_lit))
        painter.setPen(NOW.color("cool" if is_lit else colour))
        wide = QFontMetricsF(painter.font()).horizontalAdvance(name)
        for dx, dy in self._beside(thing, wide):
            box = QRectF(at.x() + dx, at.y() + dy, wide, 14.0)
            if is_lit or not any(box.intersects(other) for other in self._taken):
                self._taken.append(box)
                self._write(box, name)
                return

    def _write(self, box: QRectF, text: str) -> None:
        """Words; on a photograph on a slip of paper, to be read on any ground."""
        painter = self._painter
        if self._on_picture:
            pen = painter.pen()
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(NOW.color("paper", 205))
            painter.drawRoundedRect(box.adjusted(-3, 0, 3, 0), 3, 3)
            painter.setPen(pen)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _beside(self, thing: IncomingThing, wide: float) -> list[tuple[float, float]]:
        """Where a name may stand beside its sign, px: outside the piece first."""
        left, right = -wide - 9.0, 9.0
        above, beside, below = -18.0, -7.0, 5.0
        laid = next(one for one in self._laid if one.number == thing.number)
        is_left = thing.at[0] < laid.box.center().x()
        near, far = (left, right) if is_left else (right, left)
        if not thing.what.startswith("corner"):
            return [(right, beside), (left, beside), (right, below + 6.0), (left, below + 6.0), (right, above), (left, above)]
        is_high = thing.at[1] < laid.box.top() + 0.2 * laid.box.height()
        first, last = (above, below) if is_high else (below, above)
        return [(near, first), (near, beside), (near, last), (-wide / 2.0, first), (far, first), (far, last)]

    def farthest(self, number: int, mm: float, at: tuple[float, float]) -> None:
        """The largest distance of a piece from what it came from, and where."""
        painter = self._painter
        laid = next((one for one in self._laid if one.number == number), None)
        if laid is None or mm < 0.02:
            return
        x, y = map(float, laid.shift(np.array(at)))
        place = self._canvas.to_px(x, y)
        painter.setPen(QPen(NOW.color("cool"), 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(place, 9.0, 9.0)
        painter.setFont(text_font(8))
        text = f"{format_length(mm, self._canvas.unit(), fine=True)} off"
        wide = QFontMetricsF(painter.font()).horizontalAdvance(text)
        box = QRectF(place.x() + 11, place.y() - 7, wide, 14)
        self._taken.append(box)
        self._write(box, text)
