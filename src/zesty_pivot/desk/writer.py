"""A thread that writes files, so that the interface never waits for the disk. No Qt here."""

from __future__ import annotations

import threading
from collections.abc import Callable

from zesty_pivot.core import faults
from zesty_pivot.core.errors import FileError, ZestyError


class Writer:
    """Does jobs in order of their keys' first mention; a job with the key of one that waits takes its place.

    A job that raises a ZestyError is told to `on_fault` (from the writer's thread).
    """

    def __init__(self, on_fault: Callable[[ZestyError], None]) -> None:
        self._on_fault = on_fault
        self._jobs: dict[str, Callable[[], None]] = {}
        self._wake = threading.Condition()
        self._is_busy = False
        self._stopped = False
        self._thread = threading.Thread(target=self._run, name="zesty-writer", daemon=True)
        self._thread.start()

    def put(self, key: str, job: Callable[[], None]) -> None:
        """Asks for a job; it is begun as soon as the one before is done."""
        with self._wake:
            self._jobs[key] = job
            self._wake.notify_all()

    def flush(self, timeout: float = 10.0) -> bool:
        """Waits until everything asked for is done; false when it takes longer than `timeout` seconds."""
        with self._wake:
            return self._wake.wait_for(lambda: not self._jobs and not self._is_busy, timeout)

    def stop(self) -> None:
        """Does what is waiting and ends the thread."""
        with self._wake:
            self._stopped = True
            self._wake.notify_all()
        self._thread.join(timeout=10.0)

    def _run(self) -> None:
        while True:
            with self._wake:
                self._is_busy = False
                self._wake.notify_all()
                self._wake.wait_for(lambda: bool(self._jobs) or self._stopped)
                if not self._jobs:
                    return
                job_key = next(iter(self._jobs))
                job = self._jobs.pop(job_key)
                self._is_busy = True
            try:
                job()
            except ZestyError as fault:
                self._on_fault(fault)
            except Exception as fault:  # noqa: BLE001 - whatever went wrong, the thread that keeps the work must go on
                reference = faults.caught(fault, f"writing the {job_key.partition(' ')[0]}")
                what = faults.sentence("writing your work down", reference)
                self._on_fault(FileError(what, advice="Save it under another name."))
