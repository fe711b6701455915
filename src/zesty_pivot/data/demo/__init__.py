"""The demo: the Quillmere workroom dresses the soloists of a choir. People, measurements and styles are invented."""

from __future__ import annotations

from importlib.resources import as_file, files
from pathlib import Path

from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.style_file import Style

DEMO = "descant.zpiv"


def demo_style() -> Style:
    """The demo style, read from the shipped file."""
    with as_file(files("zesty_pivot.data.demo") / DEMO) as path:
        return style_file.read(Path(path))
