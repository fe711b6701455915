"""Driving the real window with mouse and keys."""

import math

from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from zesty_pivot.desk.table import ring_paint

BAND = (ring_paint.INNER + ring_paint.OUTER) / 2


def at_angle(window, angle: float, distance: float = BAND) -> QPoint:
    """A place on the table at a direction from the chosen pivot."""
    table = window.table
    ring = table.control.carry.ring if table.control.carry else table.ring()
    pin = table.ring_hand.pin_of(window.model.pattern.piece(ring.piece.name), ring.pivot)
    return QPointF(pin.x() + math.cos(angle) * distance, pin.y() + math.sin(angle) * distance).toPoint()


def drag(window, dart: str, station: str, *, modifier=Qt.KeyboardModifier.NoModifier, drop: bool = True) -> None:
    """Drags a dart's bead round to a station with the mouse."""
    table = window.table
    ring = table.ring()
    start = ring.bead(dart).middle
    goal = next(target.angle for target in ring.targets if target.spot.station == station)
    QTest.mousePress(table, Qt.MouseButton.LeftButton, modifier, at_angle(window, start))
    turn = (goal - start + math.pi) % math.tau - math.pi
    for part in (0.3, 0.7, 1.0):
        position = at_angle(window, start + turn * part)
        event_at = QPointF(position)
        move_event = QMouseEvent(
            QEvent.Type.MouseMove, event_at, QPointF(table.mapToGlobal(position)), Qt.MouseButton.NoButton,
            Qt.MouseButton.LeftButton, modifier,
        )  # fmt: skip
        QApplication.sendEvent(table, move_event)
    if drop:
        QTest.mouseRelease(table, Qt.MouseButton.LeftButton, modifier, at_angle(window, goal))


def stations(window) -> set[str]:
    return {entry.where for entry in window.model.account.placed}


def corner_findings(window) -> list[str]:
    return [f.message for f in window.model.findings if f.check == "corners" and "front" in f.piece]


def type_into(edit, text: str) -> None:
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, text)
    QTest.keyClick(edit, Qt.Key.Key_Return)
