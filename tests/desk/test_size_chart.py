"""The size chart in the window: cells, steps, sizes added and taken out, files."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLineEdit

from tests.desk.sized import FEW, STEPS, waist_of, worked_out
from tests.samples import style
from zesty_pivot.core.sizes import chart as charts
from zesty_pivot.desk.settings import chart_file
from zesty_pivot.desk.sizes.growth_table import ODD


def test_a_cell_of_the_chart_is_changed(in_sizes, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    window.run("sizes.chart")
    table = view.chart.table
    row = [table.verticalHeaderItem(n).text() for n in range(table.rowCount())].index("Waist")
    before = waist_of(sizes, "regular · 44")

    def typed(text: str) -> None:
        table.setCurrentCell(row, 2)
        table.editItem(table.item(row, 2))
        editor = table.findChild(QLineEdit)
        editor.selectAll()
        QTest.keyClicks(editor, text)
        QTest.keyClick(editor, Qt.Key.Key_Return)
        qtbot.wait(30)  # what is typed is handed over in a turn of its own
        worked_out(window, qtbot)

    typed("92 cm")  # a slip: 84
    assert table.item(row, 2).text() == "92.0 cm" and "Uneven steps" in view.chart.said.text()
    assert waist_of(sizes, "regular · 44") > before + 10.0
    window.run("sizes.growth")
    marked = [view.growth.item(n, 3).text() for n in range(view.growth.rowCount())]
    assert any(text.startswith(ODD) for text in marked)
    window.run("sizes.chart")
    typed("a hand")  # text in a number field
    assert table.item(row, 2).text() == "92.0 cm"
    assert "size regular · 44" in window.message.text() or "size regular · 44" in window.notice.text("said")
    window.run("edit.undo")
    worked_out(window, qtbot)
    assert table.item(row, 2).text() == "84.0 cm" and waist_of(sizes, "regular · 44") == pytest.approx(before, abs=1e-9)
    assert "All steps are even" in view.chart.said.text()
    # A formula is shown as what it comes to, and edited as it was written.
    lengths = [table.verticalHeaderItem(n).text() for n in range(table.rowCount())].index("Back waist length")
    assert table.item(lengths, 1).text() == "41.4 cm" and "bust" in table.item(lengths, 1).toolTip()
    assert charts.read(chart_file()).size("regular · 44").measures["waist"] == "84 cm"


def test_sizes_are_added_taken_out_and_made_the_base(in_sizes, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    window.run("sizes.chart")
    table, known = view.chart.table, window.views.in_sizes.charts
    table.setCurrentCell(0, 1)
    window.ask.typed = "42"
    window.run("chart.add")
    assert known.chart.titles == (*FEW[:2], "regular · 42", *FEW[2:])
    worked_out(window, qtbot)
    assert waist_of(sizes, "regular · 42") == pytest.approx(waist_of(sizes, "regular · 40"), abs=1e-9)  # until it is measured
    window.run("chart.add")  # a name that is taken
    assert len(known.chart.sizes) == 5 and "already" in window.message.text()
    table.setCurrentCell(0, 2)
    window.run("chart.base")
    assert known.chart.base == "regular · 42"
    window.run("chart.remove")
    assert known.chart.titles == FEW and known.chart.base == ""
    for _n in range(3):
        window.run("edit.undo")
    assert known.chart.titles == FEW and known.chart.base == "regular · 40"


def test_a_chart_comes_and_goes_as_a_file(in_sizes, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, _sizes, view = in_sizes()
    window.run("sizes.chart")
    for ending in ("csv", "zsizes"):
        window.ask.path = tmp_path / f"own.{ending}"
        window.run("chart.export")
        assert window.ask.path.exists()
        window.run("chart.shipped")
        assert len(window.views.in_sizes.charts.chart.sizes) == 24
        window.run("chart.import")
        assert window.views.in_sizes.charts.chart.titles == FEW
    window.run("chart.shipped")
    window.take(tmp_path / "own.zsizes")  # dropped on the window
    assert window.views.in_sizes.charts.chart.titles == FEW
    bad = tmp_path / "bad.zsizes"
    bad.write_text('{"format": "zesty-pivot/sizes", "version": 1, "sizes": []}')
    window.ask.path = bad
    window.run("chart.import")
    assert window.views.in_sizes.charts.chart.titles == FEW  # nothing is lost
    assert view.chart.table.columnCount() == 4


def test_a_chart_that_cannot_be_read_is_set_aside(open_desk) -> None:  # type: ignore[no-untyped-def]
    chart_file().parent.mkdir(parents=True, exist_ok=True)
    chart_file().write_text("{")
    window = open_desk(style(STEPS))
    window.run("view.sizes")
    assert len(window.views.in_sizes.charts.chart.sizes) == 24
    assert chart_file().with_name("sizes.zsizes.unread").exists()
