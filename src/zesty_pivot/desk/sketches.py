"""Small pictures of garments: their flat sketches, worked out beside whatever else goes on."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence

from PyQt6.QtCore import QPointF, QSize, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap

from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.sketch import sketched
from zesty_pivot.core.making.flat_sketch import SketchView
from zesty_pivot.desk.table.shapes import qt_area, qt_path
from zesty_pivot.desk.theme import NOW

GAP, EDGE = 14.0, 6.0  # px between front and back, and round both
WIDTHS = {"outline": 1.4, "opening": 1.4, "seam": 1.0}  # px; everything else is thinner
THIN = 0.8


def searched(styles: Sequence[tuple[object, Derived]]) -> Callable[[threading.Event], Iterator[object]]:
    """What works out sketches one after the other: each with whose it is."""
    return lambda _stop: ((owner, sketched(derived)) for owner, derived in styles)


def sketch_picture(views: tuple[SketchView, ...], size: QSize, ratio: float) -> QPixmap:
    """Front and back side by side, as large as a size has room for. `ratio` is pixels per logical pixel."""
    pixmap = QPixmap(size * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(Qt.GlobalColor.transparent)
    boxes = [view.box for view in views]
    wide, tall = sum(box[2] - box[0] for box in boxes), max(box[3] - box[1] for box in boxes)
    room = size.width() - 2.0 * EDGE - GAP * (len(views) - 1), size.height() - 2.0 * EDGE
    scale = min(room[0] / wide, room[1] / tall)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    x = (size.width() - wide * scale - GAP * (len(views) - 1)) / 2.0
    for view, (left, top, right, _low) in zip(views, boxes, strict=True):
        painter.save()
        painter.translate(QPointF(x - left * scale, (size.height() - tall * scale) / 2.0 - top * scale))
        painter.scale(scale, scale)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("table"))
        painter.drawPath(qt_area(view.area))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for stroke in view.strokes:
            painter.setPen(QPen(NOW.color("ink"), WIDTHS.get(stroke.kind, THIN) / scale))
            painter.drawPath(qt_path((stroke.path,)))
        painter.restore()
        x += (right - left) * scale + GAP
    painter.end()
    return pixmap
