"""Stickers with a code for every piece of cloth."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats.stickers import stickers_pdf
    from zesty_pivot.core.nest.paged import PAPERS

    size = printing.paper if printing.paper in PAPERS else "A4"
    return {"stickers.pdf": lambda: stickers_pdf(derived, size)}


EXPORT = Export(
    "stickers", "stickers", ".pdf", _files, lambda _paper: "stickers.pdf", order=8,
    tip="A sticker for every piece of cloth, with a code that a telephone reads",
)  # fmt: skip
