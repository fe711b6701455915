"""Where the command begins: before anything else is loaded, so that Ctrl+C ends it quietly at any moment."""

from __future__ import annotations

import os
import signal
import sys
import warnings
from types import FrameType

_ENDING = (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)


def _end(number: int, _frame: FrameType | None) -> None:
    """Ends at once, with 130 for Ctrl+C as shells expect. What was being written goes; what is in place stays whole."""
    folder = sys.modules.get("zesty_pivot.core.formats.folder")  # loaded only once something is being written
    may_end = getattr(folder, "may_end", None)  # none while it is still being loaded: then nothing is being written yet
    if may_end is None or may_end(number):
        os._exit(128 + number)


def main() -> None:
    """The command `zesty-pivot`."""
    for number in _ENDING:
        if signal.getsignal(number) is not signal.SIG_IGN:  # under nohup it stays ignored
            signal.signal(number, _end)
    if not sys.warnoptions:
        warnings.simplefilter("ignore")  # what libraries warn of is for those who develop, and no line for a user
    from zesty_pivot.cli.main import run

    try:
        run()
    finally:
        # All is done; while the interpreter takes itself apart there is nobody to answer Ctrl+C with a code.
        signal.signal(signal.SIGINT, signal.SIG_IGN)
