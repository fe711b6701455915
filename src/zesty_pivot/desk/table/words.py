"""Everything that is written on the table: laid out so that no words lie over others, at any zoom."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Iterable, Sequence
from functools import lru_cache

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QFontMetricsF, QPainter, QPen, QPolygonF, QTransform

from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.stamps import Stamps, fine
from zesty_pivot.desk.theme import NOW

CLEAR = 1.0  # px between words

# Who gets the room: what is in the hand, the account, what is measured, names, marks, names of stations.
HELD, ACCOUNT, MEASURED, NAME, MARK, STATION = range(6)


@record
class Way:
    """One way to write something: the ground it takes (px), what draws it, and what tells its look and its place wholly."""

    ground: QPolygonF
    draw: Callable[[QPainter], None]
    key: Hashable

    @cached_property
    def box(self) -> QRectF:
        """The box of its ground."""
        return self.ground.boundingRect()


class Words:
    """Collects what is to be written in one frame, then writes what there is room for: the first way of each that is free. What
    has to be written is, over others where it must."""

    def __init__(self) -> None:
        self._asked: list[tuple[int, int, str, Iterable[Way], bool]] = []
        self.written: list[tuple[str, QPolygonF]] = []  # what the last frame wrote, and where
        self.stamps = Stamps()

    def begin(self) -> None:
        """A new frame."""
        self._asked.clear()
        self.stamps.begin()

    def add(self, rank: int, text: str, ways: Iterable[Way], *, has_to: bool = False) -> None:
        """Something to write; a lower rank is written first. Of the ways no more are made than are tried."""
        if text:
            self._asked.append((rank, len(self._asked), text, ways, has_to))

    def paint(self, painter: QPainter, room: QRectF) -> None:
        """Writes, within a part of the table (px)."""
        self.written = []
        taken: list[Way] = []
        for _rank, _number, text, ways, has_to in sorted(self._asked, key=lambda one: one[:2]):
            first = found = None
            for way in ways:
                first = first or way
                if _is_free(way, room, taken):
                    found = way
                    break
            if found is None and has_to:
                found = first
            if found is not None:
                self.stamps.paint(painter, found.key, found.box, found.draw)
                self.written.append((text, found.ground))
                taken.append(found)


def _is_free(way: Way, room: QRectF, taken: Sequence[Way]) -> bool:
    if not room.contains(way.box):
        return False
    return not any(other.box.intersects(way.box) and other.ground.intersects(way.ground) for other in taken)


def level(box: QRectF) -> QPolygonF:
    """The ground of words that stand level."""
    return QPolygonF(box.adjusted(-CLEAR, -CLEAR, CLEAR, CLEAR))


# The same words at the same place are the same way from frame to frame: measuring letters takes longer than looking them up.


@lru_cache(maxsize=64)
def _font(described: str) -> QFont:
    found = QFont()
    found.fromString(described)
    return found


@lru_cache(maxsize=2048)
def _wide(text: str, font: str) -> float:
    return QFontMetricsF(_font(font)).horizontalAdvance(text)


def wide(text: str, font: QFont) -> float:
    """How wide words are in a font, px."""
    return _wide(text, font.toString())


def slip(text: str, font: QFont, middle: QPointF, color: str, fill: str = "paper", high: float = 20.0) -> Way:
    """Words on a slip of paper with an edge in a colour of the theme."""
    return _slip(text, font.toString(), fine(middle.x()), fine(middle.y()), color, fill, high)


@lru_cache(maxsize=512)
def _slip(text: str, font: str, x: float, y: float, color: str, fill: str, high: float) -> Way:
    across = _wide(text, font) + 12.0
    box = QRectF(x - across / 2.0, y - high / 2.0, across, high)

    def draw(painter: QPainter) -> None:
        painter.setFont(_font(font))
        painter.setPen(QPen(NOW.color(color), 1.2))
        painter.setBrush(NOW.color(fill, 245))
        painter.drawRoundedRect(box, 5, 5)
        painter.setPen(NOW.color("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    return Way(level(box), draw, ("slip", text, font, x, y, color, fill, high))


def plain(text: str, font: QFont, box: QRectF, color: str, flags: Qt.AlignmentFlag) -> Way:
    """Words without a slip, in a box (px) that they may leave empty in part; only what they fill is their ground."""
    x, y, across, high = (fine(one) for one in (box.x(), box.y(), box.width(), box.height()))
    return _plain(text, font.toString(), (x, y, across, high), color, int(flags.value) | int(Qt.TextFlag.TextWordWrap.value))


@lru_cache(maxsize=512)
def _plain(text: str, font: str, at: tuple[float, float, float, float], color: str, flags: int) -> Way:
    box = QRectF(*at)
    ground = QFontMetricsF(_font(font)).boundingRect(box, flags, text)

    def draw(painter: QPainter) -> None:
        painter.setFont(_font(font))
        painter.setPen(NOW.color(color))
        painter.drawText(box, flags, text)

    return Way(level(ground), draw, ("plain", text, font, at, color, flags))


def turned(text: str, font: QFont, pin: QPointF, angle: float, away: float, *, marked: bool) -> Way:
    """Words along a direction (radians) from a pin, so far (px) away from it, never upside down."""
    return _turned(text, font.toString(), (fine(pin.x()), fine(pin.y())), round(angle, 6), away, marked)


@lru_cache(maxsize=512)
def _turned(text: str, font: str, pin: tuple[float, float], angle: float, away: float, marked: bool) -> Way:
    across = _wide(text, font) + 6.0
    degrees = math.degrees(angle)
    flipped = abs((degrees + 180.0) % 360.0 - 180.0) > 90.0
    box = QRectF(-away - across if flipped else away, -7.0, across, 14.0)
    turn = QTransform.fromTranslate(*pin).rotate(degrees + 180.0 if flipped else degrees)

    def draw(painter: QPainter) -> None:
        painter.save()
        painter.setTransform(turn, combine=True)
        painter.setFont(_font(font))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("citrus_pale" if marked else "paper", 235 if marked else 190))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(NOW.color("ink" if marked else "quiet"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.restore()

    return Way(turn.map(QPolygonF(box)), draw, ("turned", text, font, pin, angle, away, marked))
