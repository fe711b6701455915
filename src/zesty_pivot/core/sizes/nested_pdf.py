"""The nested sheet as PDF, a layer a size: on one page at full size, or on pages for a home printer. Readers show the layers in
a list (optional content, ISO 32000-1, 8.11), and print those that are on."""

from __future__ import annotations

from collections.abc import Sequence
from types import MethodType
from typing import Any

from reportlab.pdfbase.pdfdoc import PDFArray, PDFDictionary, PDFName, PDFPage, PDFString

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import LineLook, draw
from zesty_pivot.core.finish.piece import Stroke
from zesty_pivot.core.finish.sheet import lay
from zesty_pivot.core.formats.pdf_pages import add_pages
from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.formats.pdf_pen import Box, PdfPen
from zesty_pivot.core.formats.pdf_squares import SQUARE_IN, squares
from zesty_pivot.core.nest.paged import PageSetup
from zesty_pivot.core.nest.pages import plan_of
from zesty_pivot.core.sizes.nested_sheet import NestedSheet, look_of_stroke


def nested_full_pdf(sheet: NestedSheet) -> bytes:
    """One page at full size, with the calibration squares below the pieces."""
    whole, paper = lay(sheet.pieces), _LayeredPaper(sheet.title, sheet.titles)
    paper.page(max(whole.width, 260.0), whole.height + SQUARE_IN + 25.0)
    draw(whole.laid, _LayeredPen(paper))
    squares(paper, 15.0, whole.height + 5.0)
    paper.canvas.showPage()
    return paper.done()


def nested_pages_pdf(sheet: NestedSheet, setup: PageSetup) -> bytes:
    """Pages with their map and joining marks. Raises ZestyError where they are too many."""
    paper = _LayeredPaper(sheet.title, sheet.titles)
    plan = plan_of(sheet.pieces, setup)
    add_pages(paper, plan, plan.pages, sheet.title, pen=_LayeredPen)
    return paper.done()


class _LayeredPaper(Paper):
    """A page whose lines may be of layers."""

    def __init__(self, title: str, layers: Sequence[str]) -> None:
        super().__init__(title)
        document: Any = self.canvas._doc
        groups = [
            document.Reference(PDFDictionary({"Type": PDFName("OCG"), "Name": PDFString(name)}), f"layer{n}")
            for n, name in enumerate(layers, 1)
        ]
        self._properties = {f"L{n}": group for n, group in enumerate(groups, 1)}
        order = PDFDictionary({"Order": PDFArray(groups), "ON": PDFArray(groups), "Name": PDFString("Sizes")})
        catalog = document.Catalog
        catalog.__NoDefault__ = [*catalog.__NoDefault__, "OCProperties"]
        catalog.OCProperties = PDFDictionary({"OCGs": PDFArray(groups), "D": order})
        catalog.PageMode = PDFName("UseOC")  # the list of layers is open when the file is

    def begin_layer(self, number: int) -> None:
        """What is drawn from now on is of a layer, from 1."""
        self.canvas._code.append(f"/OC /L{number} BDC")

    def end_layer(self) -> None:
        """What is drawn from now on is of none."""
        self.canvas._code.append("EMC")

    def done(self) -> bytes:
        pages: Any = self.canvas._doc
        for reference in pages.Pages.pages:
            _give(reference, self._properties)
        return super().done()


def _give(page: PDFPage, properties: dict[str, Any]) -> None:
    """A page whose resources name the layers as well: they are made when the file is written."""
    plain = page.check_format

    def check_format(self: PDFPage, document: object) -> None:
        plain(document)
        self.Resources.Properties = properties

    page.check_format = MethodType(check_format, page)


class _LayeredPen(PdfPen):
    """Draws each line into the layer of its size, in the look of its size."""

    _paper: _LayeredPaper

    def __init__(
        self, paper: Paper, dx: float = 0.0, dy: float = 0.0, *, in_colour: bool = True, within: Box | None = None
    ) -> None:  # fmt: skip
        super().__init__(paper, dx, dy, in_colour=True, within=within)

    def look(self, stroke: Stroke) -> LineLook:
        return look_of_stroke(stroke)

    def stroke(self, stroke: Stroke) -> None:
        self._in(stroke.of_size, lambda: PdfPen.stroke(self, stroke))

    def circle(self, circle: Circle) -> None:
        self._in(circle.of_size, lambda: PdfPen.circle(self, circle))

    def text(self, text: Text) -> None:
        self._in(text.of_size, lambda: PdfPen.text(self, text))

    def _in(self, number: int, drawn: Any) -> None:
        if not number:
            drawn()
            return
        self._paper.begin_layer(number)
        drawn()
        self._paper.end_layer()
