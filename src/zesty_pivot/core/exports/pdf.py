"""PDF at true scale: in pages for the paper, and on one page."""

from __future__ import annotations

from zesty_pivot.core.exports.base import FULL, Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing, chosen_pages
from zesty_pivot.core.procedures.hand import Way
from zesty_pivot.core.recipe.hand import Section


def hand_pages(derived: Derived, way: Way | None = None) -> tuple[Section, ...]:
    """The hand sheet that goes along with the pages: in the way asked for, else as the finish says; none when it says so."""
    chosen = way or derived.style.finish.hand_sheet
    return () if chosen == "none" else derived.by_hand(chosen)


def hand_pdf(derived: Derived, way: Way, paper: str) -> bytes:
    """The hand sheet alone as a PDF."""
    from zesty_pivot.core.formats import pdf

    return pdf.hand_pdf(derived.style.title, hand_pages(derived, way), paper)


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats import pdf
    from zesty_pivot.core.formats.kept_pages import page_plan

    hand, name, rows, in_colour = hand_pages(derived), derived.style.title, derived.sheet.title, printing.in_colour

    def pages() -> bytes:
        plan = page_plan(derived, printing)
        return pdf.pages_pdf(plan, chosen_pages(printing.only, plan.pages), name, rows, hand, in_colour=in_colour)

    return {
        f"tiles-{printing.paper}.pdf": pages,
        "full.pdf": lambda: pdf.full_pdf(derived.sheet, name, hand, in_colour=in_colour),
    }


EXPORT = Export(
    "pdf", "PDF", ".pdf", _files, lambda paper: "full.pdf" if paper == FULL else f"tiles-{paper}.pdf",
    button="PDF to print", tip="Pages at true size, to print at 100 %", icon="printer", shortcut="Ctrl+P", order=1,
    is_printed=True, is_usual=True,
)  # fmt: skip
