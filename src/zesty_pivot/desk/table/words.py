"""Everything that is written on the table: laid out so that no words lie over others, at any zoom."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QFontMetricsF, QPainter, QPen, QPolygonF, QTransform

from zesty_pivot.core.record import record
from zesty_pivot.desk.theme import NOW

CLEAR = 1.0  # px between words

# Who gets the room: what is in the hand, the account, what is measured, names, marks, names of stations.
HELD, ACCOUNT, MEASURED, NAME, MARK, STATION = range(6)


@record
class Way:
    """One way to write something: the ground it takes (px), and what draws it."""

    ground: QPolygonF
    draw: Callable[[QPainter], None]


class Words:
    """Collects what is to be written in one frame, then writes what there is room for: the first way of each that is free. What
    has to be written is, over others where it must."""

    def __init__(self) -> None:
        self._asked: list[tuple[int, int, str, tuple[Way, ...], bool]] = []
        self.written: list[tuple[str, QPolygonF]] = []  # what the last frame wrote, and where

    def begin(self) -> None:
        """A new frame."""
        self._asked.clear()

    def add(self, rank: int, text: str, ways: Sequence[Way], *, has_to: bool = False) -> None:
        """Something to write; a lower rank is written first."""
        if text and ways:
            self._asked.append((rank, len(self._asked), text, tuple(ways), has_to))

    def paint(self, painter: QPainter, room: QRectF) -> None:
        """Writes, within a part of the table (px)."""
        self.written = []
        for _rank, _number, text, ways, has_to in sorted(self._asked, key=lambda one: one[:2]):
            found = next((way for way in ways if self._is_free(way.ground, room)), None)
            if found is None and has_to:
                found = ways[0]
            if found is not None:
                found.draw(painter)
                self.written.append((text, found.ground))

    def _is_free(self, ground: QPolygonF, room: QRectF) -> bool:
        if not room.contains(ground.boundingRect()):
            return False
        return not any(other.intersects(ground) for _text, other in self.written)


def level(box: QRectF) -> QPolygonF:
    """The ground of words that stand level."""
    return QPolygonF(box.adjusted(-CLEAR, -CLEAR, CLEAR, CLEAR))


def slip(text: str, font: QFont, middle: QPointF, color: str, fill: str = "paper", high: float = 20.0) -> Way:
    """Words on a slip of paper with an edge in a colour of the theme."""
    wide = QFontMetricsF(font).horizontalAdvance(text) + 12.0
    box = QRectF(middle.x() - wide / 2.0, middle.y() - high / 2.0, wide, high)

    def draw(painter: QPainter) -> None:
        painter.setFont(font)
        painter.setPen(QPen(NOW.color(color), 1.2))
        painter.setBrush(NOW.color(fill, 245))
        painter.drawRoundedRect(box, 5, 5)
        painter.setPen(NOW.color("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    return Way(level(box), draw)


def plain(text: str, font: QFont, box: QRectF, color: str, flags: Qt.AlignmentFlag) -> Way:
    """Words without a slip, in a box (px) that they may leave empty in part; only what they fill is their ground."""
    metrics = QFontMetricsF(font)
    ground = metrics.boundingRect(box, int(flags.value) | int(Qt.TextFlag.TextWordWrap.value), text)

    def draw(painter: QPainter) -> None:
        painter.setFont(font)
        painter.setPen(NOW.color(color))
        painter.drawText(box, int(flags.value) | int(Qt.TextFlag.TextWordWrap.value), text)

    return Way(level(ground), draw)


def turned(text: str, font: QFont, pin: QPointF, angle: float, away: float, *, marked: bool) -> Way:
    """Words along a direction (radians) from a pin, so far (px) away from it, never upside down."""
    wide = QFontMetricsF(font).horizontalAdvance(text) + 6.0
    degrees = math.degrees(angle)
    flipped = abs((degrees + 180.0) % 360.0 - 180.0) > 90.0
    box = QRectF(-away - wide if flipped else away, -7.0, wide, 14.0)
    turn = QTransform.fromTranslate(pin.x(), pin.y()).rotate(degrees + 180.0 if flipped else degrees)

    def draw(painter: QPainter) -> None:
        painter.save()
        painter.setTransform(turn, combine=True)
        painter.setFont(font)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("citrus_pale" if marked else "paper", 235 if marked else 190))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(NOW.color("ink" if marked else "quiet"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.restore()

    return Way(turn.map(QPolygonF(box)), draw)
