"""Long work beside the interface: a thread, a progress bar after half a second, and a way to stop it."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QProgressBar, QPushButton, QWidget

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError

SHOWN_AFTER_MS = 500
PATIENCE_S = 0.08  # most work is done by then, and nothing need be shown
TOLD_EVERY_S = 0.04  # more often would fill the interface's queue and keep its timers waiting


class Stopped(ZestyError):  # noqa: N818 - no fault: the user asked for it
    """The user stopped the work."""


class Progress:
    """What the work tells about itself; from the worker's thread."""

    def __init__(self, told: Callable[[int, int], None]) -> None:
        self._told = told
        self._stop = threading.Event()
        self._last = float("-inf")

    def __call__(self, done: int, total: int) -> None:
        """So many parts of so many are done. Raises Stopped when the user does not want more."""
        if self._stop.is_set():
            raise Stopped("stopped; nothing was written")
        now = time.monotonic()
        if done >= total or now - self._last >= TOLD_EVERY_S:
            self._last = now
            self._told(done, total)

    def stop(self) -> None:
        """Asks the work to stop at its next part."""
        self._stop.set()


class Worker(QObject):
    """One piece of work at a time."""

    told = pyqtSignal(int, int)
    done = pyqtSignal(object, object)  # result, fault
    changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.patience = PATIENCE_S
        self.title = ""
        self._progress: Progress | None = None
        self._after: Callable[[Any], None] | None = None
        self._fault: Callable[[ZestyError], None] | None = None
        self.done.connect(self._finish)  # queued: it is emitted by the worker's thread

    @property
    def is_busy(self) -> bool:
        """Whether something is being worked on."""
        return self._progress is not None

    def run(
        self, title: str, job: Callable[[Progress], Any], after: Callable[[Any], None], fault: Callable[[ZestyError], None]
    ) -> None:
        """Does `job` in a thread, then `after` with its result, or `fault`, here. Refused while something else is worked on."""
        if self.is_busy:
            fault(ZestyError(f"still at work: {self.title}", advice="Wait for it, or stop it."))
            return
        self.title, self._after, self._fault = title, after, fault
        progress = self._progress = Progress(self.told.emit)
        outcome: list[tuple[Any, BaseException | None]] = []

        def work() -> None:
            try:
                found: tuple[Any, BaseException | None] = (job(progress), None)
            except BaseException as raised:  # noqa: BLE001 - handed over to the interface's thread, which raises what is unexpected
                found = (None, raised)
            outcome.append(found)
            if not waits.is_set():
                self.done.emit(*found)

        waits = threading.Event()
        waits.set()
        thread = threading.Thread(target=work, name="zesty-work", daemon=True)
        thread.start()
        thread.join(self.patience)
        waits.clear()
        if outcome:
            self._finish(*outcome[0])
        else:
            self.changed.emit()

    def stop(self) -> None:
        """Stops the work at its next part."""
        if self._progress is not None:
            self._progress.stop()

    def _finish(self, result: Any, raised: BaseException | None) -> None:
        if self._progress is None:
            return
        self._progress = None
        self.changed.emit()
        if raised is None and self._after is not None:
            self._after(result)
        elif raised is not None and self._fault is not None:
            if not isinstance(raised, ZestyError):
                reference = faults.caught(raised, self.title)
                raised = ZestyError(faults.sentence(self.title, reference), advice="Nothing that was open is changed.")
            self._fault(raised)


class ProgressBox(QFrame):
    """The bar over the view, with a button that stops the work. Shown when it takes more than half a second."""

    def __init__(self, worker: Worker, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("notice")
        self._worker = worker
        self.words, self.bar, self.cancel = QLabel(), QProgressBar(), QPushButton("Stop")
        self.bar.setTextVisible(False)
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 8, 10, 8)
        row.setSpacing(10)
        for widget in (self.words, self.bar, self.cancel):
            row.addWidget(widget)
        self.hide()
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._appear)
        self.cancel.clicked.connect(worker.stop)
        worker.changed.connect(self._follow)
        worker.told.connect(self._tell)

    def _follow(self) -> None:
        if self._worker.is_busy:
            self.bar.setRange(0, 0)
            self._timer.start(SHOWN_AFTER_MS)
        else:
            self._timer.stop()
            self.hide()

    def _appear(self) -> None:
        if self._worker.is_busy:
            self.words.setText(self._worker.title)
            self.adjustSize()
            parent = self.parentWidget()
            if parent is not None:
                self.move((parent.width() - self.width()) // 2, 70)
            self.show()
            self.raise_()

    def _tell(self, done: int, total: int) -> None:
        self.bar.setRange(0, max(total, 1))
        self.bar.setValue(done)
