"""By hand: the paper procedure of the chosen step or of the whole recipe, in the pivot or the slash way."""

from __future__ import annotations

from collections.abc import Callable
from html import escape
from typing import get_args

from PyQt6.QtWidgets import QPushButton, QTextBrowser, QVBoxLayout, QWidget

from zesty_pivot.core.procedures.hand import Way
from zesty_pivot.core.recipe.hand import WAYS, Section
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel


class HandPanel(QWidget):
    """Reads the hand sheet out."""

    def __init__(self, model: DeskModel, lay: Lay, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._lay = model, lay
        self.way = Choice("Way")
        self.text = QTextBrowser()
        self.text.setAccessibleName("Paper procedure")
        self.save = QPushButton("Save the hand sheet…")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 14, 14, 14)
        layout.setSpacing(6)
        layout.addWidget(label("By hand", "heading"))
        layout.addWidget(label("The same pattern with pin, scissors, ruler and tape.", "quiet"))
        layout.addWidget(self.way)
        layout.addWidget(self.text, 1)
        layout.addWidget(self.save)
        self.way.picked.connect(self._pick)
        self.save.clicked.connect(lambda: run("export.hand"))
        self._shown = ""
        lay.changed.connect(self.refresh)
        model.pace.followed.connect(self.refresh)
        model.chosen_changed.connect(self.refresh)
        self.refresh()

    def _pick(self, way: str) -> None:
        if way in get_args(Way):
            self._lay.read_way(way)  # type: ignore[arg-type]

    def sections(self) -> tuple[Section, ...]:
        """The chosen step's section, or the whole sheet when none is chosen."""
        derived = self._model.derived
        found = derived.by_hand(self._lay.way)
        step = self._model.step
        chosen = tuple(section for section in found if step is not None and section.number == step + 1)
        return chosen or found

    @contained("the hand sheet")
    def refresh(self) -> None:
        """Shows the model, when this panel is the one that is seen."""
        if self._lay.panel != "hand":
            return
        self.way.show_choices(list(WAYS.items()), self._lay.way)
        text = "".join(html(section) for section in self.sections())
        if text != self._shown:
            self._shown = text
            self.text.setHtml(text)


def html(section: Section) -> str:
    """A section as a heading and numbered lines."""
    number = f"{section.number}  " if section.number else ""
    lines = "".join(f"<li style='margin-bottom:5px'>{escape(line.text)}</li>" for line in section.lines)
    return f"<p><b>{number}{escape(section.title)}</b></p><ol style='margin-left:-18px'>{lines}</ol>"
