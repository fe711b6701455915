"""The hand on the handles of the chosen step."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter

from zesty_pivot.desk.table.hand import TableHand
from zesty_pivot.desk.table.hand_table import HandTable
from zesty_pivot.desk.table.handles import Handles
from zesty_pivot.desk.table.words import Words


class HandleHand(TableHand):
    """Catches a handle, drags and drops it."""

    def __init__(self, handles: Handles, table: HandTable) -> None:
        self._handles, self._table = handles, table

    def press(self, event: QMouseEvent) -> bool:
        caught = self._table.is_flat and self._handles.press(event.position(), self._table.layout_now())
        if caught:
            self._table.update()
        return caught

    def move(self, event: QMouseEvent) -> bool:
        if self._handles.held is None:
            return False
        here = self._table.to_mm(event.position())
        self._handles.drag(here.x(), here.y())
        self._table.update()
        return True

    def release(self, event: QMouseEvent) -> bool:
        if self._handles.held is None:
            return False
        self._handles.drop()
        self._table.update()
        return True

    def key(self, event: QKeyEvent) -> bool:
        if self._handles.held is None or event.key() != Qt.Key.Key_Escape:
            return False
        self._handles.let_go()
        self._table.update()
        return True

    def cursor(self, at: QPointF) -> Qt.CursorShape | None:
        over = self._table.is_flat and self._handles.under(at, self._table.layout_now())
        return Qt.CursorShape.OpenHandCursor if over else None

    def paint(self, painter: QPainter, words: Words) -> None:
        self._handles.paint(painter, self._table.layout_now())
