"""The ring drawn: a pale band with ticks for stations, wedges for beads, the account in the middle."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import field

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPainterPath, QPen

from zesty_pivot.core.ledger import Account
from zesty_pivot.core.ledger.fullness import PARKED
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.ring_model import Bead, Ring, Target
from zesty_pivot.desk.table.stamps import fine
from zesty_pivot.desk.table.words import ACCOUNT, HELD, STATION, Way, Words, level, slip, turned, wide
from zesty_pivot.desk.theme import NOW, display_font, text_font

INNER, OUTER, HUB = 58.0, 82.0, 36.0  # px, where there is room
ROOM = 440.0  # px; on a table lower or narrower than this the ring is smaller
LEAST_SHARE = 0.66
LEAST_TURN = math.radians(6.0)  # names nearer to each other than this would touch
GRIP = 7.0  # px beyond the band where a bead can still be caught

CROWDED = math.radians(34.0)  # words nearer than this to each other on the ring lie over each other


@record
class Size:
    """The ring's radii in px: the band from `inner` to `outer`, the account in the middle, and the canvas it lies on."""

    inner: float = INNER
    outer: float = OUTER
    hub: float = HUB
    canvas: QRectF = field(default_factory=QRectF)

    @property
    def key(self) -> tuple[float, float, float]:
        """The radii, which tell how it is drawn."""
        return self.inner, self.outer, self.hub

    @classmethod
    def on(cls, canvas: QRectF) -> Size:
        """The ring for a canvas of this size."""
        share = min(1.0, max(LEAST_SHARE, min(canvas.width(), canvas.height()) / ROOM))
        hub = HUB * (share if share == 1.0 else 0.86 * share)  # the figures of the beads need their room
        return cls(INNER * share, OUTER * share, hub, canvas)


def _away(at: QPointF, angle: float, distance: float) -> QPointF:
    return at + QPointF(math.cos(angle), math.sin(angle)) * distance


def wedge(at: QPointF, start: float, sweep: float, inner: float, outer: float) -> QPainterPath:
    """A stretch of the band as a Qt path; angles in radians clockwise from +x."""
    path = QPainterPath()
    first, turn = -math.degrees(start), -math.degrees(sweep)
    big = QRectF(at.x() - outer, at.y() - outer, 2 * outer, 2 * outer)
    small = QRectF(at.x() - inner, at.y() - inner, 2 * inner, 2 * inner)
    path.arcMoveTo(big, first)
    path.arcTo(big, first, turn)
    path.arcTo(small, first + turn, -turn)
    path.closeSubpath()
    return path


def paint_band(painter: QPainter, words: Words, at: QPointF, size: Size, ring: Ring, active: Target | None) -> None:
    """The band with a tick for each station."""
    title = active.title if active is not None else ""
    ticks = tuple((round(target.angle, 6), target.title == title) for target in ring.targets)
    ground = _disc(at, size.outer + 5)
    words.stamps.paint(painter, ("band", _key(at), size.key, ticks), ground, lambda one: _band(one, at, size, ticks))


def _disc(at: QPointF, radius: float) -> QRectF:
    return QRectF(at.x() - radius, at.y() - radius, 2.0 * radius, 2.0 * radius)


def _key(at: QPointF) -> tuple[float, float]:
    return fine(at.x()), fine(at.y())


def _band(painter: QPainter, at: QPointF, size: Size, ticks: tuple[tuple[float, bool], ...]) -> None:
    band = wedge(at, 0.0, math.tau - 1e-6, size.inner, size.outer)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(NOW.color("table", 190))
    painter.drawPath(band)
    painter.setBrush(NOW.color("paper", 225))
    painter.drawEllipse(at, size.inner, size.inner)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(NOW.color("faint"), 1.2))
    painter.drawEllipse(at, size.inner, size.inner)
    painter.drawEllipse(at, size.outer, size.outer)
    for angle, chosen in ticks:
        painter.setPen(QPen(NOW.color("citrus" if chosen else "quiet"), 2.4 if chosen else 1.2))
        painter.drawLine(_away(at, angle, size.outer), _away(at, angle, size.outer + 5))


