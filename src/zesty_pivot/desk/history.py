"""Undo designed once: the document is an immutable value, an entry swaps one for another. No Qt here."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Generic, TypeVar

Value = TypeVar("Value")

# Values share all that did not change, so an entry costs a few kilobytes.
KEPT_ENTRIES = 1000


@dataclass
class History(Generic[Value]):
    """The document's values in order, with where we are. One user action is one entry."""

    values: list[Value]
    titles: list[str] = field(default_factory=lambda: [""])
    at: int = 0

    @property
    def value(self) -> Value:
        """The document now."""
        return self.values[self.at]

    @property
    def undo_title(self) -> str:
        """What undo would take back, or nothing."""
        return self.titles[self.at] if self.at else ""

    @property
    def redo_title(self) -> str:
        """What redo would do again, or nothing."""
        return self.titles[self.at + 1] if self.at + 1 < len(self.values) else ""

    def push(self, value: Value, title: str) -> None:
        """A new value becomes the document; what had been undone is gone."""
        self.values[self.at + 1 :] = [value]
        self.titles[self.at + 1 :] = [title]
        self.at += 1
        excess = len(self.values) - KEPT_ENTRIES
        if excess > 0:
            del self.values[:excess], self.titles[:excess]
            self.at -= excess

    def marked(self) -> tuple[list[Value], list[str], int]:
        """Where the history stands, to come back to."""
        return list(self.values), list(self.titles), self.at

    def back_to(self, mark: tuple[list[Value], list[str], int]) -> None:
        """The history as it stood: what was pushed since never was."""
        self.values, self.titles, self.at = mark

    def step(self, by: int) -> bool:
        """Goes back (-1) or forth (1); false when there is nothing there."""
        if not 0 <= self.at + by < len(self.values):
            return False
        self.at += by
        return True
