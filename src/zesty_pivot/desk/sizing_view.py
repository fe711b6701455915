"""The view of a photograph without marks: what in it has a known size, and the table laid flat by it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.intake.photo.sized import WORDS
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import SIZING, DeskModel
from zesty_pivot.desk.ruler_field import RulerField
from zesty_pivot.desk.sizing import Sizing
from zesty_pivot.desk.table.photo_table import PhotoTable

LEFT, FIELD = 280, 100
WAYS = (("sheet", "A sheet: its four corners"), ("ruler", "A ruler: its two ends"))
SHEETS = (("A4", "A4 sheet"), ("A3", "A3 sheet"), ("Letter", "Letter sheet"), ("own", "Another size, such as a square"))
ASKED = (("sizing.finish", "Lay it flat"), ("import.open", "Another file…"))


class SizingView(QWidget):
    """Shows the photograph; every change goes to what is pointed at."""

    def __init__(self, model: DeskModel, sizing: Sizing, run: Callable[[str], None], action: Callable[[str], QAction]) -> None:
        super().__init__()
        self._model, self._sizing, self._run, self._action = model, sizing, run, action
        self.canvas = PhotoTable(model, sizing)
        self.way, self.sheet = Choice("What is known"), Choice("Sheet")
        self.width_field = RulerField("Width or length", lambda text: sizing.set_size(text, sizing.pointed.height))
        self.height_field = RulerField("Height", lambda text: sizing.set_size(sizing.pointed.width, text))
        self.note = label("", "quiet")
        self.buttons: dict[str, QPushButton] = {}
        abreast(self, self._left(), self.canvas, widest=1)
        sizing.changed.connect(self.refresh)
        model.view_changed.connect(self.refresh)
        self.refresh()

    def _left(self) -> QWidget:
        found = SideColumn("left", 6)
        found.setFixedWidth(LEFT)
        rows = found.rows
        says = (
            "No mark of a printed frame is seen in this photograph. Point at something in it whose size you know: drag the "
            "points, or choose one with Page Down and move it with the arrow keys."
        )
        self.height_title = label("Height", "quiet")
        sizes = QHBoxLayout()
        for title, field in ((label("Width", "quiet"), self.width_field), (self.height_title, self.height_field)):
            field.setFixedWidth(FIELD)
            column = QVBoxLayout()
            column.addWidget(title)
            column.addWidget(field)
            sizes.addLayout(column)
        sizes.addStretch(1)
        for widget in (label("How large is it?", "heading"), label(says, "quiet"), self.way, self.sheet):
            rows.addWidget(widget)
        rows.addLayout(sizes)
        rows.addWidget(self.note)
        self.buttons = found.ask(ASKED, self._run, lambda id: self._action(id).toolTip())
        self.way.picked.connect(self._sizing.set_way)
        self.sheet.picked.connect(self._sizing.set_sheet)
        return found

    @contained("the photograph")
    def refresh(self) -> None:
        """Shows what is pointed at, when this view is the one that is seen."""
        if self._model.view != SIZING:
            return
        pointed = self._sizing.pointed
        is_sheet = pointed.way == "sheet"
        self.way.show_choices(WAYS, pointed.way)
        self.sheet.show_choices(SHEETS, pointed.sheet)
        for widget in (self.sheet, self.height_field, self.height_title):
            widget.setVisible(is_sheet)
        self.width_field.show_text(pointed.width)
        self.height_field.show_text(pointed.height)
        self.note.setText(WORDS[pointed.way])
        self.canvas.refresh()
