"""The ring in the real window: mouse, wheel, keys, typed share and mouth."""

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.desk.driving import at_angle, drag, stations, type_into


def test_one_drag_is_one_undo(open_desk) -> None:
    window = open_desk()
    before = window.model.style
    drag(window, "shoulder", "mid_armhole")
    window.run("edit.undo")
    assert window.model.style == before and not window.model.history.undo_title


def test_a_dart_dragged_twice_is_one_move(open_desk) -> None:
    window = open_desk()
    drag(window, "shoulder", "mid_armhole")
    assert len(window.model.style.steps) == 1  # the demo moved the same dart before
    assert window.model.style.steps[0].to.station == "mid_armhole"


def test_shift_leaves_half_behind_and_the_wheel_changes_it(open_desk) -> None:
    window = open_desk()
    drag(window, "waist", "mid_armhole", modifier=Qt.KeyboardModifier.ShiftModifier, drop=False)
    assert window.table.control.carry.share == 0.5
    wheel = QWheelEvent(
        QPointF(300, 300), QPointF(300, 300), QPoint(0, 0), QPoint(0, 120), Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.ShiftModifier, Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(window.table, wheel)
    assert window.table.control.carry.share == pytest.approx(0.55)
    window.table.control.drop()
    step = window.model.style.steps[-1]
    assert (step.dart, step.share, step.to.station) == ("waist", "55%", "mid_armhole")
    assert window.model.account.is_whole and len(window.model.account.placed) == 3


def test_the_wheel_alone_leaves_a_share_behind(open_desk) -> None:
    window = open_desk()
    drag(window, "waist", "mid_armhole", drop=False)
    window.table.control.change_share(-1)
    QTest.mouseMove(window.table, at_angle(window, 0.2))
    assert window.table.control.carry.share == pytest.approx(0.95)
    window.table.control.leave_behind(True)
    assert window.table.control.carry.share == 0.5
    window.table.control.leave_behind(False)
    assert window.table.control.carry.share == 1.0


def test_an_action_lets_go_of_what_is_in_the_hand(open_desk) -> None:
    window = open_desk()
    drag(window, "waist", "mid_armhole")
    drag(window, "shoulder", "mid_neck", drop=False)
    window.run("view.nearer")
    assert window.table.control.carry is not None
    window.run("edit.undo")
    assert window.table.control.carry is None and len(window.model.style.steps) == 1
    assert stations(window) == {"french", "waist"}


def test_the_ring_by_keyboard_alone(open_desk) -> None:
    window = open_desk()
    table = window.table
    table.setFocus()
    QTest.keyClick(table, Qt.Key.Key_Right)
    chosen = window.model.dart
    assert chosen in {"shoulder", "waist"}
    QTest.keyClick(table, Qt.Key.Key_Return)
    assert table.control.carry is not None
    QTest.keyClick(table, Qt.Key.Key_Right)
    QTest.keyClick(table, Qt.Key.Key_Right)
    QTest.keyClick(table, Qt.Key.Key_Down)
    target = table.control.carry.target
    assert table.control.carry.share == pytest.approx(0.95)
    QTest.keyClick(table, Qt.Key.Key_Return)
    assert table.control.carry is None
    assert window.model.style.steps[-1].to == target.spot and window.model.style.steps[-1].share == "95%"
    before = window.model.style
    QTest.keyClick(table, Qt.Key.Key_Return)
    QTest.keyClick(table, Qt.Key.Key_Left)
    QTest.keyClick(table, Qt.Key.Key_Escape)
    assert window.model.style is before
    QTest.keyClick(table, Qt.Key.Key_P)
    assert window.model.pivot[0] == "back"


def test_the_preview_is_live_and_leaves_nothing(open_desk) -> None:
    window = open_desk()
    before = window.model.style
    drag(window, "waist", "mid_neck", drop=False)
    assert "mid_neck" in stations(window) and window.model.style is before
    assert not window.table.grab().isNull()
    window.table.control.let_go()
    assert "waist" in stations(window) and not window.model.history.undo_title


def test_a_bead_dropped_on_another_merges(open_desk) -> None:
    window = open_desk()
    control = window.table.control
    control.pick_up("waist")
    control.point(window.table.ring().bead("shoulder").middle)
    control.drop()
    assert [entry.dart for entry in window.model.account.placed] == ["shoulder"]
    assert window.model.account.is_whole and window.model.dart == "shoulder"


def test_dropping_where_it_was_does_nothing(open_desk) -> None:
    window = open_desk()
    before = window.model.style
    control = window.table.control
    control.pick_up("waist")
    control.point(window.table.ring().bead("waist").middle)
    control.drop()
    assert window.model.style is before and window.message.isHidden()


def test_typed_share_and_mouth(open_desk) -> None:
    window = open_desk()
    drag(window, "waist", "mid_armhole")
    form = window.side.reading.form("dart.move")
    assert form.isVisible()
    type_into(form.share.edit, "40%")
    assert window.model.style.steps[-1].share == "40%"
    type_into(form.mouth.edit, "1 1/8 in")
    step = window.model.style.steps[-1]
    assert step.mouth == "1 1/8 in"
    assert window.model.pattern.piece("front").intake("mid_armhole") == pytest.approx(28.575, abs=1e-9)
    assert "= 2.86 cm" in form.mouth.note.text()
    type_into(form.mouth.edit, "12 furlongs")
    assert form.mouth.edit.text() == "12 furlongs" and form.mouth.note.objectName() == "fault"  # kept, explained
    assert window.model.style.steps[-1].mouth == "1 1/8 in"
    type_into(form.mouth.edit, "40 cm")
    assert "It can be up to" in window.side.reading.step_fault.text()
    window.run("edit.undo")
    assert not window.model.derived.derivation.broken


def test_clicking_a_pin_moves_the_ring(open_desk) -> None:
    window = open_desk()
    back = window.model.pattern.piece("back")
    QTest.mouseClick(window.table, Qt.MouseButton.LeftButton, pos=window.table.ring_hand.pin_of(back, "blade_point").toPoint())
    assert window.model.pivot == ("back", "blade_point")
    assert window.table.ring().beads[0].dart == "shoulder"