def write_stations(words: Words, at: QPointF, size: Size, ring: Ring, active: Target | None, *, every: bool) -> None:
    """The names of stations along their directions: the one that is meant, those where darts are, and, while a bead is in the
    hand or the pointer on the ring, every other that has room. The tick of one without room stands there all the same."""
    taken = [bead.middle for bead in ring.beads]
    for target in ring.targets:
        chosen = active is not None and target.title == active.title
        has_bead = any(abs((target.angle - angle + math.pi) % math.tau - math.pi) < LEAST_TURN for angle in taken)
        if target.spot.station is None or not (every or chosen or has_bead):
            continue
        words.add(HELD if chosen else STATION, target.title, _beside(at, size, target, chosen=chosen))


def _beside(at: QPointF, size: Size, target: Target, *, chosen: bool) -> Iterator[Way]:
    font = text_font(8.0, bold=chosen)
    for out in (0.0, 42.0, 84.0):
        yield turned(target.title, font, at, target.angle, size.outer + 8.0 + out, marked=chosen)


def paint_bead(
    painter: QPainter, words: Words, at: QPointF, size: Size, bead: Bead, state: str, *, is_crowded: bool = False
) -> None:  # fmt: skip
    """A dart's wedge with its angle: `idle`, `chosen` (cool, bold outline) or `carried` (citrus, hatched)."""
    if state == "carried":  # another one in each frame
        _wedge(painter, at, size, bead, state)
    else:
        key = ("bead", _key(at), size.key, round(bead.start, 6), round(bead.sweep, 6), state)
        words.stamps.paint(painter, key, _disc(at, size.outer), lambda one: _wedge(one, at, size, bead, state))
    if bead.use != "dart":
        _write_use(words, at, size, bead, is_crowded=is_crowded)
    degrees, font = f"{math.degrees(bead.sweep):.1f}°", text_font(8.0, bold=state != "idle")
    color = "citrus_ink" if state == "carried" else "cool"
    middle = (size.inner + size.hub) / 2 + 1
    ways = (_figure(degrees, font, _away(at, bead.middle + turn, middle), color) for turn in (0.0, 0.3, -0.3, 0.6, -0.6))
    words.add(ACCOUNT, degrees, ways)


def _wedge(painter: QPainter, at: QPointF, size: Size, bead: Bead, state: str) -> None:
    fill, edge, width = {
        "idle": ("cool_pale", "cool", 1.4),
        "chosen": ("cool_fill", "cool", 2.6),
        "carried": ("citrus_fill", "citrus", 2.6),
    }[state]
    path = wedge(at, bead.start, max(bead.sweep, 0.03), size.inner, size.outer)
    painter.setPen(QPen(NOW.color(edge), width))
    painter.setBrush(NOW.color(fill))
    painter.drawPath(path)
    if state == "carried":
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for share in (0.3, 0.5, 0.7):
            angle = bead.start + bead.sweep * share
            painter.setPen(QPen(NOW.color("citrus"), 1.0))
            painter.drawLine(_away(at, angle, size.inner), _away(at, angle, size.outer))


def _figure(text: str, font: QFont, at: QPointF, color: str) -> Way:
    box = QRectF(at.x() - 16, at.y() - 7, 32, 14)

    def draw(painter: QPainter) -> None:
        painter.setFont(font)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("paper", 215))
        painter.drawRoundedRect(box, 4, 4)
        painter.setPen(NOW.color(color))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    return Way(level(box), draw, ("figure", text, font.toString(), box.getRect(), color))


