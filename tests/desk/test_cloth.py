"""The cloth in the paper view: chosen, laid, moved by hand and by keys, kept with the style."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from tests.desk.test_pages import type_into
from tests.samples import move, style
from zesty_pivot.core.formats import style_file
from zesty_pivot.data.demo import _read


def opened(open_desk, qtbot, made=None):  # type: ignore[no-untyped-def]
    window = open_desk(made or _read("canticle.zpiv"))
    window.run("paper.cloth")
    qtbot.waitUntil(lambda: not window.views.cloths.search.is_at_work, timeout=30_000)
    return window, window.views.cloths


def test_the_pieces_are_laid_and_searched_for(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, cloths = opened(open_desk, qtbot)
    assert cloths.plan is not None and not cloths.plan.clashes and window.model.style.lays == ()
    type_into(window.views.paper.cloth.lengths["width"], "90 cm")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work, timeout=30_000)
    one_by_one = cloths.plan.length
    assert window.model.style.lays[0].width == "90 cm"
    window.run("lay.find")
    assert cloths.search.is_at_work
    qtbot.waitUntil(lambda: cloths.plan.length < one_by_one - 50.0, timeout=30_000)
    window.run("lay.find")  # stops, and keeps what was found
    assert not cloths.search.is_at_work
    (kept,) = window.model.style.lays
    assert len(kept.places) == 7 and len(kept.stamps) == 7
    window.ask.path = tmp_path / "s.zpiv"
    window.run("file.save_as")
    again, its = opened(open_desk, qtbot, style_file.read(tmp_path / "s.zpiv"))
    assert its.plan.length == pytest.approx(cloths.plan.length, abs=0.01) and not its.search.is_at_work
    assert its.changed_since == ""
    # The pattern changes: it is told of which pieces.
    again.model.edit(again.model.style.with_finish({"allowances": {"front_side.side_seam": "4 cm"}}), "allowance")
    qtbot.waitUntil(lambda: its.changed_since != "", timeout=10_000)
    assert its.changed_since == "front side"
    assert "front side" in again.views.paper.cloth.told.text()
    window.ask.path = tmp_path / "lay.pdf"
    window.run("export.lay")
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=30_000)
    assert (tmp_path / "lay.pdf").read_bytes().startswith(b"%PDF")


def test_pieces_are_dragged_and_clashes_shown(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, cloths = opened(open_desk, qtbot)
    table = window.views.paper.cloth.canvas
    key, shape = cloths.plan.pieces[0].key, cloths.plan.shapes[0]
    inside = shape.representative_point()
    at = table.to_px(inside.x, inside.y).toPoint()
    before = cloths.place(key)
    QTest.mousePress(table, Qt.MouseButton.LeftButton, pos=at)
    QTest.mouseMove(table, at + QPoint(0, 60))
    QTest.mouseRelease(table, Qt.MouseButton.LeftButton, pos=at + QPoint(0, 60))
    after = cloths.place(key)
    assert after.y - before.y == pytest.approx(60 / table.scale, abs=1.0 / table.scale) and cloths.chosen == key
    assert key in cloths.plan.clashes and "lie on each other" in window.views.paper.cloth.told.text()
    window.run("edit.undo")
    assert cloths.place(key) == before and not cloths.plan.clashes


def test_by_keys_alone(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, cloths = opened(open_desk, qtbot)
    table = window.views.paper.cloth.canvas
    table.setFocus()
    QTest.keyClick(table, Qt.Key.Key_N)
    key = cloths.chosen
    assert key == cloths.plan.pieces[0].key
    place = cloths.place(key)
    QTest.keyClick(table, Qt.Key.Key_Right)
    QTest.keyClick(table, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    moved = cloths.place(key)
    assert (moved.x - place.x, moved.y - place.y) == pytest.approx((1.0, 10.0), abs=1e-3)
    number = next(n for n, one in enumerate(cloths.plan.pieces) if one.key == key)
    box = cloths.plan.shapes[number].bounds
    window.run("lay.turn")
    assert cloths.place(key).turn in (180.0, 0.0) and cloths.plan.shapes[number].bounds == pytest.approx(box, abs=0.01)
    window.run("lay.lock")
    locked = cloths.place(key)
    assert locked.is_locked
    window.run("lay.find")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work, timeout=30_000)
    assert (cloths.place(key).x, cloths.place(key).y, cloths.place(key).is_locked) == (locked.x, locked.y, True)
    QTest.keyClick(table, Qt.Key.Key_P)
    assert cloths.chosen == cloths.plan.pieces[-1].key


def test_cloths_and_what_is_none(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, cloths = opened(open_desk, qtbot, _read("antiphon.zpiv"))
    view = window.views.paper.cloth
    view.add.picked.emit("interfacing")
    qtbot.waitUntil(lambda: cloths.plan is not None and not cloths.search.is_at_work, timeout=30_000)
    assert {piece.piece.name for piece in cloths.plan.pieces} == {"front_facing", "back_facing"} or len(cloths.plan.pieces) == 2
    assert view.which.count() == 2 and cloths.lay.cloth == "interfacing"
    view.remove.click()
    assert len(cloths.lays) == 1 and not view.remove.isEnabled()
    view.fold.picked.emit("folded")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work, timeout=30_000)
    assert cloths.plan.cloth.is_folded and all(piece.is_at_fold for piece in cloths.plan.pieces)
    type_into(view.lengths["width"], "30 cm")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work, timeout=30_000)
    assert "wide across the grain" in view.fault.text() and view.fault.isVisibleTo(view)
    type_into(view.lengths["width"], "spoon")
    assert view.lengths["width"].fault()
    QTest.keyClick(view.lengths["width"].edit, Qt.Key.Key_Escape)
    type_into(view.sets, "0")
    assert view.sets.fault() and cloths.lay.sets == 1
    QTest.keyClick(view.sets.edit, Qt.Key.Key_Escape)
    type_into(view.price, "x")
    assert view.price.fault()


def test_stripes_are_matched_at_what_is_ticked(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, cloths = opened(open_desk, qtbot)
    view = window.views.paper.cloth
    assert view.matches == {}  # no stripes, nothing to match
    type_into(view.lengths["repeat_along"], "8 cm")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work and cloths.plan is not None, timeout=30_000)
    view.show_lay()
    ticked = {id for id, box in view.matches.items() if box.isChecked()}
    assert ticked == {"side_seam.balance"} == set(cloths.lay.match)
    assert view.matches["princess.bust.notch"].text() == "princess, bust"
    view.matches["princess.bust.notch"].click()
    assert cloths.lay.match == ("side_seam.balance", "princess.bust.notch")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work and cloths.plan is not None, timeout=30_000)
    assert {place.turn for place in cloths.plan.places} == {0.0} and not cloths.plan.clashes
    window.run("edit.undo")
    assert cloths.lay.match == ("side_seam.balance",) and not view.matches["princess.bust.notch"].isChecked()


def test_widths_are_compared(open_desk, qtbot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr("zesty_pivot.desk.paper.cloths.COMPARED_S", 0)  # one by one is enough to compare here
    window, cloths = opened(open_desk, qtbot, style([move("shoulder", "french")]))
    type_into(window.views.paper.cloth.price, "20")
    qtbot.waitUntil(lambda: not cloths.search.is_at_work, timeout=30_000)
    cloths.compare()
    qtbot.waitUntil(lambda: len(cloths.compared) == 4, timeout=60_000)
    rows = {width: length for width, length, _cost in cloths.compared}
    assert list(rows) == ["90 cm", "114 cm", "140 cm", "150 cm"]
    lengths = [length for length in rows.values() if length]
    assert lengths == sorted(lengths, reverse=True)
    assert cloths.compared[2][2] == pytest.approx(rows["140 cm"] / 1000.0 * 20.0)
    assert window.model.style.lays[0].width == "140 cm"  # nothing is changed by comparing


def test_comparing_is_given_up_when_the_lay_changes(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    """A comparison that was stopped once took what was found afterwards for a width of its own: nothing was shown any more."""
    window, cloths = opened(open_desk, qtbot)
    cloths.compare()
    type_into(window.views.paper.cloth.lengths["width"], "90 cm")
    assert cloths.compared == []
    qtbot.waitUntil(lambda: not cloths.search.is_at_work, timeout=30_000)
    assert cloths.plan is not None and cloths.plan.cloth.width == 900.0 and cloths.compared == []
    shown = cloths.plan.length
    cloths.compare()
    window.run("lay.find")  # stops comparing
    assert not cloths.search.is_at_work
    window.run("lay.find")
    qtbot.waitUntil(lambda: cloths.plan.length < shown, timeout=30_000)
    window.run("lay.find")
    assert len(window.model.style.lays[0].places) == 7


def test_dragging_draws_only_what_has_moved(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    _window, cloths = opened(open_desk, qtbot)
    told: list[str] = []
    cloths.changed.connect(lambda: told.append("changed"))
    cloths.dragged.connect(lambda: told.append("dragged"))
    before = cloths.plan.laid
    key, place = cloths.plan.pieces[0].key, cloths.plan.places[0]
    cloths.shown_at(key, place.x + 7.0, place.y)
    assert told == ["dragged"]
    assert all(one.piece is first.piece for one, first in zip(cloths.plan.laid, before, strict=True))
    assert (cloths.place(key).x, cloths.place(key).y) == (place.x + 7.0, place.y)
