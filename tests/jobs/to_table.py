"""The job between the pattern and the cutting table: pages, cloth, plotter, cut sheet."""

from __future__ import annotations

import subprocess
import tempfile
from pathlib import Path
from typing import Any

import numpy as np
import pypdf
import shapely
from PyQt6.QtWidgets import QApplication

from tests.jobs import tops
from tests.jobs.figures import Sheets, is_
from tests.jobs.hand import Hand
from tests.pdf_lines import lines_of
from zesty_pivot.core.piece import Pattern

SAVED = (
    ("Save the PDF to print", "pages.pdf"),
    ("Save the cut sheet", "cut-sheet.pdf"),
    ("Save the plot as HP-GL", "plot.plt"),
)


def wait(is_so: Any) -> None:
    """The hand waits; the program works."""
    while not is_so():
        QApplication.processEvents()


def j27(hand: Hand) -> None:
    tops.j10(hand)  # the bustier: its making is a job of its own
    hand.settle()
    hand.counted.clear()
    window, folder = hand.window, Path(tempfile.mkdtemp())
    kept = window.ask.save_file
    hand.press("Paper")
    wait(lambda: not window.paging.packer.is_at_work)
    for title, name in SAVED:
        window.ask.save_file = lambda *_asked, name=name: folder / name
        hand.press(title)
        wait(lambda: not window.worker.is_busy)
    hand.seen["plan"] = window.paging.plan
    hand.press("Cloth")
    cloths = window.views.cloths
    wait(lambda: not cloths.search.is_at_work)
    hand.write(window.views.paper.cloth.lengths["width"].edit, "140 cm")
    hand.settle()
    wait(lambda: not cloths.search.is_at_work)
    hand.press("Find a shorter lay")
    wait(lambda: not cloths.search.is_at_work)
    window.ask.save_file = lambda *_asked: folder / "lay.pdf"
    hand.press("Save the lay")
    wait(lambda: not window.worker.is_busy)
    hand.press("Plotter")
    window.views.plotting.pace = 400.0
    hand.press("Start the plot")
    wait(lambda: not window.views.plotting.is_running and not window.views.plotting.is_drawing)
    window.ask.save_file = kept
    hand.seen |= {
        "folder": folder,
        "lay": cloths.plan,
        "plotter": window.views.plotting.plotter,
        "derived": window.model.derived,
    }


def j27_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    folder, plan, lay, derived = seen["folder"], seen["plan"], seen["lay"], seen["derived"]
    # Pages: everything on one of them, true to scale by the frame that each of them has, none nearly empty.
    pages = pypdf.PdfReader(folder / "pages.pdf").pages
    is_("pages of the PDF", len(pages), len(plan.pages) + 1, 0.0)
    for page in pages[1:]:
        frame = max(
            (np.ptp(line, axis=0) for line, clip in lines_of(page) if clip is None and len(line) == 5), key=lambda size: size[0]
        )
        is_("frame", float(frame[0]), 190.0, 0.19)  # 0.1 %
        is_("frame", float(frame[1]), 277.0, 0.28)
    fields = shapely.union_all([plan.field(page) for page in plan.pages])
    for laid in plan.laid:
        piece = shapely.Polygon(np.add(laid.piece.ring, (laid.dx, laid.dy)))
        assert fields.buffer(1e-6).covers(piece), laid.piece.name
    area = sum(shapely.Polygon(piece.ring).area for piece in sheets.values())
    assert len(plan.pages) * 190.0 * 277.0 > area > 0.3 * len(plan.pages) * 190.0 * 277.0
    # The lay: nothing overlaps, the grain along the cloth, as long as its pieces say.
    ends = [shape.bounds for shape in lay.shapes]
    for number, one in enumerate(lay.shapes):
        for other in lay.shapes[number + 1 :]:
            assert one.distance(other) > 4.9
    is_("length of the lay", lay.length, max(end[2] for end in ends), 1.0)
    assert max(end[3] for end in ends) <= 1400.0 - 20.0 + 0.2
    text = " ".join(pypdf.PdfReader(folder / "lay.pdf").pages[0].extract_text().split())
    assert "140.0 cm wide" in text or "55 1/8 in wide" in text, text
    # The plot: hp2xx reads it, and the simulated plotter drew it whole; the drawing is as wide as the sheet's pieces.
    subprocess.run(
        ["hp2xx", "-q", "-t", "-m", "svg", "-f", folder / "p.svg", folder / "plot.plt"], check=True, capture_output=True
    )
    drawn = np.array([place for _pen, line in seen["plotter"].lines for place in line])
    wanted = np.concatenate([np.add(laid.piece.ring, (laid.dx, laid.dy)) for laid in derived.sheet.laid])
    is_("drawn along the roll", float(np.ptp(drawn[:, 0])), float(np.ptp(wanted[:, 0])), 0.05)
    assert seen["plotter"].lost == 0
    # The cut sheet: every piece with its count.
    text = " ".join(" ".join(page.extract_text().split()) for page in pypdf.PdfReader(folder / "cut-sheet.pdf").pages)
    for piece in sheets.values():
        assert piece.cut_words in text
    assert "Sewing order" in text and "princess" in text
    return (
        f"{len(plan.pages)} pages of A4, frames true; {len(lay.pieces)} pieces on {lay.length / 10.0:.0f} cm of 140 cm cloth; "
        f"plotted whole, {np.ptp(drawn[:, 0]) / 10.0:.0f} cm along the roll; cut sheet with its sewing order"
    )