def _write_use(words: Words, at: QPointF, size: Size, bead: Bead, *, is_crowded: bool) -> None:
    """The first letters of a use that is not a sewn dart, on a slip over the bead; the shape says it, not the colour."""
    font, line = text_font(7.5, bold=True), Qt.PenStyle.DashLine if bead.use == PARKED else Qt.PenStyle.SolidLine
    ways = []
    for text in (bead.use[:2],) if is_crowded else (bead.use, bead.use[:2]):
        for out in (0.5, 0.9):
            middle = _away(at, bead.middle, size.inner + (size.outer - size.inner) * out)
            across = wide(text, font) + 8
            ways.append(_use_slip(text, font, QRectF(middle.x() - across / 2, middle.y() - 7, across, 14), line))
    words.add(ACCOUNT, bead.use, ways)


def _use_slip(text: str, font: QFont, box: QRectF, line: Qt.PenStyle) -> Way:
    def draw(painter: QPainter) -> None:
        painter.setFont(font)
        painter.setPen(QPen(NOW.color("cool"), 1.0, line))
        painter.setBrush(NOW.color("paper"))
        painter.drawRoundedRect(box, 4, 4)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    return Way(level(box), draw, ("use", text, font.toString(), box.getRect(), line))


def crowded(beads: tuple[Bead, ...]) -> set[str]:
    """The beads whose words would lie over each other's."""
    named = [bead for bead in beads if bead.use != "dart"]
    return {
        bead.dart
        for bead, other in itertools.permutations(named, 2)
        if abs((bead.middle - other.middle + math.pi) % math.tau - math.pi) < CROWDED
    }


def paint_hub(painter: QPainter, words: Words, at: QPointF, size: Size, account: Account | None) -> None:
    """The account in the middle: the total, and whether all of it is placed."""
    if account is None:
        return
    total, told = f"{account.block_deg + account.added_deg:.1f}°", _placed(account, size)
    key = ("hub", _key(at), size.key, total, told, account.is_whole)
    words.stamps.paint(painter, key, _disc(at, size.hub), lambda one: _hub(one, at, size, (total, told), account.is_whole))
    ground = QRectF(at.x() - size.hub * 0.8, at.y() - 19, 1.6 * size.hub, 34)
    way = Way(level(ground), lambda _painter: None, "hub")
    words.add(ACCOUNT, told, [way], has_to=True)  # it is written: others keep off it


def _placed(account: Account, size: Size) -> str:
    if account.is_whole:
        return "all placed" if size.hub >= HUB else "placed"
    return f"{abs(account.missing_deg):.2f}° {'missing' if account.missing_deg > 0 else 'too much'}"


def _hub(painter: QPainter, at: QPointF, size: Size, told: tuple[str, str], whole: bool) -> None:
    painter.setPen(QPen(NOW.color("edge" if whole else "error"), 1.2 if whole else 2.4))
    painter.setBrush(NOW.color("paper", 240))
    painter.drawEllipse(at, size.hub, size.hub)
    painter.setPen(NOW.color("ink"))
    painter.setFont(display_font(11.5 * max(0.82, size.hub / HUB)))
    painter.drawText(
        QRectF(at.x() - size.hub, at.y() - 19, 2 * size.hub, 20),
        Qt.AlignmentFlag.AlignCenter,
        told[0],
    )
    painter.setFont(text_font(7.5))
    painter.setPen(NOW.color("good" if whole else "error"))
    ground = QRectF(at.x() - size.hub, at.y() + 1, 2 * size.hub, 14)
    painter.drawText(ground, Qt.AlignmentFlag.AlignCenter, told[1])


def write_hint(words: Words, middle: float, top: float, text: str, *, is_fault: bool) -> None:
    """What is in the hand, on a slip, its middle and its top in px."""
    way = slip(text, text_font(9.5, bold=True), QPointF(middle, top + 13.5), "error" if is_fault else "citrus", high=27.0)
    words.add(HELD, text, [way], has_to=True)


def paint_slash(painter: QPainter, start: QPointF, stop: QPointF, color: QColor) -> None:
    """The line that would be cut: dashed, with a small ring at the place."""
    painter.setPen(QPen(color, 1.8, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawLine(start, stop)
    painter.setPen(QPen(color, 2.0))
    painter.drawEllipse(stop, 5, 5)
