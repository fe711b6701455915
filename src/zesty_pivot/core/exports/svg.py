"""SVG at true size: the sheet, and each piece by itself."""

from __future__ import annotations

from functools import partial

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.file_names import svg_names
from zesty_pivot.core.formats.printing import Printing


def _files(derived: Derived, _printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats import svg

    names = svg_names(piece.name for piece in derived.pieces)
    pieces = {names[piece.name]: partial(svg.piece_svg, piece) for piece in derived.pieces}
    return {"sheet.svg": lambda: svg.sheet_svg(derived.sheet, derived.style.title), **pieces}


EXPORT = Export("svg", "sheet as SVG", ".svg", _files, lambda _paper: "sheet.svg", order=2, is_usual=True)
