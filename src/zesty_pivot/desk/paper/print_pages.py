"""The pages of the style on a printer, asked for and told."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.exports.base import FULL
from zesty_pivot.core.exports.pdf import EXPORT
from zesty_pivot.desk.ask import Asker
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.paging import Paging
from zesty_pivot.desk.paper.printer import print_pdf, white_edge
from zesty_pivot.desk.work import Worker


def print_pages(ask: Asker, paging: Paging, model: DeskModel, worker: Worker) -> None:
    """Prints the pages at true size, on the printer that is asked for."""
    printer = ask.printer()
    if printer is None:
        return
    white, edge = white_edge(printer), paging.printing.edge
    if paging.chosen != FULL and white > edge + 0.05:
        said = f"This printer leaves {model.length(white)} white, the pages {model.length(edge)}."
        model.say(
            f"{said} Set the white edge in the paper view to at least {model.length(white)}, and print again.", fault=True
        )
        return
    derived, printing, chosen = paging.settled(), paging.printing, paging.chosen

    def job(progress: Callable[[int, int], None]) -> int:
        return print_pdf(EXPORT.files(derived, printing)[EXPORT.whole(chosen)](), printer, progress)

    def done(count: int) -> None:
        paging.keep("printer", chosen)
        model.say(
            "1 page is printed." if count == 1 else f"{count} pages are printed. Measure the frame of one before you cut."
        )

    worker.run("Printing", job, done, lambda fault: model.say(str(fault), fault=True))
