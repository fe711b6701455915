"""The ring drawn: a pale band with ticks for stations, wedges for beads, the account in the middle."""

from __future__ import annotations

import itertools
import math
from dataclasses import field

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPainterPath, QPen

from zesty_pivot.core.ledger import Account
from zesty_pivot.core.ledger.fullness import PARKED
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.ring_model import Bead, Ring, Target
from zesty_pivot.desk.table.words import ACCOUNT, HELD, STATION, Way, Words, level, slip, turned
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


def paint_band(painter: QPainter, at: QPointF, size: Size, ring: Ring, active: Target | None) -> None:
    """The band with a tick for each station."""
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
    for target in ring.targets:
        chosen = active is not None and target.title == active.title
        painter.setPen(QPen(NOW.color("citrus" if chosen else "quiet"), 2.4 if chosen else 1.2))
        painter.drawLine(_away(at, target.angle, size.outer), _away(at, target.angle, size.outer + 5))


def write_stations(words: Words, at: QPointF, size: Size, ring: Ring, active: Target | None, *, every: bool) -> None:
    """The names of stations along their directions: the one that is meant, those where darts are, and, while a bead is in the
    hand or the pointer on the ring, every other that has room. The tick of one without room stands there all the same."""
    taken = [bead.middle for bead in ring.beads]
    for target in ring.targets:
        chosen = active is not None and target.title == active.title
        has_bead = any(abs((target.angle - angle + math.pi) % math.tau - math.pi) < LEAST_TURN for angle in taken)
        if target.spot.station is None or not (every or chosen or has_bead):
            continue
        font = text_font(8.0, bold=chosen)
        ways = [
            turned(target.title, font, at, target.angle, size.outer + 8.0 + out, marked=chosen) for out in (0.0, 42.0, 84.0)
        ]
        words.add(HELD if chosen else STATION, target.title, ways)


def paint_bead(
    painter: QPainter, words: Words, at: QPointF, size: Size, bead: Bead, state: str, *, is_crowded: bool = False
) -> None:  # fmt: skip
    """A dart's wedge with its angle: `idle`, `chosen` (cool, bold outline) or `carried` (citrus, hatched)."""
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
    if bead.use != "dart":
        _write_use(words, at, size, bead, is_crowded=is_crowded)
    degrees, font = f"{math.degrees(bead.sweep):.1f}°", text_font(8.0, bold=state != "idle")
    color = "citrus_ink" if state == "carried" else "cool"
    middle = (size.inner + size.hub) / 2 + 1
    ways = [_figure(degrees, font, _away(at, bead.middle + turn, middle), color) for turn in (0.0, 0.3, -0.3, 0.6, -0.6)]
    words.add(ACCOUNT, degrees, ways)


def _figure(text: str, font: QFont, at: QPointF, color: str) -> Way:
    box = QRectF(at.x() - 16, at.y() - 7, 32, 14)

    def draw(painter: QPainter) -> None:
        painter.setFont(font)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NOW.color("paper", 215))
        painter.drawRoundedRect(box, 4, 4)
        painter.setPen(NOW.color(color))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    return Way(level(box), draw)


def _write_use(words: Words, at: QPointF, size: Size, bead: Bead, *, is_crowded: bool) -> None:
    """The first letters of a use that is not a sewn dart, on a slip over the bead; the shape says it, not the colour."""
    font, line = text_font(7.5, bold=True), Qt.PenStyle.DashLine if bead.use == PARKED else Qt.PenStyle.SolidLine
    ways = []
    for text in (bead.use[:2],) if is_crowded else (bead.use, bead.use[:2]):
        for out in (0.5, 0.9):
            middle = _away(at, bead.middle, size.inner + (size.outer - size.inner) * out)
            wide = QFontMetricsF(font).horizontalAdvance(text) + 8
            ways.append(_use_slip(text, font, QRectF(middle.x() - wide / 2, middle.y() - 7, wide, 14), line))
    words.add(ACCOUNT, bead.use, ways)


def _use_slip(text: str, font: QFont, box: QRectF, line: Qt.PenStyle) -> Way:
    def draw(painter: QPainter) -> None:
        painter.setFont(font)
        painter.setPen(QPen(NOW.color("cool"), 1.0, line))
        painter.setBrush(NOW.color("paper"))
        painter.drawRoundedRect(box, 4, 4)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    return Way(level(box), draw)


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
    whole = account.is_whole
    painter.setPen(QPen(NOW.color("edge" if whole else "error"), 1.2 if whole else 2.4))
    painter.setBrush(NOW.color("paper", 240))
    painter.drawEllipse(at, size.hub, size.hub)
    painter.setPen(NOW.color("ink"))
    painter.setFont(display_font(11.5 * max(0.82, size.hub / HUB)))
    painter.drawText(
        QRectF(at.x() - size.hub, at.y() - 19, 2 * size.hub, 20),
        Qt.AlignmentFlag.AlignCenter,
        f"{account.block_deg + account.added_deg:.1f}°",
    )
    painter.setFont(text_font(7.5))
    painter.setPen(NOW.color("good" if whole else "error"))
    told = (
        ("all placed" if size.hub >= HUB else "placed")
        if whole
        else f"{abs(account.missing_deg):.2f}° {'missing' if account.missing_deg > 0 else 'too much'}"
    )
    painter.drawText(QRectF(at.x() - size.hub, at.y() + 1, 2 * size.hub, 14), Qt.AlignmentFlag.AlignCenter, told)
    ground = QRectF(at.x() - size.hub * 0.8, at.y() - 19, 1.6 * size.hub, 34)
    words.add(ACCOUNT, told, [Way(level(ground), lambda _painter: None)], has_to=True)  # it is written: others keep off it


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
