"""A canvas that draws what keeps still once for each view, and only the rest from frame to frame."""

from __future__ import annotations

from collections.abc import Hashable

from PyQt6.QtGui import QPainter, QPixmap

from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.theme import NOW


class KeptCanvas(Canvas):
    """Subclasses say what keeps still; pictures that leave the program are drawn whole all the same."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self._kept: tuple[Hashable, QPixmap] | None = None  # what keeps still, as it was drawn last

    def still_key(self) -> Hashable:
        """What a picture of all that keeps still depends on beside the view itself."""
        return None

    def paint_still(self, painter: QPainter) -> None:
        """Draws in mm what keeps still; all of it where the subclass tells nothing apart."""
        self.paint_content(painter)

    def paint_moving(self, painter: QPainter) -> None:
        """Draws in mm what changes from frame to frame."""

    def _render(self, painter: QPainter) -> None:
        painter.drawPixmap(0, 0, self._still_picture())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setClipRect(self.rect().adjusted(RULER, RULER, 0, 0))
        self._in_mm(painter, self.paint_moving)
        self.paint_over(painter)
        painter.setClipping(False)
        self._focus_frame(painter)

    def _still_picture(self) -> QPixmap:
        ratio = self.devicePixelRatioF()
        view = (self.size(), self.origin.x(), self.origin.y(), self.scale, ratio, NOW.theme.name, self.unit())
        key = (self.still_key(), *view)
        if self._kept is None or self._kept[0] != key:
            picture = QPixmap(self.size() * ratio)
            picture.setDevicePixelRatio(ratio)
            painter = QPainter(picture)
            try:
                self._ground(painter)
                self._in_mm(painter, self.paint_still)
                self._rulers(painter)
            finally:
                painter.end()
            self._kept = (key, picture)
        return self._kept[1]
