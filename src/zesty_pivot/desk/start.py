"""Starting the application."""

from __future__ import annotations

import sys
import traceback
from functools import partial
from pathlib import Path
from types import TracebackType

from platformdirs import user_state_dir
from PyQt6.QtWidgets import QApplication

from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk.theme import LIGHT, load_fonts, stylesheet, text_font
from zesty_pivot.desk.window import Window


def application() -> QApplication:
    """The one application object, with our type and style."""
    found = QApplication.instance()
    app = found if isinstance(found, QApplication) else QApplication(sys.argv[:1])
    app.setApplicationName("Zesty Pivot")
    app.setStyle("Fusion")
    load_fonts()
    app.setFont(text_font())
    app.setStyleSheet(stylesheet(LIGHT))
    return app


def open_window(path: Path | None) -> Window:
    """The window on a style, a new style over a block, or the demo. Raises FileError for a file that is not sound."""
    if path is None:
        return Window(demo_style())
    if path.suffix == ".zblock":
        return Window(style_file.from_block(block_file.read(path), path.stem.replace("-", " ")))
    return Window(style_file.read(path), path)


def start(path: Path | None) -> int:
    """Runs the application until its window is closed; the exit code."""
    app = application()
    window = open_window(path)
    sys.excepthook = partial(_report, window)
    window.show()
    return app.exec()


def fault_log() -> Path:
    """Where unexpected faults are written down."""
    return Path(user_state_dir("zesty-pivot")) / "faults.log"


def _report(window: Window, kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
    """An unexpected fault: the work stays open, one sentence is said, the details go to a file."""
    log = fault_log()
    try:
        log.parent.mkdir(parents=True, exist_ok=True)
        with log.open("a", encoding="utf-8") as file:
            file.write("".join(traceback.format_exception(kind, fault, trace)))
    except OSError:
        log = Path("nowhere: the folder cannot be written")
    window.model.say(f"That did not work, and nothing was lost. Details: {log}", fault=True)
