"""Icons of the shipped set, drawn in the theme's ink."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

from PyQt6.QtCore import QByteArray, QSize
from PyQt6.QtGui import QIcon, QPainter, QPixmap
from PyQt6.QtSvg import QSvgRenderer

from zesty_pivot.desk.theme import LIGHT


@lru_cache(maxsize=128)
def icon(name: str, color: str = LIGHT.ink) -> QIcon:
    """An icon by its file name, in a colour. Raises FileNotFoundError for a name that does not ship."""
    text = (files("zesty_pivot.data") / "icons" / f"{name}.svg").read_text(encoding="utf-8")
    renderer = QSvgRenderer(QByteArray(text.replace("currentColor", color).encode()))
    found = QIcon()
    for size in (18, 36):
        pixmap = QPixmap(QSize(size, size))
        pixmap.fill(LIGHT.color("paper", 0))
        painter = QPainter(pixmap)
        renderer.render(painter)
        painter.end()
        found.addPixmap(pixmap)
    return found
