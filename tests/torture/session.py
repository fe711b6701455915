"""A scripted session in a process of its own, to be killed at any moment. Run as `python -m tests.torture.session`.

The process loads everything once and then forks: a line `MODE FOLDER` on stdin begins a session there and its pid
is printed; in the mode `saving` it saves often, in the mode `editing` never. A session brings unsaved work back as a
user would, then edits every few milliseconds. Every edit has a number in the style's notes, and is logged with its time
before it is made.
"""

import hashlib
import os
import signal
import sys
import time
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from PyQt6.QtCore import QTimer

from zesty_pivot.core.formats import style_file
from zesty_pivot.core.steps import registry
from zesty_pivot.desk.start import application, open_window

EVERY_MS = 12
STATIONS = ("mid_armhole", "side_bust", "mid_neck", "french", "waist")


def digest(style) -> str:
    return hashlib.sha256(style_file.dump(style)).hexdigest()


def number_of(style) -> int:
    return int(style.notes.rpartition(" ")[2]) if style.notes.startswith("edit ") else 0


class Session:
    """Edits, undoes, redoes and saves until it is killed."""

    def __init__(self, folder: Path, mode: str) -> None:
        self.saves = mode == "saving"
        self.app = application()
        self.work = folder / "work.zpiv"
        self.window = open_window(self.work if self.work.exists() else None)
        self.window.show()
        self.window.begin(with_start_page=True)
        offered = self.window.views.start_page.leftovers
        if offered:
            offered[0].back.click()
        self.log = (folder / "log").open("a", buffering=1)
        self.number = number_of(self.window.model.style)
        self.turn = 0
        self.timer = QTimer()
        self.timer.timeout.connect(self.step)
        self.timer.start(EVERY_MS)

    def step(self) -> None:
        model = self.window.model
        self.turn += 1
        if self.saves and self.turn % 7 == 0:
            self.tell("save", model.style)
            model.file.save(self.work)
        elif self.turn % 11 == 0 and model.history.undo_title:
            model.undo()
            model.redo()
        else:
            self.number += 1
            value = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": STATIONS[self.number % 5]}}
            style = model.style.with_steps((*model.style.steps[-4:], registry.read(value)))
            style = style.model_copy(update={"notes": f"edit {self.number}"})
            self.tell("edit", style)
            model.edit(style, "scripted")

    def tell(self, what: str, style) -> None:
        self.log.write(f"{time.monotonic():.6f} {what} {number_of(style)} {digest(style)}\n")


def main() -> None:
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    sys.stdout.write("ready\n")
    sys.stdout.flush()
    for line in sys.stdin:
        pid = os.fork()
        if pid == 0:
            mode, name = line.strip().split(" ", 1)
            folder = Path(name)
            for kind in ("CONFIG", "STATE", "DATA"):
                os.environ[f"XDG_{kind}_HOME"] = str(folder / kind.lower())
            os.dup2(os.open(os.devnull, os.O_RDONLY), 0)
            session = Session(folder, mode)
            sys.exit(session.app.exec())
        sys.stdout.write(f"{pid}\n")
        sys.stdout.flush()


if __name__ == "__main__":
    main()
