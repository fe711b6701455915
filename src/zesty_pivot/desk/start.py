"""Starting the application."""

from __future__ import annotations

import gc
import os
import sys
from importlib.resources import as_file, files
from pathlib import Path
from types import TracebackType

from PyQt6.QtCore import QLoggingCategory
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from zesty_pivot.core import faults
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk import settings as kept
from zesty_pivot.desk.crashes import CrashFile
from zesty_pivot.desk.interrupts import Interrupts
from zesty_pivot.desk.theme import load_fonts, text_font
from zesty_pivot.desk.theming import dress
from zesty_pivot.desk.window import BROUGHT_IN, PICTURES, RAIL, RULER_SHEET, TRACE, Window


def application() -> QApplication:
    """The one application object, with our type and theme."""
    settings = kept.load()
    if settings.scale != 100:
        os.environ.setdefault("QT_SCALE_FACTOR", f"{settings.scale / 100:g}")
    # Qt warns of every font that cannot shape a script before it takes the one that can.
    QLoggingCategory.setFilterRules("qt.text.font.db.warning=false")
    found = QApplication.instance()
    if isinstance(found, QApplication):
        app = found
        app.setStyle("Fusion")
    else:  # named at once: asking for the style makes its hundreds of names, a fiftieth of a start
        app = QApplication([*sys.argv[:1], "-style", "Fusion"])
    app.setApplicationName("Zesty Pivot")
    app.setDesktopFileName("zesty-pivot")
    load_fonts()
    app.setFont(text_font())
    with as_file(files("zesty_pivot.data") / "desktop" / "zesty-pivot.svg") as picture:
        app.setWindowIcon(QIcon(str(picture)))
    dress(app, settings.theme)
    return app


def open_window(path: Path | None) -> Window:
    """The window on a style, a new style over a block, or the demo. Raises FileError for a file that is not sound."""
    if path is None:
        window = Window(demo_style())
    elif path.suffix == block_file.SUFFIX:
        window = Window(style_file.from_block(block_file.read(path), path.stem.replace("-", " ")))
    else:
        window = Window(style_file.read(path), path.absolute())
    # What is loaded by now stays to the end: the collector need not look at it again, which keeps its pauses short.
    gc.freeze()
    return window


def _brought_in() -> frozenset[str]:
    """The endings of what is brought in."""
    from zesty_pivot.core.intake.readers.registry import all_readers

    drawings = (ending for reader in all_readers() for ending in reader.endings)
    return frozenset((*drawings, *PICTURES, *BROUGHT_IN, RAIL, RULER_SHEET, TRACE))


def start(path: Path | None, *, demo: bool = False) -> int:
    """Runs the application until its window is closed; the exit code.

    Without a file the first start opens the demo, later ones the start page; `demo` always opens the demo. What is neither a
    style nor a block is brought in, as if it had been dropped on the window.
    """
    app = application()
    sys.excepthook = _caught
    crash = CrashFile(kept.crash_folder())
    brought = path if path is not None and path.suffix.lower() in _brought_in() else None  # a drawing, a photograph, people
    path = None if brought is not None else path
    window = open_window(path)
    hints = app.styleHints()
    if hints is not None:
        hints.colorSchemeChanged.connect(lambda _scheme: window.restyle())

    def asked_to_end(code: int) -> None:
        window.keeper.leave()
        app.exit(code)

    interrupts = Interrupts(asked_to_end)
    window.show()
    is_alone = path is None and brought is None and not demo
    window.begin(with_start_page=is_alone and window.keeper.settings.has_started)
    if brought is not None:
        window.take(brought.absolute())
    if path is not None:
        window.keeper.change(lambda settings: settings.with_recent(path.absolute()))
    code = app.exec()
    interrupts.close()
    crash.close()
    return code


def _caught(kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
    """An unexpected fault that no boundary caught: the window tells it, the work stays open."""
    if isinstance(fault, Exception):
        faults.caught(fault.with_traceback(trace), "what was asked for")
    else:
        sys.__excepthook__(kind, fault, trace)
