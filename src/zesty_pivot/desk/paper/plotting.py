"""A plot on its way to a plotter: on a port, in the network, or the simulated one, which draws what it receives. The line is
looked at by a timer that runs only while one is open."""

from __future__ import annotations

import time
from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.plot import framed
from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.formats.lay_sheet import lay_at_full_size
from zesty_pivot.core.nest.lay import LayPlan
from zesty_pivot.core.plotter.hpgl import plot
from zesty_pivot.core.plotter.port import PlotterLine, SerialPlotterLine
from zesty_pivot.core.plotter.sending import Handshake, Sending, Stage
from zesty_pivot.core.plotter.serving import DirectLine
from zesty_pivot.core.plotter.simulator import APART, SPEED, SimulatedPlotter, Trouble
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.paging import Paging
from zesty_pivot.desk.settings import Settings

LOOK_MS = 20  # how often the line is looked at
FAST = 10.0  # how much faster than a real one the simulated plotter draws
SLOW = 0.5
SIMULATED = "simulated"


class Plotting(QObject):
    """One plot at a time."""

    changed = pyqtSignal()
    drawn = pyqtSignal()  # the simulated plotter drew something

    def __init__(self, model: DeskModel, keeper: Keeper, paging: Paging, lay: Callable[[], LayPlan | None]) -> None:
        """`lay` gives the lay on the cloth that was looked at."""
        super().__init__()
        self._model, self._keeper, self._paging, self._lay = model, keeper, paging, lay
        self.is_lay = False  # whether the lay on the cloth is drawn instead of the pieces side by side
        self.plotter = SimulatedPlotter(speed=SPEED)
        self.pace = FAST
        self.sending: Sending | None = None
        self.size: tuple[float, float] = (0.0, 0.0)  # of what is drawn, all panels after each other, mm
        self._timer = QTimer(self)
        self._timer.setInterval(LOOK_MS)
        self._timer.timeout.connect(self.look)
        self._last = 0.0
        self._told = ("", Stage.DONE)

    # What is so.

    @property
    def goal(self) -> str:
        """Where plots go: SIMULATED, a port, or a place in the network."""
        return self._keeper.settings.plotter

    @property
    def settings(self) -> Settings:
        """How plots are sent."""
        return self._keeper.settings

    @property
    def is_simulated(self) -> bool:
        """Whether they go to the simulated plotter."""
        return self.goal == SIMULATED

    @property
    def is_running(self) -> bool:
        """Whether a plot is on its way."""
        return self.sending is not None and not self.sending.is_over

    @property
    def is_drawing(self) -> bool:
        """Whether the simulated plotter still has something to draw."""
        return self.is_simulated and not self.plotter.is_idle

    @property
    def words(self) -> str:
        """How it goes, in a sentence."""
        sending = self.sending
        if sending is None:
            return "Nothing is sent yet."
        if sending.trouble and sending.stage is not Stage.CANCELLED:
            return sending.trouble
        if sending.stage is Stage.DONE:
            return "All of it is sent and drawn." if not self.is_drawing else "All of it is sent; the plotter is still drawing."
        said = {
            Stage.PAUSED: "Paused.",
            Stage.CANCELLED: "Given up: the plotter lifts its pen.",
            Stage.LOST: "The plotter is gone.",
        }
        return said.get(sending.stage, f"{100.0 * sending.share:.0f} % is sent.")

    @property
    def has_lay(self) -> bool:
        """Whether there is a lay to draw."""
        return self._lay() is not None

    @property
    def sheet(self) -> Sheet:
        """What is drawn: the pieces side by side, or the lay on the cloth where it is asked for and there."""
        plan = self._lay() if self.is_lay else None
        return self._model.derived.sheet if plan is None else lay_at_full_size(plan)

    # Choosing.

    def draw_lay(self, is_lay: bool) -> None:
        """Draws the lay, or the pieces side by side."""
        self.is_lay = is_lay
        self.changed.emit()

    def choose(self, **told: object) -> None:
        """Another plotter, handshake, speed of the line, roll or pens."""
        self._keeper.change(lambda settings: settings.model_copy(update=told))
        self.changed.emit()

    # A plot.

    def run(self) -> None:
        """Begins a plot, or gives the one up that is on its way."""
        if self.is_running:
            self.cancel()
            return
        try:
            drawn = framed(self.sheet, self._paging.printing)
            line = self._line()
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
            self.changed.emit()
            return
        kept = self._keeper.settings
        self.sending = Sending(plot(drawn), line, Handshake(kept.handshake), speed=kept.baud)
        self.size = sum(frame.size[0] for frame in drawn) + APART * (len(drawn) - 1), max(frame.size[1] for frame in drawn)
        self._last = time.monotonic()
        self._timer.start()
        self.changed.emit()

    def _line(self) -> PlotterLine:
        if not self.is_simulated:
            return SerialPlotterLine(self.goal, self._keeper.settings.baud)
        self.plotter = SimulatedPlotter(speed=SPEED)
        return DirectLine(self.plotter)

    def pause(self) -> None:
        """Pauses the plot, or goes on."""
        if self.sending is not None:
            if self.sending.stage is Stage.PAUSED:
                self.sending.go_on()
            else:
                self.sending.pause()
            self.changed.emit()

    def cancel(self) -> None:
        """Gives the plot up."""
        if self.sending is not None:
            self.sending.cancel()
            self.changed.emit()

    @contained("the plotter's line")
    def look(self) -> None:
        """Sends what the plotter has room for; the simulated one draws meanwhile."""
        now = time.monotonic()
        passed, self._last = min(now - self._last, 0.2), now
        if self.sending is not None:
            # A simulated plotter draws faster and is sent faster; a network is faster than a serial line.
            for _ in range(8 if self.is_simulated or self.goal.startswith("socket://") else 1):
                self.sending.step(now)
        if self.is_simulated:
            self.plotter.run(passed * self.pace)
            self.drawn.emit()
        if not self.is_running and not self.is_drawing:
            self._timer.stop()
        told = (self.words, self.sending.stage if self.sending is not None else Stage.DONE)
        if told != self._told:
            if told[1] is Stage.DONE and self._told[1] is not Stage.DONE and self.sending is not None and not self.is_simulated:
                self._paging.keep("plotter", self.goal[:80])
            self._told = told
            self.changed.emit()

    # The hand at the simulated plotter.

    def trouble(self, what: str) -> None:
        """Makes the simulated plotter jam, run out of paper or lose its power; or sees to it."""
        if self.plotter.trouble is not Trouble.NONE:
            self.plotter.free()
        elif what == "jam":
            self.plotter.jam()
        elif what == "paper":
            self.plotter.end_paper()
        else:
            self.plotter.power_off()
        self.changed.emit()

    def go_slow(self, is_slow: bool) -> None:
        """Draws as a slow plotter would, or ten times as fast as a usual one."""
        self.pace = SLOW if is_slow else FAST
        self.changed.emit()

    def close(self) -> None:
        """Lets go of the line."""
        self._timer.stop()
        if self.is_running:
            self.cancel()
