"""The draft on the table: it grows line by line as a person would draw it, over tracing paper of what it is compared with."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPen

from zesty_pivot.core.drafting.layout import Item, Layout, laid_out
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.drafting import Drafting
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.shapes import qt_path
from zesty_pivot.desk.theme import NOW, display_font, text_font

EDGE = 16.0  # mm of paper round the draft
NEAR = 12.0  # px within which the pointer means a point
STEPS = {
    Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_PageDown: 10, Qt.Key.Key_PageUp: -10, Qt.Key.Key_Home: -10_000,
    Qt.Key.Key_End: 10_000,
}  # fmt: skip


class DraftTable(Canvas):
    """Draws as many operations as the drafting says; the last of them is lit. Arrow keys go on and back."""

    def __init__(self, model: DeskModel, drafting: Drafting) -> None:
        super().__init__(model)
        self._drafting = drafting
        self._layout: Layout | None = None
        self._other: Layout | None = None
        self._pointed = ""  # the full name of the point under the pointer
        self.setAccessibleName("Draft")
        drafting.changed.connect(self.refresh)
        drafting.stepped.connect(self.update)
        self.refresh()

    @contained("the draft")
    def refresh(self) -> None:
        """Lays the draft out again."""
        drawn, other = self._drafting.drawn, self._drafting.other
        was = self.content_box()
        self._layout = None if drawn is None else laid_out(drawn)
        self._other = None if other is None or self._layout is None else laid_out(other, self._layout.box)
        if self._fitted and self.content_box() != was:
            self.fit()
        self.update()

    def content_box(self) -> QRectF:
        layout = self._layout
        if layout is None:
            return QRectF(0, 0, 500, 480)
        return QRectF(-layout.left - EDGE, -layout.top - EDGE, layout.width + 2 * EDGE, layout.height + 2 * EDGE)

    def _reached(self) -> tuple[list[Item], Item | None]:
        """The items that are drawn so far, and the one that was drawn last, if it is the last operation."""
        drawn = self._drafting.drawn
        if drawn is None or self._layout is None:
            return [], None
        done = drawn.shown[: self._drafting.reached]
        names = {each.name for each in done}
        items = [item for item in self._layout.items if item.done.name in names]
        last = items[-1] if items and done and items[-1].done is done[-1] and self._drafting.at is not None else None
        return items, last

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        px = 1.0 / self.scale
        painter.fillRect(self.content_box().translated(2 * px, 3 * px), NOW.color("shadow", 40))
        painter.fillRect(self.content_box(), NOW.color("paper"))
        if self._layout is None:
            return
        items, last = self._reached()
        if self._other is not None and self._drafting.at is None:
            painter.setPen(QPen(NOW.color("cool", 190), 1.3 * px, Qt.PenStyle.DashLine))
            for item in self._other.items:
                if item.path is not None and item.done.operation.kind != "guide":
                    painter.drawPath(qt_path((item.path,)))
        for item in items:
            if item.path is not None and item is not last:
                painter.setPen(self._pen(item, px))
                painter.drawPath(qt_path((item.path,)))
        if last is not None and last.path is not None:
            painter.setPen(QPen(NOW.color("citrus"), 3.0 * px, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawPath(qt_path((last.path,)))

    def _pen(self, item: Item, px: float) -> QPen:
        if item.done.operation.kind == "guide":
            return QPen(NOW.color("faint"), 0.9 * px, Qt.PenStyle.DashLine)
        return QPen(NOW.color("ink"), (2.0 if item.is_seam else 1.1) * px, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)

    def paint_over(self, painter: QPainter) -> None:
        if self._layout is None:
            painter.setFont(text_font(11))
            painter.setPen(NOW.color("error"))
            room = QRectF(self.rect()).adjusted(70, 60, -50, -50)
            painter.drawText(room, Qt.TextFlag.TextWordWrap, self._drafting.fault or "Nothing to draw yet.")
            return
        items, last = self._reached()
        painter.setFont(text_font(7.5))
        taken: list[QRectF] = []
        points = [item for item in items if item.at is not None]
        for item in reversed(points):  # the later ones are the ones that stay
            self._point(painter, item, item is last, taken)
        self._names(painter)
        pointed = next((item for item in points if item.done.name == self._pointed), None)
        if pointed is not None:
            self._call(painter, pointed)

    def _point(self, painter: QPainter, item: Item, is_last: bool, taken: list[QRectF]) -> None:
        """A point's circle, and its number where there is room for it."""
        assert item.at is not None
        at = self.to_px(float(item.at[0]), float(item.at[1]))
        painter.setPen(QPen(NOW.color("citrus" if is_last else "ink"), 2.2 if is_last else 1.0))
        painter.setBrush(NOW.color("citrus_pale" if is_last else "paper"))
        size = 5.0 if is_last else 2.6
        painter.drawEllipse(at, size, size)
        wide = QFontMetricsF(painter.font()).horizontalAdvance(item.label)
        for dx, dy in ((5.0, -3.0), (-wide - 5.0, -3.0), (5.0, 11.0), (-wide - 5.0, 11.0)):
            box = QRectF(at.x() + dx, at.y() + dy - 9.0, wide, 11.0)
            if not any(box.intersects(other) for other in taken):
                taken.append(box)
                painter.setPen(NOW.color("citrus_ink" if is_last else "quiet"))
                painter.drawText(QPointF(at.x() + dx, at.y() + dy), item.label)
                return

    def _names(self, painter: QPainter) -> None:
        """Back and front, where each piece is."""
        painter.setFont(display_font(13))
        painter.setPen(NOW.color("faint"))
        assert self._layout is not None
        for name, share in (("back", 0.13), ("front", 0.87)):
            at = self.to_px(self._layout.box * share, self._layout.height * 0.4)
            painter.drawText(QRectF(at.x() - 60, at.y() - 12, 120, 24), Qt.AlignmentFlag.AlignCenter, name)

    def _call(self, painter: QPainter, item: Item) -> None:
        """The point under the pointer, by its name."""
        drawn = self._drafting.drawn
        if drawn is None or item.at is None:
            return
        painter.setFont(text_font(9))
        text = f"{item.label}  {drawn.title(item.done)}".strip()
        at = self.to_px(float(item.at[0]), float(item.at[1]))
        wide = QFontMetricsF(painter.font()).horizontalAdvance(text) + 14
        left = min(max(at.x() + 10, 30.0), self.width() - wide - 6)
        box = QRectF(left, at.y() - 30, wide, 21)
        painter.setPen(QPen(NOW.color("edge"), 1))
        painter.setBrush(NOW.color("paper", 240))
        painter.drawRoundedRect(box, 4, 4)
        painter.setPen(NOW.color("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    # Events.

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        super().mouseMoveEvent(event)
        if event is None or self._grab is not None:
            return
        items, _last = self._reached()
        near, name = NEAR, ""
        for item in items:
            if item.at is not None:
                gap = self.to_px(float(item.at[0]), float(item.at[1])) - event.position()
                away = (gap.x() ** 2 + gap.y() ** 2) ** 0.5
                if away < near:
                    near, name = away, item.done.name
        if name != self._pointed:
            self._pointed = name
            self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        step = STEPS.get(Qt.Key(event.key())) if event is not None and not event.modifiers() else None
        if step is None:
            super().keyPressEvent(event)
        else:
            self._drafting.go(self._drafting.reached + step)
