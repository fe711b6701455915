"""Straight to a printer: the pages of the PDF, each at true size. What a printer cannot print of a page is told before anything
is wasted."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF, QRectF, QSize, QSizeF
from PyQt6.QtGui import QPageLayout, QPageSize, QPainter
from PyQt6.QtPdf import QPdfDocument, QPdfDocumentRenderOptions
from PyQt6.QtPrintSupport import QPrinter

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.quantity.units import IN

POINT = IN / 72.0  # mm
FINEST = 600  # dots an inch that a page is drawn with; finer is no line finer
STRIP = 1000  # rows of dots at a time: a whole page of them would take a hundred megabytes


def white_edge(printer: QPrinter) -> float:
    """Mm that a printer leaves white at the widest of its four edges."""
    margins = printer.pageLayout().minimumMargins()
    factor = 1.0 if printer.pageLayout().units() == QPageLayout.Unit.Millimeter else POINT
    return max(margins.left(), margins.top(), margins.right(), margins.bottom()) * factor


def print_pdf(content: bytes, printer: QPrinter, progress: Callable[[int, int], None]) -> int:
    """Prints all pages of a PDF at true size; how many they were. `progress` is told how many of how many are done; what it
    raises stops the print. Raises ZestyError where the printer takes nothing."""
    document, buffer = QPdfDocument(None), QBuffer()
    buffer.setData(QByteArray(content))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    document.load(buffer)
    count = document.pageCount()
    printer.setFullPage(True)
    _lay_out(printer, document.pagePointSize(0))
    painter = QPainter()
    if not count or not painter.begin(printer):
        raise ZestyError(
            "the printer takes nothing", where=printer.printerName(), advice="Look whether it is on and has paper."
        )
    try:
        for number in range(count):
            progress(number, count)
            if number:
                _lay_out(printer, document.pagePointSize(number))
                if not printer.newPage():
                    raise ZestyError(
                        f"the printer stopped after {number} pages", where=printer.printerName(),
                        advice="See to it, and print the others.",
                    )  # fmt: skip
            _page(painter, document, number, printer)
        progress(count, count)
    except BaseException:
        printer.abort()
        raise
    finally:
        painter.end()
        document.close()
    return count


def _lay_out(printer: QPrinter, size: QSizeF) -> None:
    """The paper as the page lies, all of it."""
    across = size.width() > size.height()
    upright = QSizeF(size.height(), size.width()) if across else size
    paper = QPageSize(upright * POINT, QPageSize.Unit.Millimeter, matchPolicy=QPageSize.SizeMatchPolicy.FuzzyMatch)
    way = QPageLayout.Orientation.Landscape if across else QPageLayout.Orientation.Portrait
    printer.setPageLayout(QPageLayout(paper, way, QMarginsF(0.0, 0.0, 0.0, 0.0)))


def _page(painter: QPainter, document: QPdfDocument, number: int, printer: QPrinter) -> None:
    """One page, in strips as fine as the printer is."""
    points = document.pagePointSize(number)
    dots = min(printer.resolution(), FINEST)
    whole = QSize(round(points.width() / 72.0 * dots), round(points.height() / 72.0 * dots))
    factor = printer.resolution() / dots
    for top in range(0, whole.height(), STRIP):
        tall = min(STRIP, whole.height() - top)
        options = QPdfDocumentRenderOptions()
        options.setScaledSize(whole)
        options.setScaledClipRect(QRectF(0, top, whole.width(), tall).toRect())
        image = document.render(number, QSize(whole.width(), tall), options)
        painter.fillRect(QRectF(0, top * factor, whole.width() * factor, tall * factor), 0xFFFFFFFF)
        painter.drawImage(QRectF(0, top * factor, whole.width() * factor, tall * factor), image)
