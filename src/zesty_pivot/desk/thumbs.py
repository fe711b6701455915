"""Small pictures of patterns, kept while their states are."""

from __future__ import annotations

from collections import OrderedDict

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap

from zesty_pivot.core.formats.table_lay import Left, TableLay
from zesty_pivot.core.piece import Pattern
from zesty_pivot.desk.contained import tried
from zesty_pivot.desk.table.lying import FLAT, layout_of
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW

LIMIT = 400
_kept: OrderedDict[tuple[int, int, int, str, str], tuple[Pattern, QPixmap]] = OrderedDict()


def thumbnail(pattern: Pattern, block: Pattern, size: QSize, ratio: float, left: Left = "back") -> QPixmap:
    """A picture of a pattern that fits a size, with its back or its front on the left; the same pattern keeps its picture.
    `ratio` is pixels per logical pixel."""
    key = _key(pattern, size, ratio, left)
    found = _kept.get(key)
    if found is None or found[0] is not pattern:
        picture = tried(lambda: _drawn(pattern, block, size, ratio, left), None, "a small picture of the pattern")
        found = (pattern, picture or _blank(size, ratio))
        _kept[key] = found
        while len(_kept) > LIMIT:
            _kept.popitem(last=False)
    else:
        _kept.move_to_end(key)  # what is shown stays; what was shown longest ago goes
    return found[1]


def is_drawn(pattern: Pattern, size: QSize, ratio: float, left: Left = "back") -> bool:
    """Whether a pattern's picture is at hand."""
    found = _kept.get(_key(pattern, size, ratio, left))
    return found is not None and found[0] is pattern


def _key(pattern: Pattern, size: QSize, ratio: float, left: Left) -> tuple[int, int, int, str, str]:
    return id(pattern), size.width(), round(ratio * 100), NOW.theme.name, left


def _blank(size: QSize, ratio: float) -> QPixmap:
    """An empty picture: what is shown of a pattern that cannot be drawn."""
    pixmap = QPixmap(size * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(Qt.GlobalColor.transparent)
    return pixmap


def _drawn(pattern: Pattern, block: Pattern, size: QSize, ratio: float, left: Left) -> QPixmap:
    pixmap = _blank(size, ratio)
    layout = layout_of(block, pattern, own=TableLay(left=left))
    box = QRectF()
    for piece in pattern.with_extras:
        box = box.united(layout.get(piece.name, FLAT).box(shapes_of(piece).box))
    scale = min((size.width() - 6) / box.width(), (size.height() - 6) / box.height())
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.translate(QPointF(size.width() / 2, size.height() / 2) - box.center() * scale)
    painter.scale(scale, scale)
    painter.setPen(QPen(NOW.color("ink"), 1.0 / scale))
    painter.setBrush(NOW.color("table"))
    for piece in pattern.with_extras:
        painter.save()
        layout.get(piece.name, FLAT).place(painter)
        painter.drawPath(shapes_of(piece).fill)
        painter.restore()
    painter.end()
    return pixmap
