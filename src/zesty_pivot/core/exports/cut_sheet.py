"""The cut sheet and making sheet: for the cutter, for a spreadsheet, for other programs."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.kept import kept_with


@kept_with
def _sheet(derived: Derived, on_stand: bool):  # type: ignore[no-untyped-def]
    """Three files are made of one sheet."""
    from zesty_pivot.core.formats.cut_sheet import cut_sheet

    if not on_stand:
        return cut_sheet(derived)
    from zesty_pivot.core.formats.stood import stand_shown

    return cut_sheet(derived, stand_shown(derived))


def _pdf(derived: Derived, printing: Printing) -> bytes:
    from zesty_pivot.core.formats.pdf_cut_sheet import cut_sheet_pdf
    from zesty_pivot.core.nest.paged import PAPERS

    return cut_sheet_pdf(
        _sheet(derived, printing.on_stand), derived.style.title, printing.paper if printing.paper in PAPERS else "A4"
    )


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats import cut_sheet

    return {
        "cut-sheet.pdf": lambda: _pdf(derived, printing),
        "cut-sheet.csv": lambda: cut_sheet.as_csv(_sheet(derived, printing.on_stand)),
        "cut-sheet.json": lambda: cut_sheet.as_json(_sheet(derived, printing.on_stand)),
    }


EXPORT = Export(
    "cut-sheet", "cut sheet", ".pdf", _files, lambda _paper: "cut-sheet.pdf", order=7,
    tip="What is cut of what, what else is needed, in which order it is sewn", is_printed=False,
)  # fmt: skip
