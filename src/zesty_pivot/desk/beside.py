"""A search in a thread of its own, beside whatever else is worked on."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError


class Beside(QObject):
    """One search at a time, the latest that was asked for: nothing is heard of one that was given up."""

    improved = pyqtSignal(object, object)  # what was asked, what was found
    ended = pyqtSignal(object, str)  # what was asked, what went wrong
    _found = pyqtSignal(object, object)  # the same from the thread, which may come when the search is given up already
    _over = pyqtSignal(object, str)

    def __init__(self, doing: str) -> None:
        """`doing` says what is done, for people: `packing the pages`."""
        super().__init__()
        self._doing = doing
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self.asked: object = None
        self._found.connect(self._tell)
        self._over.connect(self._end)

    @property
    def is_at_work(self) -> bool:
        """Whether it is searching."""
        return self.asked is not None

    def begin(self, asked: object, search: Callable[[threading.Event], Iterator[object]]) -> None:
        """Begins; a search that runs is given up. `asked` tells one search from another; `search` gives better and better
        results, and looks at the event that stops it."""
        self.stop()
        self.asked, self._stop = asked, threading.Event()
        self._thread = threading.Thread(target=self._work, args=(asked, search, self._stop), name=self._doing, daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Stops; what was found stays. The thread ends after the round in hand, and what it still finds is nobody's."""
        self._stop.set()
        self.asked = None

    def close(self) -> None:
        """Stops, and waits for the thread."""
        self.stop()
        if self._thread is not None:
            self._thread.join()
            self._thread = None

    def _work(self, asked: object, search: Callable[[threading.Event], Iterator[object]], stop: threading.Event) -> None:
        fault = ""
        try:
            for found in search(stop):
                if stop.is_set():
                    break
                self._found.emit(asked, found)
        except ZestyError as raised:
            fault = str(raised)
        except Exception as raised:  # noqa: BLE001 - the boundary of the search: what was found before it stays
            fault = faults.sentence(self._doing, faults.caught(raised, self._doing))
        if not stop.is_set():
            self._over.emit(asked, fault)

    def _tell(self, asked: object, found: object) -> None:
        if asked is self.asked:
            self.improved.emit(asked, found)

    def _end(self, asked: object, fault: str) -> None:
        if asked is self.asked:
            self.asked = None
            self.ended.emit(asked, fault)


def rest_timer(owner: QObject, ms: int, rested: Callable[[], object]) -> QTimer:
    """A timer that is started anew with every move of a hand; when the hand has rested, something is done."""
    timer = QTimer(owner)
    timer.setSingleShot(True)
    timer.setInterval(ms)
    timer.timeout.connect(rested)
    return timer
