"""Sizes in the window: the style in all of them, over each other, graded, on table and stand."""

from __future__ import annotations

import csv
import json
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.desk.sized import FEW, PLEATS, STEPS, states, waist_of, worked_out
from tests.samples import move, real_block, style
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.sizes.graded import graded
from zesty_pivot.core.sizes.nested import point_of
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.sizes import shipped_chart
from zesty_pivot.desk.sizes.wearer_list import TITLE


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


def test_a_line_is_pointed_at_and_chosen(in_sizes, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    window, sizes, view = in_sizes()
    canvas = view.nested
    named = lambda: [one.title for one in canvas._named(canvas.pieces[1])]  # noqa: E731
    assert named() == list(FEW)
    monkeypatch.setattr("zesty_pivot.desk.sizes.nested_canvas.MOST_NAMED", 3)
    assert named() == ["regular · 36", "regular · 40", "regular · 48"]  # the first, the chosen one, the last
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
