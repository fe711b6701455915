"""What is drawn alike from frame to frame, kept as small pictures: letters and thick curves take long, a picture does not."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPixmap
from PyQt6.QtWidgets import QWidget

from zesty_pivot.desk.theme import NOW

GRID = 4.0  # px: pictures lie on this grid, which is one of whole dots at 125, 150 and 175 % as well
EDGE = 3.0  # px that what is drawn may reach beyond its ground, by the pen's width


def fine(px: float) -> float:
    """A place in px as exactly as it is seen: the noise of float64 would make every frame's another one."""
    return round(px * 16.0) / 16.0


class Stamps:
    """Pictures by what they show and where. One that a whole frame did not use is let go."""

    def __init__(self) -> None:
        self._kept: dict[Hashable, tuple[QPointF, QPixmap]] = {}
        self._used: dict[Hashable, tuple[QPointF, QPixmap]] = {}

    def begin(self) -> None:
        """A new frame."""
        self._kept, self._used = self._used, {}

    def paint(self, painter: QPainter, key: Hashable, ground: QRectF, draw: Callable[[QPainter], None]) -> None:
        """Draws on some ground (px) what `key` tells wholly, its place included. On anything but the table itself, as in
        pictures that leave the program, it is drawn as it is."""
        device = painter.device()
        if not isinstance(device, QWidget):
            draw(painter)
            return
        ratio = device.devicePixelRatioF()
        known = (key, ratio, NOW.theme.name)
        found = self._used.get(known) or self._kept.get(known) or _made(ground, ratio, draw)
        self._used[known] = found
        painter.drawPixmap(*found)


def _made(ground: QRectF, ratio: float, draw: Callable[[QPainter], None]) -> tuple[QPointF, QPixmap]:
    left, top = (math.floor((at - EDGE) / GRID) * GRID for at in (ground.left(), ground.top()))
    wide, high = (math.ceil((at + EDGE) * ratio) for at in (ground.right() - left, ground.bottom() - top))
    picture = QPixmap(max(wide, 1), max(high, 1))
    picture.setDevicePixelRatio(ratio)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    try:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.translate(-left, -top)
        draw(painter)
    finally:
        painter.end()
    return QPointF(left, top), picture
