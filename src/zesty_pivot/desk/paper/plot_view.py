"""Plotter: which one and how it is spoken to, its paper, and the plot on its way."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QProgressBar, QPushButton, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.plot import framed
from zesty_pivot.core.intake.digitiser.port import ports
from zesty_pivot.core.plotter.frames import LEAST_ROLL, MOST_ROLL
from zesty_pivot.core.plotter.sending import Handshake, Stage
from zesty_pivot.core.plotter.simulator import Trouble
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.record import replace
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.paging import Paging
from zesty_pivot.desk.paper.plot_table import PlotTable
from zesty_pivot.desk.paper.plotting import SIMULATED, Plotting

NETWORK = "socket://"
HANDSHAKES = [
    (Handshake.ASK.value, "it is asked for room"), (Handshake.XON.value, "it says stop and go on"),
    (Handshake.NONE.value, "none: the line is slow enough"),
]  # fmt: skip
BAUDS = (1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200)


class PlotView(QWidget):
    """Canvas, choices, and the buttons of the plot."""

    def __init__(self, model: DeskModel, plotting: Plotting, paging: Paging, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._plotting, self._paging = model, plotting, paging
        self.canvas = PlotTable(model, plotting)
        self.what = Choice("What is drawn")
        self.goal, self.handshake, self.baud, self.pens = (
            Choice("Plotter"), Choice("Handshake"), Choice("Speed of the line"), Choice("Pens"),
        )  # fmt: skip
        self.place = CalcField(_place_words, "Place in the network")
        self.roll, self.length = CalcField(self._roll_words, "Width of the roll"), CalcField(self._length_words, "Its length")
        self.start, self.pause = QPushButton(), QPushButton()
        self.progress = QProgressBar()
        self.told = label("", "quiet")
        self.panels = label("", "quiet")
        self.jam, self.paper, self.power, self.slow = (
            QPushButton(text) for text in ("Jam it", "End its paper", "Switch it off", "Slow")
        )
        self._run = run
        abreast(self, self.canvas, self._beside(), widest=0)
        self._connect()

    def _beside(self) -> QWidget:
        side = SideColumn("right", 4)
        side.setFixedWidth(WIDTH)
        rows = side.rows
        rows.addWidget(label("Plotter", "heading"))
        rows.addWidget(self.goal)
        rows.addWidget(self.place)
        titled(rows, "What is drawn", self.what)
        for title, choice in (("How it says when to wait", self.handshake), ("Bits a second", self.baud), ("Pens", self.pens)):
            titled(rows, title, choice)
        for title, field in (("Width of its roll", self.roll), ("Length it draws at once; 0: no end", self.length)):
            titled(rows, title, field)
        rows.addWidget(self.panels)
        self.by_hand = label("The simulated plotter can be made to", "quiet")
        rows.addWidget(self.by_hand)
        for button in (self.jam, self.paper, self.power, self.slow):
            rows.addWidget(button)
        self.slow.setCheckable(True)
        self.progress.setTextVisible(False)
        self.progress.setRange(0, 1000)
        self.progress.setAccessibleName("How much is sent")
        side.foot.addWidget(self.told)
        side.foot.addWidget(self.progress)
        self.start.setObjectName("primary")
        side.foot.addWidget(self.start)
        side.foot.addWidget(self.pause)
        return side

    def _connect(self) -> None:
        plotting = self._plotting
        self.what.picked.connect(lambda what: plotting.draw_lay(what == "lay"))
        self.goal.picked.connect(
            lambda goal: plotting.choose(plotter=f"{NETWORK}192.168.1.20:9100" if goal == NETWORK else goal)
        )
        self.place.committed.connect(lambda text: plotting.choose(plotter=NETWORK + text.removeprefix(NETWORK)))
        self.handshake.picked.connect(lambda way: plotting.choose(handshake=way))
        self.baud.picked.connect(lambda baud: plotting.choose(baud=int(baud)))
        self.pens.picked.connect(lambda pens: plotting.choose(pens=int(pens)))
        self.roll.committed.connect(lambda text: plotting.choose(roll=self._mm(text)))
        self.length.committed.connect(lambda text: plotting.choose(roll_length=self._mm(text)))
        self.start.clicked.connect(lambda: self._run("plot.run"))
        self.pause.clicked.connect(lambda: self._run("plot.pause"))
        self.jam.clicked.connect(lambda: plotting.trouble("jam"))
        self.paper.clicked.connect(lambda: plotting.trouble("paper"))
        self.power.clicked.connect(lambda: plotting.trouble("power"))
        self.slow.clicked.connect(lambda on: plotting.go_slow(bool(on)))
        plotting.changed.connect(self.show_plot)
        plotting.drawn.connect(self._progress)

    def _mm(self, text: str) -> float:
        return length_mm(text, Scope(self._model.style.units))

    def _roll_words(self, text: str) -> str:
        if not LEAST_ROLL <= self._mm(text) <= MOST_ROLL:
            raise ZestyError("no roll is so wide", where="plotter", advice="Give a width from 15 cm to 3 m.")
        return ""

    def _length_words(self, text: str) -> str:
        mm = self._mm(text)
        if mm and mm < LEAST_ROLL:
            raise ZestyError("too short", where="plotter", advice="Give at least 15 cm, or 0.")
        return "" if mm else "no end"

    @contained("the plotter's view")
    def show_plot(self) -> None:
        """Shows how it goes, when this view is the one that is seen."""
        if self._model.view != "paper":
            return
        plotting, printing, unit = self._plotting, self._paging.printing, self._model.length
        kept = plotting.goal
        is_network = kept.startswith(NETWORK)
        if not plotting.is_running:  # it can be chosen then, and the ports are looked for
            lines = [(SIMULATED, "simulated: it draws here"), *((port.name, port.title) for port in ports())]
            lines.append((NETWORK, "in the network"))
            self.goal.show_choices(lines, NETWORK if is_network else kept)
        drawn = [("sheet", "the pieces side by side"), *([("lay", "the lay on the cloth")] if plotting.has_lay else [])]
        self.what.show_choices(drawn, "lay" if plotting.is_lay and plotting.has_lay else "sheet")
        self.place.setVisible(is_network)
        self.place.set_text(kept.removeprefix(NETWORK), "plotter")
        settings = plotting.settings
        self.handshake.show_choices(HANDSHAKES, settings.handshake)
        self.baud.show_choices([(str(baud), f"{baud} bits") for baud in BAUDS], str(settings.baud))
        self.pens.show_choices(
            [("1", "one"), ("2", "two: cut, everything else"), ("3", "three: cut, seams, marks")], str(printing.pens)
        )
        self.roll.set_text(unit(printing.roll), "plotter")
        self.length.set_text(unit(printing.roll_length) if printing.roll_length else "0", "plotter")
        for part in (self.goal, self.what, self.place, self.handshake, self.baud, self.pens, self.roll, self.length):
            part.setEnabled(not plotting.is_running)
        self.start.setText("Give this plot up" if plotting.is_running else "Start the plot")
        is_paused = plotting.sending is not None and plotting.sending.stage is Stage.PAUSED
        self.pause.setText("Go on" if is_paused else "Pause")
        self.pause.setEnabled(plotting.is_running)
        trouble = plotting.plotter.trouble
        for button, mine, says, frees in (
            (self.jam, Trouble.JAM, "Jam it", "Free the jam"), (self.paper, Trouble.PAPER, "End its paper", "Load paper"),
            (self.power, Trouble.OFF, "Switch it off", "Switch it on"),
        ):  # fmt: skip
            button.setVisible(plotting.is_simulated)
            button.setText(frees if trouble is mine else says)
            button.setEnabled(trouble in (Trouble.NONE, mine))
        self.slow.setVisible(plotting.is_simulated)
        self.by_hand.setVisible(plotting.is_simulated)
        self.told.setText(plotting.words)
        self._progress()
        self.panels.setText(self._panels_words())

    def _panels_words(self) -> str:
        sheet = self._plotting.sheet
        try:
            made = framed(replace(sheet, laid=()), self._paging.printing)
        except ZestyError as fault:
            return str(fault)
        size = f"{self._model.length(sheet.width)} by {self._model.length(sheet.height)}"
        return f"{size}, in one piece." if len(made) == 1 else f"{size}, in {len(made)} panels with pass marks."

    def _progress(self) -> None:
        sending = self._plotting.sending
        self.progress.setValue(0 if sending is None else round(1000 * sending.share))
        self.told.setText(self._plotting.words)


def _place_words(text: str) -> str:
    host, colon, port = text.removeprefix(NETWORK).rpartition(":")
    if not host or not colon or not port.isdigit() or not 0 < int(port) < 65536:
        raise ZestyError(f"{text!r} is no place", where="plotter", advice="Write it as 192.168.1.20:9100.")
    return ""
