"""True size: the device and how it is told what true size is, what is shown on it, and how."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtGui import QScreen
from PyQt6.QtWidgets import QCheckBox, QPushButton, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.show_table import ShowTable
from zesty_pivot.desk.paper.showing import Showing

WAYS = [("bars", "a screen: bars are measured"), ("marks", "a projector: marks on a mat")]
COUNTS = [("4", "four"), ("6", "six"), ("9", "nine: the truest")]
LEAST, MOST = 20.0, 5000.0  # mm of a bar, and of a mat
THINNEST, THICKEST = 0.1, 10.0  # mm of a line


class ShowView(QWidget):
    """Canvas, choices, and what fills the screen."""

    def __init__(self, model: DeskModel, showing: Showing, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._showing, self._run = model, showing, run
        self.canvas = ShowTable(model, showing)
        self.device, self.way, self.count, self.what = (
            Choice("Screen or projector"), Choice("How its true size is told"), Choice("Number of marks"),
            Choice("What is shown"),
        )  # fmt: skip
        self.across, self.down = (CalcField(self._length_words, f"Bar {way}") for way in ("across", "down"))
        self.mat = (CalcField(self._length_words, "Marks across"), CalcField(self._length_words, "Marks down"))
        self.line = CalcField(self._line_words, "Width of its lines")
        self.grid, self.inverted, self.mirrored = (
            QCheckBox("Grid"), QCheckBox("Light lines on dark"), QCheckBox("Turned over"),
        )  # fmt: skip
        self.aim, self.fill = QPushButton(), QPushButton("Fill the screen")
        self.told = label("", "quiet")
        abreast(self, self.canvas, self._beside(), widest=0)
        self._connect()

    def _beside(self) -> QWidget:
        side = SideColumn("right", 4)
        side.setFixedWidth(WIDTH)
        rows = side.rows
        rows.addWidget(label("True size", "heading"))
        rows.addWidget(self.device)
        rows.addWidget(self.way)
        self._titles = {
            "bars": [titled(rows, "The bar across measures", self.across), titled(rows, "The bar down measures", self.down)],
            "marks": [
                titled(rows, "Marks", self.count),
                titled(rows, "From the first mark to the last, across", self.mat[0]),
                titled(rows, "The same, down", self.mat[1]),
            ],
        }
        rows.addWidget(self.aim)
        rows.addWidget(self.told)
        rows.addSpacing(8)
        titled(rows, "What is shown", self.what)
        titled(rows, "Width of its lines", self.line)
        for check in (self.grid, self.inverted, self.mirrored):
            rows.addWidget(check)
        hint = "Drag the pattern or the marks, or move them by arrow keys; N and P take the next. Escape ends the full screen."
        rows.addWidget(label(hint, "quiet"))
        self.turn, self.middle = QPushButton("Turn it by a quarter"), QPushButton("Back to the middle")
        self.fill.setObjectName("primary")
        for button in (self.fill, self.turn, self.middle):
            side.foot.addWidget(button)
        return side

    def _connect(self) -> None:
        showing = self._showing
        self.device.picked.connect(showing.choose)
        self.way.picked.connect(lambda way: showing.keep(way=way))
        self.count.picked.connect(lambda count: showing.keep(count=int(count)))
        self.what.picked.connect(showing.show)
        for n, field in enumerate((self.across, self.down)):
            field.committed.connect(lambda text, n=n: showing.keep(bars=_with(showing.device.bars, n, self._mm(text))))
        for n, field in enumerate(self.mat):
            field.committed.connect(lambda text, n=n: showing.keep(mat=_with(showing.device.mat, n, self._mm(text))))
        self.line.committed.connect(lambda text: showing.keep(line=self._mm(text)))
        self.grid.clicked.connect(lambda on: showing.keep(grid=on))
        self.inverted.clicked.connect(lambda on: showing.keep(inverted=on))
        self.mirrored.clicked.connect(lambda on: showing.keep(mirrored=on))
        for button, action in (
            (self.aim, "show.aim"), (self.fill, "show.fill"), (self.turn, "show.turn"), (self.middle, "show.middle")
        ):  # fmt: skip
            button.clicked.connect(lambda _on=False, action=action: self._run(action))
        showing.changed.connect(self.show_all)
        showing.dragged.connect(lambda: self.told.setText(showing.told))

    def _mm(self, text: str) -> float:
        return length_mm(text, Scope(self._model.style.units))

    def _length_words(self, text: str) -> str:
        if not LEAST <= self._mm(text) <= MOST:
            raise ZestyError("too short or too long", where="true size", advice="Give a length from 2 cm to 5 m.")
        return ""

    def _line_words(self, text: str) -> str:
        if not THINNEST <= self._mm(text) <= THICKEST:
            raise ZestyError("no line is so wide", where="true size", advice="Give a width from 0.1 to 10 mm.")
        return ""

    @contained("the true-size station")
    def show_all(self) -> None:
        """Shows what is so, when this view is the one that is seen."""
        if self._model.view != "paper":
            return
        showing, unit = self._showing, self._model.length
        device = showing.device
        self.device.show_choices(
            [(key, _title(screen)) for key, screen in showing.displays.all().items()], showing.displays.key
        )
        self.way.show_choices(WAYS, device.way)
        self.way.setVisible(not showing.displays.is_simulated)
        for way, titles in self._titles.items():
            for title in titles:
                title.setVisible(way == device.way)
        for way, fields in (("bars", (self.across, self.down)), ("marks", (self.count, *self.mat))):
            for field in fields:
                field.setVisible(way == device.way)
        for field, bar in zip((self.across, self.down), device.bars, strict=True):
            field.set_text("" if bar is None else unit(bar, fine=True), showing.displays.key)
        self.count.show_choices(COUNTS, str(device.count))
        for field, mm in zip(self.mat, device.mat, strict=True):
            field.set_text(unit(mm), showing.displays.key)
        begins = "Set the marks" if device.way == "marks" else "Show the bars"
        self.aim.setText("Done" if showing.is_aiming else begins)
        self.told.setText(showing.told)
        self.what.show_choices(showing.choices, showing.what)
        self.line.set_text(f"{device.line:g} mm", showing.displays.key)
        self.grid.setChecked(device.grid)
        self.inverted.setChecked(device.inverted)
        self.mirrored.setChecked(device.mirrored)
        self.fill.setVisible(not showing.displays.is_simulated)


def _title(screen: QScreen | None) -> str:
    if screen is None:
        return "simulated projector"
    return f"{screen.name() or 'screen'}, {screen.size().width()} by {screen.size().height()} px"


def _with(pair: tuple[float | None, float | None], n: int, mm: float) -> tuple[float | None, float | None]:
    return (mm, pair[1]) if n == 0 else (pair[0], mm)
