"""Sizes in the window: the chart, the style in all of them, over each other, graded, written, on table and stand."""

from __future__ import annotations

import csv
import json
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLineEdit

from tests.samples import move, real_block, style
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.sizes import chart as charts
from zesty_pivot.core.sizes.batch import LEDGER
from zesty_pivot.core.sizes.graded import graded
from zesty_pivot.core.sizes.nested import point_of
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.sizes import shipped_chart
from zesty_pivot.desk.settings import chart_file
from zesty_pivot.desk.sizes.growth_table import ODD
from zesty_pivot.desk.sizes.wearer_list import TITLE

STEPS = [move("shoulder", "waist"), move("waist", "french")]
# Two pleats that the shoulder of small sizes has no room for, beside the dart that lies in it.
PLEATS = {"do": "fullness.pleat", "on": "front", "edge": "shoulder", "count": 2, "depth": "3 mm", "spacing": "1 cm"}
FEW = ("regular · 36", "regular · 40", "regular · 44", "regular · 48")


@pytest.fixture
def few() -> None:
    """A chart of four sizes, the second one the base."""
    chart = shipped_chart()
    sizes = tuple(size for size in chart.sizes if size.title in FEW)
    path = chart_file()
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(charts.dump(chart.model_copy(update={"sizes": sizes})))


@pytest.fixture
def in_sizes(open_desk, qtbot, few):  # type: ignore[no-untyped-def]
    """Opens the sizes view on a style and waits until all are worked out."""

    def opened(shown: Style | None = None):  # type: ignore[no-untyped-def]
        window = open_desk(shown or style(STEPS))
        window.run("view.sizes")
        worked_out(window, qtbot)
        return window, window.views.in_sizes.sizes, window.views.in_sizes.view

    return opened


