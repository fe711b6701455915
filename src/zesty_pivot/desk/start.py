"""Starting the application."""

from __future__ import annotations

import sys
from pathlib import Path

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
    window.show()
    return app.exec()
