"""Sizes written from the window: all of them, everybody in a table, stopped in the middle."""

from __future__ import annotations

import json
from pathlib import Path

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from tests.desk.sized import FEW, PLEATS, states, worked_out
from tests.samples import style
from zesty_pivot.core.sizes.batch import LEDGER
from zesty_pivot.core.sizes.sized import Wearer


def written(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.waitUntil(lambda: not window.views.in_sizes.writing.work.is_at_work, timeout=120_000)


def test_all_sizes_are_written(in_sizes, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes(style([PLEATS]))
    window.run("sizes.write")
    writing, page = window.views.in_sizes.writing, view.writing
    for id in ("pdf", "svg"):
        QTest.mouseClick(page.formats[id], Qt.MouseButton.LeftButton, pos=QPoint(8, page.formats[id].height() // 2))
    assert writing.formats == ()
    window.ask.path = tmp_path / "out"
    QTest.mouseClick(page.begin, Qt.MouseButton.LeftButton)
    assert page.bar.isVisible() and page.stop.isEnabled()
    written(window, qtbot)
    lines = [json.loads(line) for line in (tmp_path / "out" / LEDGER).read_text().splitlines()]
    assert [line["name"] for line in lines] == list(FEW) and [line["valid"] for line in lines] == [False, False, True, True]
    assert (tmp_path / "out" / "nested" / "nested.pdf").exists()
    assert "4 of 4 worked out, 2 of them sound, 2 not" in page.state.text() and "nested" in page.state.text()
    # Those that are not sound come first, with their reason, and are opened by a click.
    assert [page.list.item(n, 0).text() for n in range(4)] == list(FEW)
    assert page.list.item(0, 1).text() == "written, a step broke" and "the shoulder has" in page.list.item(0, 2).text()
    assert page.list.item(3, 1).text().startswith("written, sound")
    sizes.choose("regular · 48")
    page.list.cellClicked.emit(1, 0)
    assert sizes.chosen == "regular · 40"
    # The same again into the same folder: nothing is done twice.
    stamp = (tmp_path / "out" / lines[3]["where"] / "report.json").stat().st_mtime_ns
    window.run("sizes.write_all")
    written(window, qtbot)
    assert (tmp_path / "out" / lines[3]["where"] / "report.json").stat().st_mtime_ns == stamp


def test_everybody_in_a_table_is_written(in_sizes, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    table = tmp_path / "people.csv"
    rows = [f"Person {n};{84 + n};{68 + n};{92 + n};39;44;41" for n in range(3)]
    table.write_text("\n".join(["name;bust;waist;hip;shoulder;fwl;bwl", *rows, "Odd one;90;wide;95;39;44;41"]))
    writing, page = window.views.in_sizes.writing, view.writing
    writing.formats = ()
    window.ask.open_file = lambda _title, _kinds: table
    window.ask.path = tmp_path / "all"
    window.run("sizes.write_table")
    assert sizes.station == "write"
    written(window, qtbot)
    assert "4 worked out, 3 of them sound, 1 not" in page.state.text()
    assert page.list.item(0, 0).text() == "Odd one" and page.list.item(0, 1).text() == "not written"
    assert "row 5" in page.list.item(0, 2).text()
    page.list.cellClicked.emit(0, 0)  # somebody who cannot be made is looked at all the same
    worked_out(window, qtbot)
    assert sizes.chosen == "Odd one" and "wide" in view.why.text()
    view.list._rows["Odd one"].setCheckState(0, Qt.CheckState.Unchecked)  # and goes again
    qtbot.wait(20)
    worked_out(window, qtbot)
    assert "Odd one" not in view.list._rows and sizes.chosen == "regular · 40"


def test_writing_is_stopped(in_sizes, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, _sizes, view = in_sizes()
    window.ask.path = tmp_path / "out"
    window.run("sizes.write_all")
    writing = window.views.in_sizes.writing
    qtbot.waitUntil(lambda: writing.count > 0 or not writing.work.is_at_work, timeout=60_000)
    window.run("sizes.stop")
    assert not writing.work.is_at_work and "Stopped." in view.writing.state.text()
    writing.close()
    assert not (tmp_path / "out" / "nested").exists()


def test_more_than_can_be_told_apart_are_written_all_the_same(in_sizes, qtbot, tmp_path: Path, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr("zesty_pivot.desk.sizes.who.MOST", 3)
    window, sizes, view = in_sizes()
    assert [one.title for one in sizes.who.shown] == list(FEW[:3])
    assert states(view)[FEW[3]] == "not shown" and view.list._rows[FEW[3]].checkState(0) == Qt.CheckState.Checked
    assert sizes.note.startswith("3 of 4 are shown") and view.list._rows[FEW[3]].toolTip(0) == sizes.note
    sizes.choose(FEW[3])
    view.refresh()
    assert view.why.text() == sizes.note
    # Somebody out of a table is shown whatever else is.
    guest = Wearer("Guest", sizes.who.shown[0].lengths)
    sizes.look_at(guest)
    worked_out(window, qtbot)
    assert [one.title for one in sizes.who.shown] == [*FEW[:2], "Guest"] and sizes.chosen == "Guest"
    sizes.show_person("Guest", shown=False)
    worked_out(window, qtbot)
    writing = window.views.in_sizes.writing
    writing.formats = ()
    window.ask.path = tmp_path / "out"
    window.run("sizes.write_all")
    written(window, qtbot)
    lines = [json.loads(line) for line in (tmp_path / "out" / LEDGER).read_text().splitlines()]
    assert [line["name"] for line in lines] == list(FEW)
