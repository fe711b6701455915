"""Faults of the program itself: caught once, where a step, check, picture or reader begins, logged, told in one sentence.

What the program refuses on purpose is a ZestyError. Anything else is a mistake in it, and must cost no more than the one
thing that was being done. `caught` is called at each such boundary; whoever wants to know of faults (the log file, the
window, the tests) listens to the logger.
"""

from __future__ import annotations

import hashlib
import logging
import os
import platform
import traceback
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

from zesty_pivot import __version__

LOGGER = logging.getLogger("zesty_pivot.faults")
LOGGER.propagate = False
LOGGER.addHandler(logging.NullHandler())

MAX_LOG = 256 * 1024  # bytes; a log that is larger becomes the old one, and the old one before it goes
ADVICE = "Nothing else is touched. Switch it off or change it, and send the fault report to the makers."

_PACKAGE = Path(__file__).parents[1]
_MAX_WORDS = 200  # characters of an exception's own message


def caught(fault: BaseException, doing: str) -> str:
    """Logs an unexpected exception and gives its reference: eight letters and digits, the same for the same fault.

    `doing` says what was being done, for people: `step dart.move`.
    """
    reference = _reference(fault)
    LOGGER.error("%s", doing, extra={"reference": reference, "fault": fault})
    return reference


def sentence(doing: str, reference: str) -> str:
    """What is said of a fault: `the check of corners could not be done; this is a fault of the program (3f0a12bc)`."""
    return f"{doing} could not be done; this is a fault of the program (reference {reference})"


def _frames(fault: BaseException) -> list[str]:
    """The way to the fault, `core/steps/dart_move.py:87 in apply`: no folders of this machine, no source text."""
    found = []
    for frame in traceback.extract_tb(fault.__traceback__):
        path = Path(frame.filename)
        inside = path.is_relative_to(_PACKAGE)
        name = path.relative_to(_PACKAGE).as_posix() if inside else f"{path.parent.name}/{path.name}"
        found.append(f"{name}:{frame.lineno} in {frame.name}")
    return found


def _reference(fault: BaseException) -> str:
    return hashlib.sha256("\n".join([type(fault).__name__, *_frames(fault)[-6:]]).encode()).hexdigest()[:8]


def _own_words(fault: BaseException) -> str:
    """The exception's message, without what may name a person: of a system error only its kind."""
    if isinstance(fault, OSError):
        return fault.strerror or ""
    text = " ".join(str(fault).split())[:_MAX_WORDS]
    home = os.path.expanduser("~")  # noqa: PTH111 - Path.home() raises where there is no home
    return text.replace(home, "~") if len(home) > 1 else text


def report(fault: BaseException, doing: str, reference: str, steps: str = "") -> str:
    """A fault as it stands in the log: what, where, with which versions, and the recipe's steps. No personal data: no
    names, no measurements, no folders."""
    lines = [
        f"{datetime.now(UTC):%Y-%m-%d %H:%M:%S} UTC  reference {reference}  in {doing}",
        f"Zesty Pivot {__version__}, Python {platform.python_version()}, {platform.system()} {platform.machine()}",
        f"{type(fault).__name__}: {_own_words(fault)}",
        *(f"  {frame}" for frame in _frames(fault)),
    ]
    if steps:
        lines += ["the steps:", *(f"  {line}" for line in steps.splitlines())]
    return "\n".join(lines) + "\n\n"


class FaultLog(logging.Handler):
    """Writes each fault once to a file that stays small. `steps` gives the recipe's steps as text, at the time of a fault."""

    def __init__(self, path: Path, steps: Callable[[], str] = lambda: "") -> None:
        super().__init__()
        self.path, self.steps = path, steps
        self._told: set[str] = set()

    def emit(self, record: logging.LogRecord) -> None:
        """Never raises: a fault that cannot be written down is still told on the screen."""
        reference, fault = vars(record)["reference"], vars(record)["fault"]
        if reference in self._told:
            return
        self._told.add(reference)
        try:
            steps = self.steps()
        except Exception as second:  # noqa: BLE001 - the steps are told if they can be
            steps = f"not to be had: {type(second).__name__}"
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True)
            if self.path.exists() and self.path.stat().st_size > MAX_LOG:
                self.path.replace(self.path.with_name(self.path.name + ".old"))
            with self.path.open("a", encoding="utf-8", errors="backslashreplace") as file:
                file.write(report(fault, record.getMessage(), reference, steps))
        except OSError:
            return
