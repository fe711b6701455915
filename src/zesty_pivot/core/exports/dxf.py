"""DXF for other pattern systems: all pieces in one file, or each in its own."""

from __future__ import annotations

from functools import partial

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.finish.sheet import lay
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.file_names import plain_names
from zesty_pivot.core.formats.printing import Printing


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats import dxf

    finish, version = derived.style.finish, printing.dxf
    told = (derived.style.title, finish.size, finish.cloth, version)
    whole: dict[str, Make] = {"pattern.dxf": partial(dxf.pattern_dxf, derived.sheet.laid, *told)}
    names = plain_names((piece.name for piece in derived.sheet_pieces), ("pattern",))
    each = {f"{names[one.name]}.dxf": partial(dxf.pattern_dxf, lay((one,)).laid, *told) for one in derived.sheet_pieces}
    return whole | each if printing.dxf_each else whole


EXPORT = Export(
    "dxf", "pattern as DXF", ".dxf", _files, lambda _paper: "pattern.dxf", order=4,
    tip="Polylines and exact curves in numbered layers, for other pattern systems",
)  # fmt: skip
