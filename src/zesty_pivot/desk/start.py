"""Starting the application."""

from __future__ import annotations

import gc
import os
import sys
import traceback
from functools import partial
from importlib.resources import as_file, files
from pathlib import Path
from types import TracebackType

from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk import settings as kept
from zesty_pivot.desk.theme import load_fonts, text_font
from zesty_pivot.desk.theming import dress
from zesty_pivot.desk.window import Window


def application() -> QApplication:
    """The one application object, with our type and theme."""
    settings = kept.load()
    if settings.scale != 100:
        os.environ.setdefault("QT_SCALE_FACTOR", f"{settings.scale / 100:g}")
    found = QApplication.instance()
    app = found if isinstance(found, QApplication) else QApplication(sys.argv[:1])
    app.setApplicationName("Zesty Pivot")
    app.setDesktopFileName("zesty-pivot")
    app.setStyle("Fusion")
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


def start(path: Path | None, *, demo: bool = False) -> int:
    """Runs the application until its window is closed; the exit code.

    Without a file the first start opens the demo, later ones the start page; `demo` always opens the demo.
    """
    app = application()
    window = open_window(path)
    sys.excepthook = partial(_report, window)
    hints = app.styleHints()
    if hints is not None:
        hints.colorSchemeChanged.connect(lambda _scheme: window.restyle())
    window.show()
    window.begin(with_start_page=path is None and not demo and window.keeper.settings.has_started)
    if path is not None:
        window.keeper.change(lambda settings: settings.with_recent(path.absolute()))
    return app.exec()


def _report(window: Window, kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
    """An unexpected fault: the work stays open, one sentence is said, the details go to a file."""
    log = kept.fault_log()
    try:
        log.parent.mkdir(parents=True, exist_ok=True)
        with log.open("a", encoding="utf-8") as file:
            file.write("".join(traceback.format_exception(kind, fault, trace)))
    except OSError:
        log = Path("nowhere: the folder cannot be written")
    window.model.say(f"That did not work, and nothing was lost. Details: {log}", fault=True)
