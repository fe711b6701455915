"""A hand at the table: one way in which mouse and keys act on it. The table asks its hands in turn; the first that takes an
event keeps it."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QPainter

from zesty_pivot.desk.table.words import Words


class TableHand:
    """Takes nothing by itself. What takes an event says so by True."""

    def press(self, event: QMouseEvent) -> bool:
        """The left button goes down."""
        return False

    def move(self, event: QMouseEvent) -> bool:
        """The pointer moves, with or without a button held."""
        return False

    def release(self, event: QMouseEvent) -> bool:
        """The left button goes up."""
        return False

    def turn_wheel(self, steps: int) -> bool:
        """The wheel is turned, away from the user by a positive number."""
        return False

    def key(self, event: QKeyEvent) -> bool:
        """A key goes down."""
        return False

    def walk(self, event: QKeyEvent) -> bool:
        """A key goes down, before the window has it: Tab goes on to the next thing on the table."""
        return False

    def menu(self, event: QContextMenuEvent) -> bool:
        """The menu is asked for."""
        return False

    def cursor(self, at: QPointF) -> Qt.CursorShape | None:
        """How the pointer looks over a place (px), where this hand could act."""
        return None

    def tip(self, at: QPointF) -> str:
        """What is said about a place (px) where the pointer rests."""
        return ""

    def leave(self) -> None:
        """The pointer leaves the table, or something else begins: what was lit is lit no more."""

    def paint(self, painter: QPainter, words: Words) -> None:
        """Draws in px over the pattern, and says what is to be written there."""
