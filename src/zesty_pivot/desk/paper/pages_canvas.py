"""The pages as they come out of the printer, side by side, each with what it carries."""

from __future__ import annotations

from collections.abc import Iterable

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPen

from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.sheet import Laid, Sheet
from zesty_pivot.core.nest.paged import Page
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.finished import ScreenPen
from zesty_pivot.desk.theme import NOW, text_font

GAP = 14.0  # mm between the pages on the screen


class PagesCanvas(Canvas):
    """The strip that is glued over is tinted; a page that is not printed is pale. A click on a page leaves it out or takes it
    in again."""

    clicked = pyqtSignal(object)  # a page

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.setAccessibleName("Print preview")
        self.sheet: Sheet | None = None
        self.plan: PagePlan | None = None
        self.printed: frozenset[int] = frozenset()
        self._pressed: QPointF | None = None

    def show_sheet(self, sheet: Sheet) -> None:
        """One page at full size."""
        self._show(sheet, None, frozenset())

    def show_plan(self, plan: PagePlan | None, printed: Iterable[Page] = ()) -> None:
        """Pages, and which of them are printed; nothing where there is no plan."""
        self._show(None, plan, frozenset(page.number for page in printed))

    def _show(self, sheet: Sheet | None, plan: PagePlan | None, printed: frozenset[int]) -> None:
        is_other = plan is not self.plan or sheet is not self.sheet
        self.sheet, self.plan, self.printed = sheet, plan, printed
        if is_other and self._fitted:
            self.fit()
        self.update()

    @property
    def tiles(self) -> tuple[Page, ...]:
        """The pages that are shown."""
        return () if self.plan is None else self.plan.pages

    def content_box(self) -> QRectF:
        if self.sheet is not None:
            return QRectF(0, 0, self.sheet.width, self.sheet.height)
        box = QRectF()
        for page in self.tiles:
            box = box.united(self.page_box(page))
        return QRectF(0, 0, 100, 100) if box.isEmpty() else box

    def page_box(self, page: Page) -> QRectF:
        """Where a page's printed field lies on the canvas, mm: its own place and a gap for each page before it."""
        if self.plan is None:
            return QRectF()
        wide, tall = self.plan.setup.field
        gap = GAP + self.plan.setup.overlap
        return QRectF(page.x + page.column * gap, page.y + page.row * gap, wide, tall)

    def paint_content(self, painter: QPainter) -> None:
        if self.sheet is not None:
            painter.fillRect(self.content_box(), NOW.color("paper"))
            self._draw(painter, self.sheet.laid)
        elif self.plan is not None:
            for page in self.tiles:
                self._page(painter, page, self.plan)

    def _page(self, painter: QPainter, page: Page, plan: PagePlan) -> None:
        box, px, shared = self.page_box(page), 1.0 / self.scale, plan.setup.overlap
        is_printed = page.number in self.printed
        painter.fillRect(box.translated(2 * px, 3 * px), NOW.color("shadow", 40))
        painter.fillRect(box, NOW.color("paper"))
        strip = NOW.color("citrus_pale")
        if plan.neighbour(page, 1, 0) is not None:
            painter.fillRect(QRectF(box.right() - shared, box.top(), shared, box.height()), strip)
        if plan.neighbour(page, 0, 1) is not None:
            painter.fillRect(QRectF(box.left(), box.bottom() - shared, box.width(), shared), strip)
        painter.save()
        painter.setClipRect(box)
        painter.setOpacity(1.0 if is_printed else 0.25)
        painter.translate(box.left() - page.x, box.top() - page.y)
        field = plan.field(page)
        self._draw(painter, (one for one, shape in zip(plan.laid, plan.shapes, strict=True) if shape.intersects(field)))
        painter.restore()
        if not is_printed:
            painter.setPen(QPen(NOW.color("quiet"), 1.5 * px, Qt.PenStyle.DashLine))
            painter.drawLine(box.topLeft(), box.bottomRight())
            painter.drawLine(box.topRight(), box.bottomLeft())

    def _draw(self, painter: QPainter, laid: Iterable[Laid]) -> None:
        painter.save()
        draw(laid, ScreenPen(painter, 1.0 / self.scale, filled=False))
        painter.restore()

    def paint_over(self, painter: QPainter) -> None:
        painter.setFont(text_font(9, bold=True))
        for page in self.tiles:
            box = self.page_box(page)
            at = self.to_px(box.left(), box.top())
            tag = QRectF(at.x() + 6, at.y() + 6, 34, 20)
            painter.setPen(QPen(NOW.color("edge"), 1))
            painter.setBrush(NOW.color("paper", 235))
            painter.drawRoundedRect(tag, 4, 4)
            painter.setPen(NOW.color("quiet"))
            painter.drawText(tag, Qt.AlignmentFlag.AlignCenter, page.name)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        super().mousePressEvent(event)
        self._pressed = event.position() if event is not None and event.button() == Qt.MouseButton.LeftButton else None

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        super().mouseReleaseEvent(event)
        if event is None or self._pressed is None:
            return
        moved, self._pressed = event.position() - self._pressed, None
        if moved.manhattanLength() < 4:
            at = self.to_mm(event.position())
            page = next((one for one in self.tiles if self.page_box(one).contains(at)), None)
            if page is not None:
                self.clicked.emit(page)
