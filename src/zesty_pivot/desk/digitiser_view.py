"""The view of a block being traced: which digitiser and line, the table, what the buttons mean, what the line told."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QProgressBar, QPushButton, QWidget

from zesty_pivot.core.intake.digitiser.device import DEEDS
from zesty_pivot.core.intake.digitiser.port import ports
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast, asking
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.digitising import Digitising
from zesty_pivot.desk.labels import Figures, label, titled
from zesty_pivot.desk.model import DIGITISER, DeskModel
from zesty_pivot.desk.table.digitiser_table import DigitiserTable

LEFT, RIGHT, NARROW_LEFT, NARROW_RIGHT, NARROW = 264, 286, 220, 230, 1000
SIMULATED = "simulated"
ASKED = (
    ("digitiser.finish", "Make a block of it"), ("digitiser.back", "Take the last place back"),
    ("digitiser.begin_again", "Begin again"), ("digitiser.save", "Save this trace…"),
)  # fmt: skip
COUNTED = {"corner": "corners", "curve": "on curves", "line": "on straight edges", "notch": "notches", "hole": "drill holes",
           "leg": "on lines inside", "point": "points inside", "grain": "ends of grain lines"}  # fmt: skip


class DigitiserView(QWidget):
    """Shows the trace; every change goes to it."""

    def __init__(
        self, model: DeskModel, digitising: Digitising, run: Callable[[str], None], action: Callable[[str], QAction]
    ) -> None:
        super().__init__()
        self._model, self._digitising, self._run, self._action = model, digitising, run, action
        self.canvas = DigitiserTable(model, digitising)
        self.device, self.line = Choice("Digitiser"), Choice("Line")
        self.start = QPushButton("Start")
        self.progress = QProgressBar()
        self.buttons: dict[str, QPushButton] = {}
        self.meanings, self.counts = Figures(2), Figures(2)
        self.told = label("", "warning")
        abreast(self, self._left(), self.canvas, self._right(), widest=1)
        digitising.changed.connect(self.refresh)
        digitising.came.connect(self._count)
        model.view_changed.connect(self.refresh)
        self.refresh()

    def _left(self) -> QWidget:
        self.left = SideColumn("left")
        rows = self.left.rows
        rows.addWidget(label("Trace with a digitiser", "heading"))
        titled(rows, "Digitiser", self.device)
        rows.addWidget(self._asking("digitiser.device", "Another digitiser's file…"))
        titled(rows, "Line", self.line)
        self.start.clicked.connect(lambda _checked=False: self._run("digitiser.run"))
        rows.addWidget(self.start)
        self.progress.setTextVisible(False)
        self.progress.setAccessibleName("How much of the replay has come")
        rows.addWidget(self.progress)
        rows.addWidget(self._asking("digitiser.to_end", "The rest at once"))
        rows.addWidget(self._asking("digitiser.replay", "Replay a file…"))
        rows.addWidget(
            label(
                "Press each corner three times: the program takes the middle. Along curves press every half centimetre, along "
                "straight edges every centimetre.",
                "quiet",
            )
        )
        self.buttons |= self.left.ask(ASKED, self._run, self._tip)
        self.device.picked.connect(self._digitising.set_device)
        return self.left

    def _tip(self, id: str) -> str:
        return self._action(id).toolTip()

    def _asking(self, id: str, text: str) -> QPushButton:
        self.buttons[id] = asking(id, text, self._run, self._tip)
        return self.buttons[id]

    def _right(self) -> QWidget:
        self.right = SideColumn("right", 6)
        for widget in (
            label("What its buttons mean", "heading"), self.meanings, label("What was pressed", "heading"), self.counts,
            self.told,
        ):  # fmt: skip
            self.right.rows.addWidget(widget)
        return self.right

    def resizeEvent(self, event: object) -> None:
        is_narrow = self.width() < NARROW
        self.left.setFixedWidth(NARROW_LEFT if is_narrow else LEFT)
        self.right.setFixedWidth(NARROW_RIGHT if is_narrow else RIGHT)

    # Showing.

    @contained("the digitiser's view")
    def refresh(self) -> None:
        """Shows the trace, when this view is the one that is seen."""
        if self._model.view != DIGITISER:
            return
        digitising = self._digitising
        self.device.show_choices([(one.id, one.title) for one in digitising.devices], digitising.device.id)
        if not digitising.is_running or not self.line.count():
            lines = [(SIMULATED, "Simulated, the demo's block"), *((port.name, port.title) for port in ports())]
            known = [name for name, _title in lines]
            now = self.line.currentData()
            self.line.show_choices(lines, now if now in known else SIMULATED)
        self.device.setEnabled(not digitising.is_running)
        self.line.setEnabled(not digitising.is_running)
        self.start.setText("Stop" if digitising.is_running else "Start")
        self.progress.setVisible(digitising.replay is not None)
        self.meanings.show_rows([(DEEDS[deed].capitalize(), button) for button, deed in digitising.device.buttons.items()])
        self._count()

    @contained("what was pressed")
    def _count(self) -> None:
        digitising = self._digitising
        counts = Counter(str(press.deed) for press in digitising.presses)
        self.counts.show_rows([(words.capitalize(), str(counts[deed])) for deed, words in COUNTED.items() if counts[deed]])
        self.told.setText(" ".join(digitising.told[-4:]))
        if digitising.replay is not None:
            self.progress.setRange(0, 100)
            self.progress.setValue(round(100 * digitising.replay.share))
        for id, button in self.buttons.items():
            button.setEnabled(self._action(id).isEnabled())
