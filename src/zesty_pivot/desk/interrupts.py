"""Ctrl+C in the terminal, and being asked to end by the system: the window ends at once, and its unsaved work stays."""

from __future__ import annotations

import signal
import socket
from collections.abc import Callable

from PyQt6.QtCore import QObject, QSocketNotifier

ASKED = (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)


class Interrupts(QObject):
    """Calls `ended` with the exit code (130 for Ctrl+C) when the process is asked to end. Python's signal handlers run only
    while Python runs; a socket wakes Qt's loop for them."""

    def __init__(self, ended: Callable[[int], None]) -> None:
        super().__init__()
        self._ended = ended
        self._read, self._write = socket.socketpair()
        for end in (self._read, self._write):
            end.setblocking(False)
        self._before = signal.set_wakeup_fd(self._write.fileno(), warn_on_full_buffer=False)
        self._handlers = {asked: signal.signal(asked, lambda _signal, _frame: None) for asked in ASKED}
        self._notifier = QSocketNotifier(self._read.fileno(), QSocketNotifier.Type.Read)  # type: ignore[call-overload]
        self._notifier.activated.connect(self._hear)

    def _hear(self) -> None:
        for number in self._read.recv(64):
            if number in ASKED:
                self._ended(128 + number)
                return

    def close(self) -> None:
        """Signals do again what they did before."""
        self._notifier.setEnabled(False)
        signal.set_wakeup_fd(self._before)
        for asked, handler in self._handlers.items():
            signal.signal(asked, handler)
        self._read.close()
        self._write.close()
