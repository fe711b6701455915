"""When what stands beside the table follows: at once, at a pace while something is dragged; the findings a moment later."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Protocol

from PyQt6.QtCore import QObject, QTimer, pyqtBoundSignal, pyqtSignal

from zesty_pivot.core.checks.base import Look
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.desk.contained import tried

FOLLOW_MS = 100  # what stands beside the table follows a drag as often as a figure can be read; the table follows each move
REST_MS = 1  # after an edit, until its findings are looked for: what it changed on the table is painted before


class Shown(Protocol):
    """What is shown of a document, and whether it is being dragged."""

    @property
    def derived(self) -> Derived: ...

    @property
    def state_index(self) -> int: ...

    @property
    def look(self) -> Look: ...

    @property
    def is_previewing(self) -> bool: ...


class Pace(QObject):
    """Follows a document. What it tells of may be asked of the document at any time; this tells when to show it."""

    followed = pyqtSignal()  # the document changed, or what is shown of it: at once, but while something is dragged at a pace
    checked = pyqtSignal()  # the findings may be shown now

    def __init__(self, document: Shown, changed: pyqtBoundSignal) -> None:
        super().__init__()
        self._document = document
        self._pace, self._rest, self._turn = (self._timer(ms) for ms in (FOLLOW_MS, REST_MS, 0))
        self._pace.timeout.connect(self.followed)
        self._rest.timeout.connect(self._turn.start)  # in a turn of the event loop of its own, so that keys are heard before
        self._turn.timeout.connect(self._look_on)
        self._finishing: Iterator[object] = iter(())  # the pieces that the findings look at, finished one in a turn
        self._checked: tuple[Derived, int] | None = None  # what the findings were looked for last, and which state of it
        self.is_checked = False  # whether the findings of what is shown were looked for
        self._is_closed = False
        changed.connect(self._follow)

    def _timer(self, ms: int) -> QTimer:
        found = QTimer(self)
        found.setSingleShot(True)
        found.setInterval(ms)
        return found

    def _follow(self) -> None:
        document = self._document
        if self._is_closed:
            return
        if document.is_previewing:
            if not self._pace.isActive():
                self._pace.start()
            return
        self._pace.stop()
        derived, state = document.derived, document.state_index
        if self._checked is not None and (derived is not self._checked[0] or state != self._checked[1]):
            self.is_checked = False
            self._finishing = document.look.finishing()
            self._rest.start()
        self.followed.emit()

    def _look_on(self) -> None:
        more = tried(lambda: next(self._finishing, None), None, "the findings")
        if more is not None and not self._document.is_previewing:
            self._turn.start()
        else:
            self.check()

    def check(self) -> None:
        """Has the findings looked for, once what they are about is painted: those of finished pieces take some tens of ms."""
        if not self.is_checked:
            self._rest.stop()
            self._turn.stop()
            self.is_checked, self._checked = True, (self._document.derived, self._document.state_index)
            self.checked.emit()

    def close(self) -> None:
        """Nobody looks any longer: what would come a moment later does not."""
        for timer in (self._pace, self._rest, self._turn):
            timer.stop()
        self.is_checked = self._is_closed = True
