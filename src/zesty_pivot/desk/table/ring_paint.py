"""The ring drawn: a pale band with ticks for stations, wedges for beads, the account in the middle."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPainterPath, QPen

from zesty_pivot.core.ledger import Account
from zesty_pivot.desk.table.ring_model import Bead, Ring, Target
from zesty_pivot.desk.theme import LIGHT, display_font, text_font

INNER, OUTER, HUB = 58.0, 82.0, 36.0  # px
LEAST_TURN = math.radians(6.0)  # names nearer to each other than this would touch
GRIP = 7.0  # px beyond the band where a bead can still be caught


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


def paint_band(painter: QPainter, at: QPointF, ring: Ring, active: Target | None) -> None:
    """The band with a tick and a name for each station."""
    band = wedge(at, 0.0, math.tau - 1e-6, INNER, OUTER)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(LIGHT.color("table", 190))
    painter.drawPath(band)
    painter.setBrush(LIGHT.color("paper", 225))
    painter.drawEllipse(at, INNER, INNER)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(LIGHT.color("faint"), 1.2))
    painter.drawEllipse(at, INNER, INNER)
    painter.drawEllipse(at, OUTER, OUTER)
    last, reach = -math.inf, 0.0
    for target in ring.targets:
        chosen = active is not None and target.title == active.title
        painter.setPen(QPen(LIGHT.color("citrus" if chosen else "quiet"), 2.4 if chosen else 1.2))
        painter.drawLine(_away(at, target.angle, OUTER), _away(at, target.angle, OUTER + 5))
        if target.spot.station is not None:
            # A name that would lie on the one before it stands further out.
            out = reach if target.angle - last < LEAST_TURN else 0.0
            last, reach = target.angle, _name(painter, at, target, chosen, out)


def _name(painter: QPainter, at: QPointF, target: Target, chosen: bool, out: float) -> float:
    """A station's name along its direction, never upside down, on a breath of paper, `out` px beyond the band. Where it
    ends, in px beyond the band; nothing when it stands out itself, so that the next is close again."""
    painter.save()
    painter.translate(at)
    degrees = math.degrees(target.angle)
    flipped = abs(degrees) > 90
    painter.rotate(degrees + 180 if flipped else degrees)
    painter.setFont(text_font(8.0, bold=chosen))
    width = painter.fontMetrics().horizontalAdvance(target.title) + 6.0
    box = QRectF(-OUTER - 8 - out - width if flipped else OUTER + 8 + out, -7, width, 14)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(LIGHT.color("citrus_pale" if chosen else "paper", 235 if chosen else 190))
    painter.drawRoundedRect(box, 3, 3)
    painter.setPen(LIGHT.color("ink" if chosen else "quiet"))
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, target.title)
    painter.restore()
    return 0.0 if out else width + 4.0


def paint_bead(painter: QPainter, at: QPointF, bead: Bead, state: str) -> None:
    """A dart's wedge: `idle`, `chosen` (cool, bold outline) or `carried` (citrus, hatched)."""
    fill, edge, width = {
        "idle": ("cool_pale", "cool", 1.4),
        "chosen": ("cool_fill", "cool", 2.6),
        "carried": ("citrus_fill", "citrus", 2.6),
    }[state]
    path = wedge(at, bead.start, max(bead.sweep, 0.03), INNER, OUTER)
    painter.setPen(QPen(LIGHT.color(edge), width))
    painter.setBrush(LIGHT.color(fill))
    painter.drawPath(path)
    if state == "carried":
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for share in (0.3, 0.5, 0.7):
            angle = bead.start + bead.sweep * share
            painter.setPen(QPen(LIGHT.color("citrus"), 1.0))
            painter.drawLine(_away(at, angle, INNER), _away(at, angle, OUTER))
    painter.setFont(text_font(8.0, bold=state != "idle"))
    middle = _away(at, bead.middle, (INNER + HUB) / 2 + 1)
    box = QRectF(middle.x() - 16, middle.y() - 7, 32, 14)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(LIGHT.color("paper", 215))
    painter.drawRoundedRect(box, 4, 4)
    painter.setPen(LIGHT.color("citrus" if state == "carried" else "cool"))
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, f"{math.degrees(bead.sweep):.1f}°")


def paint_hub(painter: QPainter, at: QPointF, account: Account | None) -> None:
    """The account in the middle: the total, and whether all of it is placed."""
    if account is None:
        return
    whole = account.is_whole
    painter.setPen(QPen(LIGHT.color("edge" if whole else "error"), 1.2 if whole else 2.4))
    painter.setBrush(LIGHT.color("paper", 240))
    painter.drawEllipse(at, HUB, HUB)
    painter.setPen(LIGHT.color("ink"))
    painter.setFont(display_font(11.5))
    painter.drawText(QRectF(at.x() - HUB, at.y() - 19, 2 * HUB, 20), Qt.AlignmentFlag.AlignCenter, f"{account.block_deg:.1f}°")
    painter.setFont(text_font(7.5))
    painter.setPen(LIGHT.color("good" if whole else "error"))
    words = "all placed" if whole else f"{abs(account.missing_deg):.2f}° {'missing' if account.missing_deg > 0 else 'too much'}"
    painter.drawText(QRectF(at.x() - HUB, at.y() + 1, 2 * HUB, 14), Qt.AlignmentFlag.AlignCenter, words)


def paint_slash(painter: QPainter, start: QPointF, stop: QPointF, color: QColor) -> None:
    """The line that would be cut: dashed, with a small ring at the place."""
    painter.setPen(QPen(color, 1.8, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawLine(start, stop)
    painter.setPen(QPen(color, 2.0))
    painter.drawEllipse(stop, 5, 5)