def worked_out(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    sizes, view = window.views.in_sizes.sizes, window.views.in_sizes.view
    qtbot.waitUntil(lambda: not sizes.is_at_work and not view._soon.isActive(), timeout=60_000)
    view.refresh()


def states(view) -> dict[str, str]:  # type: ignore[no-untyped-def]
    return {title: row.text(1) for title, row in view.list._rows.items() if row.text(1)}


def waist_of(sizes, title: str) -> float:  # type: ignore[no-untyped-def]
    return float(sizes.sized(title).pattern.piece("front").edge("waist").sewn_length)


def open_of(sizes, title: str) -> float:  # type: ignore[no-untyped-def]
    """How wide the widest dart of the front is."""
    front = sizes.sized(title).pattern.piece("front")
    return max(float(front.intake(dart.id)) for dart in front.darts)


# Over each other.


def test_all_sizes_are_worked_out_and_seen(in_sizes) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    assert [one.title for one in sizes.who.shown] == list(FEW) and sizes.chosen == "regular · 40"
    assert all(said.startswith("sound") for said in states(view).values()) and len(states(view)) == 4
    assert view.why.text().startswith("regular · 40 is sound")
    # The lines are those of the style derived over each size's block.
    for title in FEW:
        chart = shipped_chart()
        own = derive(Under().styled(window.model.style, title, chart.lengths(chart.size(title))))
        assert waist_of(sizes, title) == pytest.approx(own.pattern.piece("front").edge("waist").sewn_length, abs=1e-9)
    canvas = view.nested
    assert [piece.nested.name for piece in canvas.pieces] == ["front", "back"]
    assert all(len(piece.lines) == 4 for piece in canvas.pieces)
    # Laid on another point, that one lies on itself.
    view.point.setCurrentIndex(view.point.findData("side_waist"))
    view.point.activated.emit(view.point.currentIndex())
    view.refresh()
    for piece in canvas.pieces:
        spots = [np.array([one.at.x(), one.at.y()]) + point_of(one.line.piece, "side_waist") for one in piece.lines]
        assert np.ptp(spots, axis=0) == pytest.approx([0.0, 0.0], abs=1e-6)


def test_a_line_is_pointed_at_and_chosen(in_sizes) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    canvas = view.nested
    one = canvas.pieces[1].lines[3]  # the back of the largest size
    run = one.line.piece.edge("side_seam").runs[0].path.point_at(100.0)
    at = canvas.to_px(float(run[0]) + one.at.x(), float(run[1]) + one.at.y()).toPoint()
    QTest.mouseMove(canvas, at)
    assert canvas.pointed.startswith("regular · 48: back, side seam")
    QTest.mouseClick(canvas, Qt.MouseButton.LeftButton, pos=at)
    assert sizes.chosen == "regular · 48"
    view.refresh()
    assert view.list.currentItem().data(0, TITLE) == "regular · 48" and "regular · 48" in view.why.text()
    before = canvas.grab().toImage()
    canvas.setFocus()
    QTest.keyClicks(canvas, "[")
    assert sizes.chosen == "regular · 44" and canvas.grab().toImage() != before
    QTest.keyClicks(canvas, "]]")
    assert sizes.chosen == "regular · 36"  # round from the last to the first
    # In the list by the keys.
    view.list.setFocus()
    QTest.keyClick(view.list, Qt.Key.Key_Down)
    assert sizes.chosen == "regular · 40"
    window.set_theme("dark")
    assert canvas.grab().toImage() != before


def test_the_chosen_size_follows_at_once_and_the_others_soon(in_sizes, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    before = {title: open_of(sizes, title) for title in FEW}
    model = window.model
    steps = style([*STEPS, move("french", "waist", share="50%")]).steps
    edited = model.style.model_copy(update={"steps": steps})
    # While it is dragged: the chosen one with every move, before anything else is heard.
    model.preview(edited)
    assert open_of(sizes, "regular · 40") != pytest.approx(before["regular · 40"], abs=0.01)
    model.preview(None)
    assert open_of(sizes, "regular · 40") == pytest.approx(before["regular · 40"], abs=1e-9)
    model.edit(edited, "half back")
    assert open_of(sizes, "regular · 40") != pytest.approx(before["regular · 40"], abs=0.01)
    qtbot.waitUntil(
        lambda: all(abs(open_of(sizes, title) - before[title]) > 0.01 for title in FEW), timeout=10_000
    )  # fmt: skip
    worked_out(window, qtbot)
    assert all(said.startswith("sound") for said in states(view).values())
    window.run("edit.undo")
    worked_out(window, qtbot)
    assert {title: open_of(sizes, title) for title in FEW} == pytest.approx(before, abs=1e-9)
    # Nothing is worked out for a view that nobody looks at.
    window.run("view.style")
    model.edit(edited, "half back")
    assert not sizes.work.is_at_work
    window.run("view.sizes")
    worked_out(window, qtbot)
    assert open_of(sizes, "regular · 40") != pytest.approx(before["regular · 40"], abs=0.01)


def test_sizes_that_break_are_named(in_sizes) -> None:  # type: ignore[no-untyped-def]
    _window, sizes, view = in_sizes(style([PLEATS]))
    found = states(view)
    assert [found[title] for title in FEW[:2]] == ["1 broken", "1 broken"]
    assert all(found[title].startswith("sound") for title in FEW[2:])
    sizes.choose("regular · 36")
    view.refresh()
    assert "regular · 36: step 1" in view.why.text() and "the shoulder has" in view.why.text()
    assert "the shoulder has" in view.list._rows["regular · 36"].toolTip(1)


def test_which_sizes_it_is_made_in_is_kept_with_the_style(in_sizes, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    row = view.list._rows["regular · 48"]
    row.setCheckState(0, Qt.CheckState.Unchecked)
    assert window.model.style.sizes == FEW[:3]
    again = style_file.from_value(json.loads(style_file.dump(window.model.style)), "again")
    assert again.sizes == FEW[:3]
    worked_out(window, qtbot)
    assert len(view.nested.pieces[0].lines) == 3 and "regular · 48" not in states(view)
    window.run("edit.undo")
    worked_out(window, qtbot)
    assert window.model.style.sizes == () and len(view.nested.pieces[0].lines) == 4
    sizes.make_in(())  # none at all is refused
    assert window.model.style.sizes == () and "one size at least" in window.message.text()


def test_people_stand_beside_the_sizes(in_sizes, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    person = next(one.title for one in sizes.who.everybody if not one.is_child and not one.fault)
    view.list._rows[person].setCheckState(0, Qt.CheckState.Checked)
    worked_out(window, qtbot)
    assert [one.title for one in sizes.who.shown][-1] == person and person in states(view)
    assert len(view.nested.pieces[0].lines) == 5
    view.list._rows[person].setCheckState(0, Qt.CheckState.Unchecked)
    worked_out(window, qtbot)
    assert len(view.nested.pieces[0].lines) == 4


def test_a_child_s_style_is_made_in_children_s_sizes(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    carol = next(one for one in demo_styles() if one.name.startswith("Carol"))
    window = open_desk(carol)
    window.run("view.sizes")
    worked_out(window, qtbot)
    sizes, view = window.views.in_sizes.sizes, window.views.in_sizes.view
    assert {one.group for one in sizes.who.shown} == {"children"} and len(sizes.who.shown) == 4
    assert all(said.startswith("sound") for said in states(view).values())
    # Drafted and graded are compared, and both are there.
    window.run("sizes.grading")
    assert view.grading.ways.columnCount() == 4 and "apart at most" in view.grading.told.text()


# The chart.


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


# Growth and grading.


def test_how_seams_grow_and_how_blocks_are_graded(in_sizes, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    window.run("sizes.growth")
    table = view.growth
    assert table.columnCount() == 5 and table.horizontalHeaderItem(2).text() == "40"
    names = [table.verticalHeaderItem(n).text() for n in range(table.rowCount())]
    row = names.index("Front: waist")
    shown = [float(table.item(row, n + 1).text().removesuffix(" cm")) * 10.0 for n in range(4)]
    assert shown == pytest.approx([waist_of(sizes, title) for title in FEW], abs=0.51)
    assert table.item(row, 0).toolTip() == "It grows evenly."
    assert table.grab().toImage().width() > 300
    window.ask.path = tmp_path / "growth.csv"
    window.run("sizes.growth_table")
    rows = list(csv.reader((tmp_path / "growth.csv").read_text(encoding="utf-8-sig").splitlines()))
    assert len(rows) == table.rowCount() + 1
    # Grading: an arrow from each point of the block to that of the graded one, with its reason.
    window.run("sizes.grading")
    sizes.choose("regular · 48")
    view.refresh()
    grading = view.grading
    chart = shipped_chart()
    block = window.model.style.block
    made = graded(block, window.model.style.body(), chart.lengths(chart.size("regular · 48")))
    assert len(grading.canvas.arrows) == grading.rules.rowCount() > 8
    for arrow in grading.canvas.arrows:
        piece = next(piece for piece in made.pieces if piece.name == arrow.piece)
        assert arrow.end == pytest.approx(piece.landmarks[arrow.point], abs=1e-9)
    assert all(grading.rules.item(n, 3).text() for n in range(grading.rules.rowCount()))
    before = grading.canvas.grab().toImage()
    grading.rules.selectRow(3)
    assert grading.canvas.grab().toImage() != before  # the one that is pointed at is seen
    keep = view.darts.findData("keep")
    view.darts.setCurrentIndex(keep)
    view.darts.activated.emit(keep)
    assert sizes.darts == "keep"


def test_blocks_of_their_own(in_sizes, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    folder, chart = tmp_path / "blocks", shipped_chart()
    folder.mkdir()
    for title in FEW[:2]:
        size = chart.size(title)
        made = graded(real_block(), window.model.style.body(), chart.lengths(size), name=f"own {size.name}")
        (folder / f"{size.name}.zblock").write_bytes(block_file.dump(made))
    window.ask.path = folder
    view.way.setCurrentIndex(view.way.findData("own"))
    view.way.activated.emit(view.way.currentIndex())
    worked_out(window, qtbot)
    assert sizes.way == "own" and states(view)["regular · 44"] == "cannot be made"
    assert states(view)["regular · 36"].startswith("sound")
    sizes.choose("regular · 44")
    view.refresh()
    assert "no block for it" in view.why.text()


# What is done with one.


def test_a_size_is_put_under_the_style(in_sizes) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    before = window.model.style
    sizes.choose("regular · 48")
    view.refresh()
    QTest.mouseClick(view.feet["sizes.put_under"], Qt.MouseButton.LeftButton)
    assert window.model.view == "block" and window.views.block.tabs.shown == "swapped"
    assert window.model.style.body()["bust"] == pytest.approx(1100.0) and window.model.style.steps == before.steps
    window.model.undo()
    assert window.model.style == before  # one undo


def test_a_size_lies_under_the_table_and_on_the_stand(in_sizes, qtbot, rough_stand) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    sizes.choose("regular · 48")
    view.refresh()
    window.run("sizes.trace")
    assert window.model.view == "style" and window.lay.traced.title == "regular · 48"
    found = window.lay.figures
    waist = next(row for row in found.edges if (row.piece, row.edge) == ("front", "waist"))
    assert abs(waist.difference_mm) > 10.0
    window.run("view.stand")
    trying = window.views.trying
    assert ("size:regular · 48", "size regular · 48") in trying.companions
    trying.choose(beside="size:regular · 48")
    qtbot.waitUntil(lambda: not trying.work.is_at_work and not trying._rest.isActive(), timeout=60_000)
    (_one, now), (wanted, other) = trying.shown()
    assert wanted.title == "size regular · 48"
    assert other.form.measures["bust"] == pytest.approx(1100.0) and other.form is not now.form


# Written.


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
