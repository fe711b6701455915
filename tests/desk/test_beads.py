"""Other uses chosen from the bead, by mouse and by key; parked and brought back; the forms of the new steps."""

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QContextMenuEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMenu

from tests.desk.driving import at_angle, type_into
from tests.samples import hip_block, move, style
from zesty_pivot.core.piece import Use
from zesty_pivot.desk.bead_actions import BEAD_MENU


def menu_on(window, dart: str, *, by_key: bool = False) -> QMenu:  # type: ignore[no-untyped-def]
    """The menu of a bead, as the window system asks for it."""
    at = at_angle(window, window.table.ring().bead(dart).middle)
    reason = QContextMenuEvent.Reason.Keyboard if by_key else QContextMenuEvent.Reason.Mouse
    event = QContextMenuEvent(reason, QPoint(2, 2) if by_key else at, window.table.mapToGlobal(at))
    QApplication.sendEvent(window.table, event)
    menu = QApplication.activePopupWidget()
    assert isinstance(menu, QMenu)
    return menu


def choose(window, menu: QMenu, id: str) -> None:  # type: ignore[no-untyped-def]
    action = window.qt_action(id)
    assert action in menu.actions()
    menu.setActiveAction(action)
    QTest.keyClick(menu, Qt.Key.Key_Return)


@pytest.mark.parametrize("by_key", [False, True])
def test_a_bead_is_gathered_and_sewn_again(open_desk, by_key: bool) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([move("shoulder", "mid_neck")]))
    window.model.choose_pivot(("front", "bust_point"), "shoulder" if by_key else "waist")
    choose(window, menu_on(window, "shoulder", by_key=by_key), "use.gathers")
    assert [step.do for step in window.model.style.steps] == ["dart.move", "dart.use"]
    assert window.model.pattern.piece("front").dart("shoulder").use is Use.GATHERS
    assert {entry.use for entry in window.model.account.placed} == {"dart", "gathers"} and window.model.account.is_whole
    assert window.table.ring().bead("shoulder").use == "gathers"
    menu = menu_on(window, "shoulder")
    assert not window.qt_action("use.gathers").isEnabled()
    choose(window, menu, "use.pleats")  # another use in the same step
    assert [step.do for step in window.model.style.steps] == ["dart.move", "dart.use"]
    assert [d.use for d in window.model.pattern.piece("front").family("shoulder")] == [Use.PLEAT] * 2
    window.model.choose_pivot(("front", "bust_point"), "shoulder-2")
    window.run("use.dart")
    assert len(window.model.pattern.piece("front").darts) == 2
    for _ in range(3):
        window.run("edit.undo")
    assert len(window.model.style.steps) == 1


