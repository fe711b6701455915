"""The pages in the paper view: chosen, left out, packed, kept with the style."""

from __future__ import annotations

from pathlib import Path

import pypdf
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.samples import move, style
from zesty_pivot.core.formats import style_file
from zesty_pivot.desk.settings import load


def opened(open_desk, qtbot, steps=()):  # type: ignore[no-untyped-def]
    window = open_desk(style(list(steps)))
    window.model.set_view("paper")
    qtbot.waitUntil(lambda: not window.paging.packer.is_at_work, timeout=30_000)
    return window


def type_into(field, text: str) -> None:  # type: ignore[no-untyped-def]
    field.edit.setFocus()
    field.edit.selectAll()
    QTest.keyClicks(field.edit, text)
    QTest.keyClick(field.edit, Qt.Key.Key_Return)


def test_pages_are_left_out_and_printed_again(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, qtbot)
    view, paging = window.views.paper.pages, window.paging
    count = len(paging.pages)
    box = view.canvas.page_box(paging.pages[1])
    at = view.canvas.to_px(box.center().x(), box.center().y()).toPoint()
    QTest.mouseClick(view.canvas, Qt.MouseButton.LeftButton, pos=at)
    assert [page.number for page in paging.printed] == [1, *range(3, count + 1)]
    assert view.only.edit.text() == f"1, 3-{count}" and f"{count - 1} of them printed" in view.summary.text()
    window.ask.path = tmp_path / "x.pdf"
    window.run("export.pdf")
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=20_000)
    pages = pypdf.PdfReader(tmp_path / "x.pdf").pages
    assert len(pages) == count and "page 2 of" not in "".join(page.extract_text() for page in pages[1:])
    type_into(view.only, "2")
    assert [page.number for page in paging.printed] == [2]
    type_into(view.only, f"{count + 9}")
    assert "not among the pages" in view.only.fault() and [page.number for page in paging.printed] == [2]
    QTest.keyClick(view.only.edit, Qt.Key.Key_Escape)
    paging.toggle(paging.pages[1])  # the last one cannot be left out
    assert [page.number for page in paging.printed] == [2]
    type_into(view.only, " ")
    assert len(paging.printed) == count


def test_pages_that_were_printed_come_out_again(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """They are kept with the style: as an entry that can be undone, in the file, and after it was opened again."""
    window = opened(open_desk, qtbot)
    shown = window.paging.plan
    window.ask.path = tmp_path / "x.pdf"
    window.run("export.pdf")
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=20_000)
    (kept,) = window.model.style.pages
    assert kept.paper == "A4" and {put.piece for put in kept.puts} == {"front", "back"}
    window.ask.path = tmp_path / "s.zpiv"
    window.run("file.save_as")
    window.run("edit.undo")
    assert window.model.style.pages == ()
    window.run("edit.redo")
    assert window.model.style.pages == (kept,)
    again = open_desk(style_file.read(tmp_path / "s.zpiv"))
    again.model.set_view("paper")
    assert not again.paging.packer.is_at_work  # nothing is looked for: it is known
    found = again.paging.plan
    assert [(p.column, p.row) for p in found.pages] == [(p.column, p.row) for p in shown.pages]


def test_fewer_are_looked_for_until_it_is_stopped(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, qtbot, [move("shoulder", "french")])
    view, paging = window.views.paper.pages, window.paging
    before = len(paging.pages)
    QTest.mouseClick(view.pack, Qt.MouseButton.LeftButton)
    assert paging.packer.is_at_work and view.pack.text().startswith("Stop")
    QTest.mouseClick(view.pack, Qt.MouseButton.LeftButton)
    assert not paging.packer.is_at_work and view.pack.text() == "Look for fewer pages"
    assert len(paging.pages) <= before and len(window.model.style.pages) == 1
    # Another step: other pages are looked for, and the kept ones no longer fit.
    window.model.set_view("style")
    window.run("edit.undo")
    window.model.set_view("paper")
    assert paging.plan is not None


