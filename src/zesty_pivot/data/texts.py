"""The texts that ship: the guide, what is new. Markdown, read where they lie."""

from __future__ import annotations

from importlib.resources import as_file, files
from pathlib import Path

GUIDE_PAGES = (
    "README.md",
    "begin.md",
    "point.md",
    "measure.md",
    "draft.md",
    "import.md",
    "ring.md",
    "darts.md",
    "necklines.md",
    "panels.md",
    "fullness.md",
    "drapes.md",
    "trims.md",
    "true.md",
    "compare.md",
    "variants.md",
    "stand.md",
    "sizes.md",
    "finish.md",
    "paper.md",
    "cloth.md",
    "plotter.md",
    "true_size.md",
    "hand.md",
    "practise.md",
    "desk.md",
    "files.md",
)


def guide(page: str) -> str:
    """A page of the guide by its file name. Raises FileNotFoundError for a page that does not ship."""
    if page not in GUIDE_PAGES:
        raise FileNotFoundError(page)
    with as_file(files("zesty_pivot.data") / "guide" / page) as path:
        return Path(path).read_text(encoding="utf-8")


def guide_title(page: str) -> str:
    """The heading of a page of the guide."""
    return guide(page).partition("\n")[0].lstrip("# ").strip()


def news() -> str:
    """What is new, in a few lines."""
    with as_file(files("zesty_pivot.data") / "news.md") as path:
        return Path(path).read_text(encoding="utf-8")