def test_a_place_without_a_bead_has_no_menu(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    event = QContextMenuEvent(QContextMenuEvent.Reason.Mouse, QPoint(60, 60), window.table.mapToGlobal(QPoint(60, 60)))
    QApplication.sendEvent(window.table, event)
    assert QApplication.activePopupWidget() is None


def test_too_much_to_ease_is_said_and_nothing_is_added(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.model.choose_pivot(("front", "bust_point"), "waist")
    window.run("use.ease")
    assert window.model.style.steps == () and "medium cloth takes 6%" in window.message.text()


def test_parked_and_brought_back_by_key(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.activateWindow()
    assert QTest.qWaitForWindowActive(window)
    before = window.model.pattern
    window.model.choose_pivot(("front", "bust_point"), "shoulder")
    modifiers = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier
    QTest.keyClick(window.table, Qt.Key.Key_P, modifiers)
    assert window.model.style.steps[0].do == "dart.park"
    assert [bead.use for bead in window.table.ring().beads].count("parked") == 1
    assert "parked" in {entry.use for entry in window.model.account.placed}
    QTest.keyClick(window.table, Qt.Key.Key_B, modifiers)
    assert window.model.style.steps[1].do == "dart.return"
    after = window.model.pattern.piece("front")
    assert after.angle("shoulder") == pytest.approx(before.piece("front").angle("shoulder"))
    assert not window.qt_action("bead.return").isEnabled()


def test_all_that_asks_for_it_is_trued_step_by_step(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.run("true.all")
    made = [step.do for step in window.model.style.steps]
    assert made.count("piece.true") >= 2 and made.count("piece.true_seam") == 3
    assert not [f for f in window.model.findings if f.check == "corners"]
    assert all(state.notes for state in window.model.derived.derivation.states[1:])  # each says its amount
    window.model.pace.check()  # as a moment later
    assert not window.qt_action("true.all").isEnabled()
    # One card, which unfolds, and one entry of the history.
    strip = window.strip
    assert [card.number for card in strip.cards if card.isVisibleTo(strip)] == [0, len(made)]
    assert f"{len(made)} steps" in strip.cards[-1].title.text() and window.model.step == len(made) - 1
    window.run("step.fold")
    assert all(card.isVisibleTo(strip) for card in strip.cards)
    window.run("edit.undo")
    assert window.model.style.steps == ()
    window.run("edit.redo")
    window.model.recipe.remove_step(0)  # each can be refused
    assert [f for f in window.model.findings if f.check == "corners"]


FORMS = {
    "dart.use": ({"count": "3"}, {"as_": "pleats"}),
    "dart.fan": ({"count": "4", "spacing": "1 cm"}, {}),
    "dart.shape": ({"bow": "2 mm"}, {}),
    "dart.fisheye": ({"intake": "2.5 cm", "axis": "8 cm"}, {}),
    "fullness.slash": ({"by": "1.5 cm"}, {}),
    "fullness.flare": ({"count": "3", "by": "1 cm"}, {}),
    "piece.side_seam": ({"by": "1.5 cm"}, {}),
    "piece.side_panel": ({"front": "3 cm"}, {}),
    "piece.true_seam": ({"over": "3 cm"}, {}),
    "line.princess": ({"bow_above": "5 mm", "chest": "3 cm", "ease": "2 mm"}, {"school": "hollow", "give_back": "none"}),
    "line.cut": ({"bow": "15 mm"}, {}),
    "neck.shape": ({"width": "10 cm", "depth": "14 cm", "back_depth": "6 cm"}, {"shape": "square", "back": "deep"}),
    "neck.gape": ({"amount": "8 mm"}, {}),
    "neck.opening": ({"length": "16 cm"}, {"kind": "slit"}),
    "trim.armhole": ({"shoulder_in": "1 cm", "lower": "2 cm"}, {"back": "razor"}),
    "piece.let_out": ({"top": "5 mm", "bottom": "15 mm"}, {}),
    "piece.facing": ({"depth": "5 cm", "shade": "1 mm"}, {"kind": "hem"}),
    "line.contour": ({"by": "15 mm"}, {"to": "armhole"}),
    "trim.strapless": ({"depth": "18 cm"}, {"shape": "sweetheart"}),
    "line.band": ({"width": "3 cm"}, {"edge": "neckline"}),
    "piece.square": ({"over": "2 cm"}, {}),
}


@pytest.mark.parametrize("do", FORMS)
def test_a_form_writes_what_is_typed_and_chosen(open_desk, do: str) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], hip_block() if do == "dart.fisheye" else None))
    window.run(f"add.{do}")
    step = window.model.style.steps[0]
    assert step.do == do and not window.model.derived.derivation.broken
    form = window.side.reading.form(do)
    typed, chosen = FORMS[do]
    for key, value in chosen.items():
        form.fields[key].picked.emit(value)
        assert getattr(window.model.style.steps[0], key) == value
    for key, text in typed.items():
        assert form.fields[key].isVisible()
        type_into(form.fields[key].edit, text)
        assert str(getattr(window.model.style.steps[0], key)) == text
        type_into(form.fields[key].edit, "nonsense")  # stays as it was typed and is explained
        assert str(getattr(window.model.style.steps[0], key)) == text and form.fields[key].fault()
        form.fields[key].give_up()
    if "on" in form.fields:
        form.fields["on"].picked.emit("back")
        assert window.model.style.steps[0].on == "back"
    window.run("edit.undo")


def test_a_slash_is_led_to_the_pivot_in_its_form(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.run("add.fullness.slash")
    form = window.side.reading.form("fullness.slash")
    on = window.model.style.steps[0].on
    dart = window.model.derived.derivation.block.piece(on).darts[0].id
    form.fields["hinge"].choice.picked.emit(f"pivot:{dart}")
    assert window.model.style.steps[0].dart == dart and window.model.style.steps[0].hinge is None
    form.fields["at"].choice.picked.emit("station:mid_neck")
    assert window.model.style.steps[0].at.station == "mid_neck"
    form.fields["hinge"].choice.picked.emit("station:mid_armhole")
    assert window.model.style.steps[0].hinge.station == "mid_armhole" and window.model.style.steps[0].dart is None


def test_a_place_along_an_edge_is_typed(open_desk) -> None:  # type: ignore[no-untyped-def]
    """From any place on any seam: the edge, the end it is measured from, and a share, a length or a formula."""
    window = open_desk(style([]))
    window.run("add.fullness.slash")
    place = window.side.reading.form("fullness.slash").fields["at"]
    place.choice.picked.emit("station:mid_neck")
    assert not place.more.isVisible()
    place.choice.picked.emit("along")
    assert place.more.isVisible() and window.model.style.steps[0].at.edge == "neckline"
    place.edge.picked.emit("waist")
    place.start.picked.emit("centre_waist")
    type_into(place.at.edit, "waist/12")
    at = window.model.style.steps[0].at
    assert (at.edge, at.from_, at.at) == ("waist", "centre_waist", "waist/12") and "=" in place.at.note.text()
    type_into(place.at.edit, "wiast/12")
    assert window.model.style.steps[0].at.at == "waist/12" and place.at.fault()
    place.at.give_up()
    type_into(place.at.edit, "90%")
    assert window.model.style.steps[0].at.at == "90%"


def test_parked_darts_are_ticked(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.run("add.dart.park")
    ticks = window.side.reading.form("dart.park").fields["darts"]
    assert [id for id, box in ticks.boxes.items() if box.isChecked()] == ["shoulder"] and not ticks.boxes[
        "shoulder"
    ].isEnabled()
    ticks.boxes["waist"].click()
    assert window.model.style.steps[0].darts == ("shoulder", "waist")
    window.run("add.dart.return")
    back = window.side.reading.form("dart.return").fields["darts"]
    assert set(back.boxes) == {"shoulder", "waist"}
    back.boxes["shoulder"].click()
    assert window.model.style.steps[1].darts == ("shoulder",)


def test_the_table_draws_every_use(open_desk) -> None:  # type: ignore[no-untyped-def]
    """Waves, dashes, lines and words: each use looks different from a sewn dart."""
    from zesty_pivot.desk.table.shapes import shapes_of

    seen = set()
    for as_ in ("dart", "gathers", "tucks", "pleats", "flare"):
        use = {"do": "dart.use", "on": "front", "dart": "shoulder", "as": as_}
        window = open_desk(style([use]))
        shapes = shapes_of(window.model.pattern.piece("front"))
        seen.add((shapes.marks.elementCount(), shapes.legs.elementCount(), tuple(text for _at, text in shapes.words)))
    assert len(seen) == 5 and set(BEAD_MENU) <= set(window.qt_actions.known)
