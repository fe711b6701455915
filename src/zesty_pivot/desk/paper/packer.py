"""The search for fewer pages, in a thread of its own beside whatever else is worked on."""

from __future__ import annotations

import threading
import time

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.nest.paged import PageSetup
from zesty_pivot.core.nest.pages import searched
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.core.record import record

SOON_S = 2.5  # how long it is looked for without being asked: most of what can be won is won by then
IDLE_S = 60.0  # and where it was asked for, how long after the last plan that was better


@record(eq=False)
class Search:
    """One search: what is packed, and whether it goes on until it is stopped."""

    pieces: tuple[FinishedPiece, ...]
    setup: PageSetup
    apart: bool
    goes_on: bool


class PackingSearch(QObject):
    """One search at a time; the latest that was asked for."""

    improved = pyqtSignal(object, object)  # search, plan
    ended = pyqtSignal(object, str)  # search, what went wrong

    def __init__(self) -> None:
        super().__init__()
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self.search: Search | None = None
        self.ended.connect(self._end)

    @property
    def is_at_work(self) -> bool:
        """Whether it is searching."""
        return self.search is not None

    def begin(self, search: Search) -> None:
        """Begins a search; one that runs is given up."""
        self.stop()
        self.search, self._stop = search, threading.Event()
        self._thread = threading.Thread(target=self._work, args=(search, self._stop), name="zesty-packing", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Stops; what was found stays. The thread ends after the round in hand, and what it still finds is nobody's."""
        self._stop.set()
        self.search = None

    def close(self) -> None:
        """Stops, and waits for the thread."""
        self.stop()
        if self._thread is not None:
            self._thread.join()
            self._thread = None

    def _work(self, search: Search, stop: threading.Event) -> None:
        fault = ""
        try:
            begun = better = time.monotonic()
            best: PagePlan | None = None
            for plan in searched(search.pieces, search.setup, apart=search.apart):
                now = time.monotonic()
                if plan is not best:
                    best, better = plan, now
                    plan.pages, plan.laid  # noqa: B018 - worked out here, not where it is drawn
                    if not stop.is_set():
                        self.improved.emit(search, plan)
                if stop.is_set() or now - (better if search.goes_on else begun) > (IDLE_S if search.goes_on else SOON_S):
                    break
        except ZestyError as raised:
            fault = str(raised)
        except Exception as raised:  # noqa: BLE001 - the boundary of the search: the pages stay as they lie
            fault = faults.sentence("packing the pages", faults.caught(raised, "packing pages"))
        if not stop.is_set():
            self.ended.emit(search, fault)

    def _end(self, search: Search, _fault: str) -> None:
        if search is self.search:
            self.search = None
