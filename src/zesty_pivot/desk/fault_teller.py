"""Faults of the program as the window tells them: one sentence, written to the log, kept to be saved as a report."""

from __future__ import annotations

import logging
from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.formats.style_file import Style, anonymous_steps
from zesty_pivot.desk import settings as kept

KEPT_REPORTS = 20


class _Ear(logging.Handler):
    """Hands each record on; may be called from any thread."""

    def __init__(self, heard: Callable[[logging.LogRecord], None]) -> None:
        super().__init__()
        self._heard = heard

    def emit(self, record: logging.LogRecord) -> None:
        self._heard(record)


class FaultTeller(QObject):
    """Listens for faults while a window is there. Each is told once; the same fault again is only counted."""

    told = pyqtSignal(str)  # a sentence, in the thread of whoever listens

    def __init__(self, style: Callable[[], Style]) -> None:
        super().__init__()
        self._style = style
        self.last = ""  # the last sentence, for a window that was not there yet when it was told
        self._reports: dict[str, str] = {}
        self._log = faults.FaultLog(kept.fault_log(), self._steps)
        self._ear = _Ear(self._hear)
        faults.LOGGER.addHandler(self._log)
        faults.LOGGER.addHandler(self._ear)

    def close(self) -> None:
        """Listens no longer."""
        faults.LOGGER.removeHandler(self._log)
        faults.LOGGER.removeHandler(self._ear)

    def add_crash(self, text: str, style: Style | None) -> None:
        """Puts what an earlier run left of its crash into the report, with the steps of the work that it left."""
        steps = anonymous_steps(style) if style is not None else ""
        self._reports["crash"] = f"Zesty Pivot stopped:\n{text}\n" + (f"the steps:\n{steps}\n" if steps else "")

    @property
    def report(self) -> str:
        """All faults of this run, as they stand in the log."""
        return "".join(self._reports.values())

    def _steps(self) -> str:
        return anonymous_steps(self._style())

    def _hear(self, record: logging.LogRecord) -> None:
        reference, fault, doing = vars(record)["reference"], vars(record)["fault"], record.getMessage()
        if reference in self._reports or len(self._reports) >= KEPT_REPORTS:
            return
        try:
            steps = self._steps()
        except Exception as second:  # noqa: BLE001 - what tells of faults must not fail itself
            steps = f"not to be had: {type(second).__name__}"
        self._reports[reference] = faults.report(fault, doing, reference, steps)
        self.last = f"{faults.sentence(doing[:1].upper() + doing[1:], reference)}. Your work is safe."
        self.told.emit(self.last)
