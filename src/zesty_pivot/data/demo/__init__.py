"""The demo: the Quillmere workroom dresses the soloists of a choir. People, measurements and styles are invented."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import as_file, files
from pathlib import Path

from zesty_pivot.core.formats import measures_file, style_file
from zesty_pivot.core.formats.measures_file import Measures
from zesty_pivot.core.formats.style_file import Style

DEMO = "descant.zpiv"
TRACE = "paper-block.ztrace"  # what the digitiser of tenths sent while a hand traced the same block, simulated
SHEET = "paper-block.zruler"  # the same block measured with a ruler, in centimetres
PHOTOGRAPH = "paper-block.jpg"  # the demo's block as paper within the frame of marks, rendered
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
    "galliard.zpiv",
    "carol.zpiv",
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


def demo_photograph() -> bytes:
    """A photograph of a block to try the import with."""
    return (files("zesty_pivot.data.demo") / PHOTOGRAPH).read_bytes()


def demo_ruler() -> bytes:
    """The same block measured with a ruler."""
    return (files("zesty_pivot.data.demo") / SHEET).read_bytes()


def demo_trace() -> bytes:
    """What a digitiser sent while the same block was traced, to try it without one."""
    return (files("zesty_pivot.data.demo") / TRACE).read_bytes()


@lru_cache(maxsize=1)
def demo_people() -> Measures:
    """The Quillmere soloists and the youngest treble, measured."""
    with as_file(files("zesty_pivot.data.demo") / "soloists.zmeas") as path:
        return measures_file.read_all(Path(path))
