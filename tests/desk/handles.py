"""Handles on the table, found and dragged as a user does."""

from PyQt6.QtCore import QEvent, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QApplication


def points(window) -> dict[str, QPointF]:  # type: ignore[no-untyped-def]
    return window.table.handles.points(window.table.layout_now())


def send(window, kind: QEvent.Type, at: QPointF) -> None:  # type: ignore[no-untyped-def]
    button = Qt.MouseButton.NoButton if kind is QEvent.Type.MouseMove else Qt.MouseButton.LeftButton
    held = Qt.MouseButton.NoButton if kind is QEvent.Type.MouseButtonRelease else Qt.MouseButton.LeftButton
    where = QPointF(window.table.mapToGlobal(at.toPoint()))
    event = QMouseEvent(kind, at, where, button, held, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(window.table, event)


def drag(window, key: str, by: QPointF, *, drop: bool = True) -> None:  # type: ignore[no-untyped-def]
    start = points(window)[key]
    send(window, QEvent.Type.MouseButtonPress, start)
    for share in (0.5, 1.0):
        send(window, QEvent.Type.MouseMove, start + by * share)
    if drop:
        send(window, QEvent.Type.MouseButtonRelease, start + by)
