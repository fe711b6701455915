"""Icons of the shipped set, drawn in the theme's ink when they are first shown."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files
from pathlib import Path

from PyQt6.QtCore import QByteArray, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QIcon, QIconEngine, QPainter, QPixmap
from PyQt6.QtSvg import QSvgRenderer

from zesty_pivot.desk.theme import NOW

PALE = 0.42  # opacity of an icon that cannot be used now


def icon(name: str, color: str = "") -> QIcon:
    """An icon by its file name, in a colour (the ink of the theme in use when none is given).

    Raises FileNotFoundError for a name that does not ship.
    """
    return _made(name, color or NOW.ink)


@lru_cache(maxsize=256)
def _made(name: str, color: str) -> QIcon:
    if f"{name}.svg" not in _shipped():
        raise FileNotFoundError(f"no icon {name!r} ships")
    return QIcon(_Engine(name, color))


@lru_cache(maxsize=1)
def _folder() -> Path:
    return Path(str(files("zesty_pivot.data"))) / "icons"


@lru_cache(maxsize=1)
def _shipped() -> frozenset[str]:
    return frozenset(path.name for path in _folder().iterdir())


class _Engine(QIconEngine):
    """Renders the drawing at the size that is asked for; its file is read only then."""

    def __init__(self, name: str, color: str) -> None:
        super().__init__()
        self._name, self._color = name, color

    def clone(self) -> QIconEngine:
        return _Engine(self._name, self._color)

    def paint(self, painter: QPainter | None, rect: QRect, mode: QIcon.Mode, state: QIcon.State) -> None:
        if painter is not None:
            painter.save()
            painter.setOpacity(PALE if mode == QIcon.Mode.Disabled else 1.0)
            _renderer(self._name, self._color).render(painter, QRectF(rect))
            painter.restore()

    def pixmap(self, size: QSize, mode: QIcon.Mode, state: QIcon.State) -> QPixmap:
        found = QPixmap(size)
        if found.isNull():  # asked for no size, as a button without room does
            return found
        found.fill(Qt.GlobalColor.transparent)
        painter = QPainter(found)
        self.paint(painter, QRect(0, 0, size.width(), size.height()), mode, state)
        painter.end()
        return found


@lru_cache(maxsize=256)
def _renderer(name: str, color: str) -> QSvgRenderer:
    text = (_folder() / f"{name}.svg").read_text(encoding="utf-8")
    return QSvgRenderer(QByteArray(text.replace("currentColor", color).encode()))
