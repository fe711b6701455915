"""The steps behind a door as tiles: each pictured on the user's own pattern, as it was and as it would be."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.steps.registry import headings
from zesty_pivot.desk.drawer.doors import Door
from zesty_pivot.desk.drawer.picture_grid import PICTURE, PictureGrid, Tried, blank
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW
from zesty_pivot.desk.trying import first_that_works

COLUMNS = 2


class Tiles(QWidget):
    """The tiles of one door. What cannot be done now is dim and says why."""

    def __init__(self, model: DeskModel, door: Door, add: Callable[[str], None], tell: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._tell, self.door = model, tell, door
        steps = headings()
        self.grid = PictureGrid({do: (steps[do].title, steps[do].summary) for do in door.steps}, "", COLUMNS, may_be_dim=True)
        self.grid.is_held = lambda: model.is_previewing
        model.changed.connect(self.grid.wait)
        self._shown: tuple[object, ...] = ()
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.addWidget(self.grid)
        rows.addStretch(1)
        self.grid.looked.connect(self._look)
        self.grid.left.connect(lambda: tell(""))
        self.grid.chosen.connect(add)

    def refresh(self) -> None:
        """The pictures anew, where the pattern on the table is another one."""
        key = (self._model.pattern, self._model.pivot, self._model.dart, self._model.style.units)
        if self._model.is_previewing or key == self._shown:
            return
        self._shown = key
        self.grid.begin(self._worked, partial(self._picture, self._model.pattern))

    def _worked(self, do: str) -> Tried:
        form = all_forms()[do]
        value = form.first(self._model) if form.can(self._model) else None
        if value is None:
            return Tried(None, why_not(do, self._model))
        trial = first_that_works(self._model, (value,))
        return Tried(trial.pattern, trial.fault)

    def _look(self, do: str) -> None:
        self._tell(self.grid.said(do))

    def _picture(self, before: Pattern, after: Pattern) -> QPixmap:
        """The pieces that change: as they were dashed, as they would be on paper."""
        known = {id(piece) for piece in before.with_extras}
        made = [piece for piece in after.with_extras if id(piece) not in known] or list(after.pieces)
        new = [piece for piece in made if piece not in after.pieces]
        if new and len(new) == len(made):
            return _drawn((), made[:1], self.devicePixelRatioF())
        made = [piece for piece in made if piece in after.pieces]
        names = {piece.of or piece.name for piece in made}
        first = next((name for name in ("front", *names) if name in names), "")
        made = [piece for piece in made if (piece.of or piece.name) == first]
        return _drawn(before.come_from(first), made, self.devicePixelRatioF())


def _drawn(before: tuple[Piece, ...], after: list[Piece], ratio: float) -> QPixmap:
    box = QRectF()
    for piece in (*before, *after):
        box = box.united(shapes_of(piece).box)
    box = box.adjusted(-box.width() * 0.02, -box.height() * 0.02, box.width() * 0.02, box.height() * 0.02)
    pixmap = blank(ratio)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    scale = min(PICTURE.width() / max(box.width(), 1.0), PICTURE.height() / max(box.height(), 1.0))
    painter.translate(PICTURE.width() / 2.0, PICTURE.height() / 2.0)
    painter.scale(scale, scale)
    painter.translate(-box.center())
    pen = QPen(NOW.color("citrus"), 1.0 / scale)
    pen.setDashPattern([3.0, 2.5])
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for piece in before:
        painter.drawPath(shapes_of(piece).fill)
    for piece in after:
        shapes = shapes_of(piece)
        painter.setPen(QPen(NOW.color("ink"), 1.1 / scale))
        painter.setBrush(NOW.color("paper"))
        painter.drawPath(shapes.fill)
        painter.setPen(QPen(NOW.color("cool"), 0.9 / scale))
        painter.drawPath(shapes.marks)
    painter.end()
    return pixmap


# Why a step cannot be begun, in a sentence.
WHY = {
    "dart.merge": "Two darts of one pivot are needed; there is no such pair.",
    "dart.equalise": "Two darts of one pivot are needed; there is no such pair.",
    "dart.return": "No dart is parked.",
    "piece.join": "There are no two panels to join.",
    "yoke.join": "Front and back yoke are needed; cut them first.",
    "trim.strap": "There is no bare shoulder that a strap would bridge.",
}


def why_not(do: str, model: DeskModel) -> str:
    """Why a kind of step cannot be added to the pattern on the table."""
    if do in WHY:
        return WHY[do]
    if do.startswith("dart.") and not any(piece.darts for piece in model.pattern.pieces):
        return "There is no dart on the table."
    return "No place on this pattern has room for it."
