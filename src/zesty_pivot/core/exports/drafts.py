"""A draft out of the program: as a PDF at a scale, and as an instruction to draw it by hand."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.drafting import Draft
from zesty_pivot.core.exports.base import FULL
from zesty_pivot.core.exports.pdf import tiled
from zesty_pivot.core.formats.draft_sheet import SCALES, draft_sheet, instruction
from zesty_pivot.core.quantity import Unit


def draft_pdf(drawn: Draft, title: str, scale: str, paper: str) -> bytes:
    """The draft at `1:1`, `1:2` or `1:4`, on pages of a paper or on one page."""
    from zesty_pivot.core.formats import pdf  # as the pages of a style: only where something is printed

    sheet, name = draft_sheet(drawn, SCALES[scale]), f"{title}, {scale}"
    return pdf.full_pdf(sheet, name) if paper == FULL else pdf.tiled_pdf(sheet, *tiled(sheet, paper), name)


def instruction_pdf(drawn: Draft, title: str, unit: Unit, paper: str) -> bytes:
    """The numbered instruction with the fraction table."""
    from zesty_pivot.core.formats import pdf

    return pdf.hand_pdf(title, instruction(drawn, unit), "A4" if paper == FULL else paper)


def fractions_pdf(title: str, rows: Sequence[Sequence[str]], paper: str) -> bytes:
    """The fraction table of a person, its first row the head."""
    from zesty_pivot.core.formats import pdf_table

    return pdf_table.table_pdf(f"{title}: fractions", rows, "A4" if paper == FULL else paper)
