"""A draft out of the program: as a PDF at a scale, and as an instruction to draw it by hand; a fraction table."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.drafting.draft import Draft
from zesty_pivot.core.formats import pdf
from zesty_pivot.core.formats.draft_sheet import SCALES, draft_sheet, instruction
from zesty_pivot.core.formats.pdf_table import table_pdf
from zesty_pivot.core.nest.paged import PAPERS, page_setup
from zesty_pivot.core.nest.pages import side_by_side
from zesty_pivot.core.quantity import Unit


def draft_pdf(drawn: Draft, title: str, scale: str, paper: str) -> bytes:
    """The draft at `1:1`, `1:2` or `1:4`, on pages of a paper; on one page where it is none."""
    sheet, name = draft_sheet(drawn, SCALES[scale]), f"{title}, {scale}"
    if paper not in PAPERS:
        return pdf.full_pdf(sheet, name)
    plan = side_by_side(tuple(laid.piece for laid in sheet.laid), page_setup(paper))
    return pdf.pages_pdf(plan, plan.pages, name)


def instruction_pdf(drawn: Draft, title: str, unit: Unit, paper: str) -> bytes:
    """The numbered instruction with the fraction table."""
    return pdf.hand_pdf(title, instruction(drawn, unit), _page(paper))


def fractions_pdf(title: str, rows: Sequence[Sequence[str]], paper: str) -> bytes:
    """The fraction table of a person, its first row the head."""
    return table_pdf(f"{title}: fractions", rows, _page(paper))


def _page(paper: str) -> str:
    return paper if paper in PAPERS else "A4"
