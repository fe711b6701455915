"""The strip under the table while the tape is in the hand: how it is laid, what it shows, keep it."""

from __future__ import annotations

from collections.abc import Callable
from typing import get_args

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton, QWidget

from zesty_pivot.core.procedures.tape_measure import LAYINGS, Laying
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.table.tape_hand import TapeTool


class TapeBar(QWidget):
    """Shows the tool."""

    def __init__(self, tool: TapeTool, keep: Callable[[], object]) -> None:
        super().__init__()
        self.setObjectName("foot")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._tool = tool
        self.way, self.shut = Choice("How the tape is laid"), QCheckBox("darts shut")
        self.way.setToolTip("Straight, along the seam, level, straight down, or square to the grain")
        self.shut.setToolTip("Measured with the darts on its way shut, as they are sewn")
        self.figure = label("", "figure", wraps=False)
        self.keep, self.stop = QPushButton("Keep it"), QPushButton("Put away")
        self.keep.setIcon(icon("tape"))
        self.keep.setToolTip("A step of the recipe: it follows what is before it, and formulas after it may use it (Enter)")
        self.stop.setToolTip("Put the tape away (Esc)")
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 4, 12, 4)
        row.setSpacing(8)
        row.addWidget(label("Tape", wraps=False))
        for widget in (self.way, self.shut, self.figure):
            row.addWidget(widget)
        row.addStretch(1)
        row.addWidget(self.keep)
        row.addWidget(self.stop)
        self.way.picked.connect(lambda way: tool.lay(way=next(each for each in get_args(Laying) if each == way)))
        self.shut.clicked.connect(lambda on: tool.lay(darts="shut" if on else "open"))
        self.keep.clicked.connect(lambda: keep())
        self.stop.clicked.connect(tool.put_away)
        tool.changed.connect(self.refresh)
        self.refresh()

    @contained("the strip of the tape")
    def refresh(self) -> None:
        """Shows the tool."""
        tool = self._tool
        self.way.show_choices(list(LAYINGS.items()), tool.way)
        self.shut.setChecked(tool.darts == "shut")
        if tool.start is None:
            words = "Click where it begins"
        elif tool.fault:
            words = tool.fault[:1].upper() + tool.fault[1:]
        else:
            words = tool.figure() or "Click where it ends"
        self.figure.setText(words)
        self.figure.setToolTip(words)
        self.keep.setEnabled(tool.is_laid and tool.reading is not None)
