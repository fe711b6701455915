"""What is done with a digitiser: start and stop, replay, save, and a block made of it. Faults are said, nothing is lost."""

from __future__ import annotations

from typing import TYPE_CHECKING, Protocol

from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.digitised import SUFFIX as TRACE_SUFFIX
from zesty_pivot.core.formats.imported import MAX_IMPORT
from zesty_pivot.core.intake.digitiser.device import SUFFIX as DEVICE_SUFFIX
from zesty_pivot.desk.arriving import TRACES
from zesty_pivot.desk.digitiser_view import SIMULATED

if TYPE_CHECKING:
    from zesty_pivot.desk.ask import Asker
    from zesty_pivot.desk.model import DeskModel
    from zesty_pivot.desk.views import Views


class TracingHost(Protocol):
    """What this work asks of the window."""

    model: DeskModel
    ask: Asker
    views: Views


class Tracing:
    """The work with a digitiser."""

    def __init__(self, window: TracingHost) -> None:
        self._window, self._model = window, window.model

    def run(self) -> None:
        """Opens the line that is chosen, or lets go of the one that is open."""
        digitising = self._window.views.intake.digitising
        line = str(self._window.views.intake.digitiser_view.line.currentData() or SIMULATED)
        if digitising.is_running:
            digitising.stop()
        elif line == SIMULATED:
            self._model.tried(digitising.play_demo, "A hand traces the demo's block.")
        else:
            self._model.tried(lambda: digitising.open(line), f"{line} is open: press a place.")

    def replay(self) -> None:
        """Asks for a kept trace and plays it."""
        path = self._window.ask.open_file("Replay a trace", f"{TRACES};;All files (*)")
        if path is not None:
            digitising = self._window.views.intake.digitising
            self._model.tried(lambda: digitising.play(path.name, files.read_bytes(path, MAX_IMPORT)), f"{path.name} is played.")

    def add_device(self) -> None:
        """Asks how another digitiser talks."""
        path = self._window.ask.open_file("Another digitiser's file", f"Digitisers (*{DEVICE_SUFFIX})")
        if path is not None:
            digitising = self._window.views.intake.digitising
            if self._model.tried(lambda: digitising.add_device(path)):
                self._model.say(f"{digitising.device.title} is chosen.")

    def save(self) -> None:
        """What the line sent, as a file."""
        taken = self._window.views.intake.digitising.taken
        path = self._window.ask.save_file("Save this trace", f"{taken.name}{TRACE_SUFFIX}", TRACES)
        if path is not None:
            target = path if path.suffix else path.with_suffix(TRACE_SUFFIX)
            self._model.tried(lambda: files.write_atomic(target, taken.raw), f"Saved {target.name}.")

    def finish(self) -> None:
        """A block of what was traced, to be looked at in the import view."""
        digitising, incoming = self._window.views.intake.digitising, self._window.views.intake.incoming
        digitising.stop()
        self._model.tried(
            lambda: incoming.begin(digitising.source()),
            "It lies on the table. Look at what is asked, then begin a style over it.",
        )
