"""The search for a lay, in a thread beside whatever else is worked on."""

from __future__ import annotations

import threading

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.kept_lay import laid
from zesty_pivot.core.formats.lay_models import LayFile


class LaySearch(QObject):
    """One search at a time; the latest that was asked for."""

    improved = pyqtSignal(object, object)  # what was asked, plan
    ended = pyqtSignal(object, str)  # what was asked, what went wrong

    def __init__(self) -> None:
        super().__init__()
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self.asked: LayFile | None = None
        self.ended.connect(self._end)

    @property
    def is_at_work(self) -> bool:
        """Whether it is searching."""
        return self.asked is not None

    def begin(self, derived: Derived, asked: LayFile, seconds: int | None) -> None:
        """Begins; a search that runs is given up. `seconds` 0 lays the pieces one by one only."""
        self.stop()
        self.asked, self._stop = asked, threading.Event()
        work = (derived, asked, seconds, self._stop)
        self._thread = threading.Thread(target=self._work, args=work, name="zesty-lay", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Stops; what was found stays."""
        self._stop.set()
        self.asked = None

    def close(self) -> None:
        """Stops, and waits for the thread."""
        self.stop()
        if self._thread is not None:
            self._thread.join()
            self._thread = None

    def _work(self, derived: Derived, asked: LayFile, seconds: int | None, stop: threading.Event) -> None:
        fault = ""
        try:
            for plan in laid(derived, asked, seconds=seconds, stop=stop):
                if stop.is_set():
                    break
                plan.shapes, plan.clashes, plan.laid  # noqa: B018 - worked out here, not where it is drawn
                self.improved.emit(asked, plan)
        except ZestyError as raised:
            fault = str(raised)
        except Exception as raised:  # noqa: BLE001 - the boundary of the search: what lies on the cloth stays there
            fault = faults.sentence("the lay", faults.caught(raised, "laying on cloth"))
        if not stop.is_set():
            self.ended.emit(asked, fault)

    def _end(self, asked: LayFile, _fault: str) -> None:
        if asked is self.asked:
            self.asked = None
