"""The demo: the Quillmere workroom dresses the soloists of a choir. People, measurements and styles are invented."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import as_file, files
from pathlib import Path

from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.style_file import Style

DEMO = "descant.zpiv"
DEMOS = (
    DEMO,
    "vesper.zpiv",
    "matins.zpiv",
    "compline.zpiv",
    "lauds.zpiv",
    "canticle.zpiv",
    "nocturne.zpiv",
    "antiphon.zpiv",
    "carillon.zpiv",
    "evensong.zpiv",
    "madrigal.zpiv",
    "toccata.zpiv",
    "aria.zpiv",
    "chorale.zpiv",
    "rondel.zpiv",
)


@lru_cache(maxsize=len(DEMOS))
def _read(name: str) -> Style:
    with as_file(files("zesty_pivot.data.demo") / name) as path:
        return style_file.read(Path(path))


def demo_style() -> Style:
    """The first demo style, read from the shipped file."""
    return _read(DEMO)


def demo_styles() -> tuple[Style, ...]:
    """All demo styles."""
    return tuple(_read(name) for name in DEMOS)
