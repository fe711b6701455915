"""The paper view: the sheet with its pages as they will come out of the printer, and the ways to get it out."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPen
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.base import FULL
from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.sheet import Laid, Sheet
from zesty_pivot.core.formats.tiles import OVERLAP, PAPERS, Tile, Tiling, tiled
from zesty_pivot.core.recipe.hand import WAYS
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.finished import ScreenPen
from zesty_pivot.desk.theme import NOW, text_font

GAP = 14.0  # mm between the pages on the screen


class PaperCanvas(Canvas):
    """The pages side by side, each with what it carries; the strip that is glued over is tinted."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.setAccessibleName("Print preview")
        self.sheet: Sheet | None = None
        self.tiling: Tiling | None = None
        self.tiles: tuple[Tile, ...] = ()

    def show_sheet(self, sheet: Sheet | None, tiling: Tiling | None, tiles: tuple[Tile, ...]) -> None:
        """Shows a sheet cut into tiles; without tiling it is one page."""
        self.sheet, self.tiling, self.tiles = sheet, tiling, tiles
        if self._fitted:
            self.fit()
        self.update()

    def content_box(self) -> QRectF:
        if self.sheet is None:
            return QRectF(0, 0, 100, 100)
        if self.tiling is None:
            return QRectF(0, 0, self.sheet.width, self.sheet.height)
        box = QRectF()
        for tile in self.tiles:
            box = box.united(self._page(tile))
        return box

    def _page(self, tile: Tile) -> QRectF:
        """Where a page's printed field lies on the canvas, mm: its own place and a gap for each page before it."""
        if self.tiling is None:
            return QRectF()
        wide, tall = self.tiling.inner
        gap = GAP + OVERLAP
        return QRectF(tile.x + tile.column * gap, tile.y + tile.row * gap, wide, tall)

    def paint_content(self, painter: QPainter) -> None:
        if self.sheet is None:
            return
        if self.tiling is None:
            painter.fillRect(self.content_box(), NOW.color("paper"))
            self._draw(painter, self.sheet)
            return
        for tile in self.tiles:
            self._tile(painter, tile, self.sheet)

    def _tile(self, painter: QPainter, tile: Tile, sheet: Sheet) -> None:
        page, px = self._page(tile), 1.0 / self.scale
        painter.fillRect(page.translated(2 * px, 3 * px), NOW.color("shadow", 40))
        painter.fillRect(page, NOW.color("paper"))
        strip = NOW.color("citrus_pale")
        if self.tiling is not None and tile.column < self.tiling.columns - 1:
            painter.fillRect(QRectF(page.right() - OVERLAP, page.top(), OVERLAP, page.height()), strip)
        if self.tiling is not None and tile.row < self.tiling.rows - 1:
            painter.fillRect(QRectF(page.left(), page.bottom() - OVERLAP, page.width(), OVERLAP), strip)
        painter.save()
        painter.setClipRect(page)
        painter.translate(page.left() - tile.x, page.top() - tile.y)
        wide, tall = page.width(), page.height()
        self._draw(painter, sheet, QRectF(tile.x, tile.y, wide, tall))
        painter.restore()

    def _draw(self, painter: QPainter, sheet: Sheet, field: QRectF | None = None) -> None:
        """The pieces of the sheet; only those that reach into a field (mm), when one is given."""
        painter.save()
        draw(
            (laid for laid in sheet.laid if field is None or field.intersects(_box(laid))),
            ScreenPen(painter, 1.0 / self.scale, filled=False),
        )
        painter.restore()

    def paint_over(self, painter: QPainter) -> None:
        painter.setFont(text_font(9, bold=True))
        for tile in self.tiles if self.tiling else ():
            page = self._page(tile)
            at = self.to_px(page.left(), page.top())
            box = QRectF(at.x() + 6, at.y() + 6, 34, 20)
            painter.setPen(QPen(NOW.color("edge"), 1))
            painter.setBrush(NOW.color("paper", 235))
            painter.drawRoundedRect(box, 4, 4)
            painter.setPen(NOW.color("quiet"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, tile.name)


def _box(laid: Laid) -> QRectF:
    left, top, right, bottom = laid.piece.box()
    return QRectF(left + laid.dx, top + laid.dy, right - left, bottom - top)


class PaperView(QWidget):
    """Canvas, paper choice and export buttons. The buttons run actions of the window's table."""

    def __init__(self, model: DeskModel, keeper: Keeper, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._keeper = model, keeper
        self.canvas = PaperCanvas(model)
        self.paper = Choice("Paper")
        self.chosen: str = keeper.settings.paper
        self.hand = Choice("Hand sheet")
        self.summary = label("", "quiet")
        self.fault = label("", "fault")
        self.open_findings = label("", "warning")
        beside = side("right")
        beside.setFixedWidth(WIDTH)
        inside = Column()
        column = inside.rows
        column.setSpacing(6)
        around = QVBoxLayout(beside)
        around.setContentsMargins(0, 0, 0, 0)
        column.addWidget(label("Paper", "heading"))
        column.addWidget(self.paper)
        column.addWidget(label("Hand sheet after the pages", "quiet"))
        column.addWidget(self.hand)
        column.addWidget(self.summary)
        column.addWidget(self.fault)
        column.addWidget(self.open_findings)
        column.addSpacing(10)
        column.addWidget(label("Get it out", "heading"))
        said = {f"export.{one.id}": f"Save the {one.button or one.title}" for one in all_exports().values()}
        said |= {"export.hand": "Save the hand sheet alone", "export.all": "Save everything to a folder"}
        for action, text in said.items():
            button = QPushButton(text)
            if action == "export.pdf":
                button.setObjectName("primary")
            button.clicked.connect(lambda _checked=False, action=action: run(action))
            column.addWidget(button)
        column.addSpacing(10)
        hint = (
            "Print at 100 %, without fitting to the page. Measure the 10 cm or 4 in square on the first page "
            "before you cut. Lay the diamonds on each other to join the pages."
        )
        column.addWidget(label(hint, "quiet"))
        column.addStretch(1)
        around.addWidget(inside.scrolled())
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addWidget(self.canvas, 1)
        layout.addWidget(beside)
        self.paper.picked.connect(self.choose)
        self.hand.picked.connect(lambda way: model.recipe.set_finish({"hand_sheet": way}, "hand sheet"))
        model.pace.followed.connect(self.refresh)
        model.view_changed.connect(self.refresh)
        self.refresh()

    def choose(self, paper: str) -> None:
        """Another paper, or `full` for one page at full size."""
        self.chosen = paper
        self._keeper.change(lambda settings: settings.model_copy(update={"paper": paper}))
        self.refresh()

    @contained("the paper view")
    def refresh(self) -> None:
        """Shows the model, when this view is the one that is seen."""
        if self._model.view != "paper":
            return
        papers = [(name, f"{name}, tiled") for name in PAPERS]
        self.paper.show_choices([*papers, (FULL, "one page at full size")], self.chosen)
        ways = [("none", "none"), *WAYS.items()]
        self.hand.show_choices(ways, self._model.style.finish.hand_sheet)
        unit = self._model.length
        try:
            sheet = self._model.derived.sheet
            if self.chosen == FULL:
                self.canvas.show_sheet(sheet, None, ())
                self.summary.setText(f"One page of {unit(sheet.width)} by {unit(sheet.height)}.")
            else:
                tiling, tiles = tiled(sheet, self.chosen)
                self.canvas.show_sheet(sheet, tiling, tiles)
                plural = "" if len(tiles) == 1 else "s"
                self.summary.setText(
                    f"{len(tiles)} page{plural}, {tiling.columns} across by {tiling.rows} down, and a first page with the map. "
                    f"Neighbours share {unit(OVERLAP)}."
                )
            self.fault.setText("")
        except ZestyError as fault:
            self.canvas.show_sheet(None, None, ())
            self.summary.setText("")
            self.fault.setText(str(fault))
        self.fault.setVisible(bool(self.fault.text()))
        count = sum(finding.severity.value != "remark" for finding in self._model.derived.findings)
        stand = "1 finding stands" if count == 1 else f"{count} findings stand"
        self.open_findings.setText(f"{stand} open: look at Style before you cut." if count else "")
        self.open_findings.setVisible(bool(count))