def test_ways_to_print_are_kept_for_the_next_time(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, qtbot)
    view, paging = window.views.paper.pages, window.paging
    view.paper.picked.emit("own")
    assert paging.chosen == "330x480" and view.own.isVisibleTo(view)
    type_into(view.own, "400 x 600")
    assert paging.plan.setup.width == 400.0
    type_into(view.own, "10x10")
    assert "between" in view.own.fault() and paging.chosen == "400x600"
    QTest.keyClick(view.own.edit, Qt.Key.Key_Escape)
    view.joins.picked.emit("0")
    assert paging.plan.setup.overlap == 0.0
    type_into(view.edge, "5 mm")
    assert paging.plan.setup.field == (390.0, 590.0)
    type_into(view.edge, "1 m")
    assert view.edge.fault() and paging.plan.setup.edge == 5.0
    QTest.keyClick(view.edge.edit, Qt.Key.Key_Escape)
    view.apart.click()
    qtbot.waitUntil(lambda: not paging.packer.is_at_work, timeout=30_000)
    for page in paging.pages:
        assert sum(shape.intersects(paging.plan.field(page)) for shape in paging.plan.shapes) == 1
    view.colour.click()
    window.keeper.writer.flush()
    kept = load()
    assert (kept.paper, kept.edge, kept.overlap, kept.apart, kept.print_colour) == ("400x600", 5.0, 0.0, True, True)
    view.paper.picked.emit("full")
    assert paging.plan is None and not view.pack.isEnabled() and "One page" in view.summary.text()


def test_straight_to_a_printer_at_true_size(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """A printer that writes a PDF stands in; poppler, which had no part in it, draws its page, and the frame is measured."""
    import subprocess

    import numpy as np
    from PyQt6.QtGui import QImage
    from PyQt6.QtPrintSupport import QPrinter

    window = opened(open_desk, qtbot)
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    printer.setResolution(300)
    window.ask.printer = lambda: printer
    window.run("print.pages")
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=60_000)
    pages = pypdf.PdfReader(tmp_path / "printed.pdf").pages
    assert len(pages) == len(window.paging.pages) + 1
    subprocess.run(
        ["pdftoppm", "-r", "254", "-f", "2", "-l", "2", "-gray", "-png", tmp_path / "printed.pdf", tmp_path / "p"], check=True
    )
    (path,) = tmp_path.glob("p-*.png")
    image = QImage(str(path)).convertToFormat(QImage.Format.Format_Grayscale8)
    bits = image.constBits()
    assert bits is not None
    bits.setsize(image.sizeInBytes())
    dark = np.frombuffer(bits, np.uint8).reshape(image.height(), image.bytesPerLine())[:, : image.width()] < 200
    # Ten dots a millimetre: the frame's two upright lines are dark nearly from top to bottom, its level ones across.
    columns, rows = np.nonzero(dark.mean(axis=0) > 0.85)[0], np.nonzero(dark.mean(axis=1) > 0.85)[0]
    assert (columns.max() - columns.min()) / 10.0 == pytest.approx(190.0, abs=0.3)
    assert (rows.max() - rows.min()) / 10.0 == pytest.approx(277.0, abs=0.4)
    assert columns.min() / 10.0 == pytest.approx(10.0, abs=0.3)
    (kept,) = window.model.style.printed
    assert kept.how == "printer" and kept.on == "A4"
    assert "Printed today" in window.views.paper.pages.last.text()
    window.model.edit(window.model.style.with_finish({"size": "14"}), "size")
    assert "Nothing has changed since" in window.views.paper.pages.last.text()


def test_a_printer_whose_white_edge_is_wider_is_told_before_paper_is_wasted(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    from PyQt6.QtPrintSupport import QPrinter

    from zesty_pivot.desk.paper import print_pages as printing

    window = opened(open_desk, qtbot)
    made = QPrinter()
    made.setOutputFileName(str(tmp_path / "x.pdf"))
    window.ask.printer = lambda: made
    told: list[str] = []
    window.model.said.connect(lambda text, _fault: told.append(text))
    kept, printing.white_edge = printing.white_edge, lambda _printer: 12.7
    try:
        window.run("print.pages")
    finally:
        printing.white_edge = kept
    assert "leaves 1.3 cm white" in told[-1] and not (tmp_path / "x.pdf").exists()
    window.ask.printer = lambda: None
    window.run("print.pages")  # nothing is printed where the dialog is left
    assert window.model.style.printed == ()
