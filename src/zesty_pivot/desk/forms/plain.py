"""Forms written as tables of rows."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtWidgets import QLabel, QVBoxLayout, QWidget

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.forms.base import StepForm
from zesty_pivot.desk.forms.rows import FlagRow, Row
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel


class PlainForm(StepForm):
    """A form made of rows."""

    def __init__(self, model: DeskModel, kind: type[Step], rows: tuple[Row, ...]) -> None:
        super().__init__(model)
        self.before: Pattern | None = None
        self._kind, self._table = kind, rows
        self.fields: dict[str, Any] = {}
        self._holders: dict[str, QWidget] = {}
        self.titles: dict[str, QLabel] = {}
        self.rows = {row.key: row for row in rows}
        for row in rows:
            self.fields[row.key] = row.field(self)
            self._holders[row.key] = self._held(row)

    def _held(self, row: Row) -> QWidget:
        """A row's field under its title, to be shown and hidden together."""
        holder, field = QWidget(), self.fields[row.key]
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 0, 0, 5)
        column.setSpacing(3)
        if not isinstance(row, FlagRow):
            title = label(row.title, "quiet")
            title.setBuddy(field)
            column.addWidget(title)
            self.titles[row.key] = title
        column.addWidget(field)
        self._rows.addWidget(holder)
        return holder

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        if not isinstance(step, self._kind):
            return
        self.at, self.before = at, before
        for row in self._table:
            is_shown = row.is_shown(step, before)
            self._holders[row.key].setVisible(is_shown)
            if is_shown:
                row.show(self.fields[row.key], step, before)


def plain(kind: type[Step], *rows: Row) -> Callable[[DeskModel], StepForm]:
    """What makes a form of rows for a kind of step."""
    return lambda model: PlainForm(model, kind, rows)
