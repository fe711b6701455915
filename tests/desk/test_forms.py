"""The forms of split, merge and equalise, used as a user does: add, choose, tick, type; and what cannot be is said."""

from typing import Any

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.desk.driving import type_into
from tests.samples import move, style
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.registry import all_steps
from zesty_pivot.desk.forms.registry import all_forms


def test_every_step_can_be_added() -> None:
    """In the order of the work: a dart is moved before it is shared out, and a seam trued when the pieces are there."""
    offered = list(all_forms())
    assert set(offered) == set(all_steps()) and len(offered) == len(set(offered))
    for before, after in (("dart.move", "dart.split"), ("neck.shape", "line.princess"), ("piece.join", "piece.true")):
        assert offered.index(before) < offered.index(after)


def test_a_split_is_added_and_filled(open_desk) -> None:
    window = open_desk(style([]))
    window.model.choose_pivot(("front", "bust_point"), "waist")
    window.run("add.dart.split")
    form = window.side.reading.form("dart.split")
    (step,) = window.model.style.steps
    assert step.do == "dart.split" and step.dart == "waist" and len(form.rows) == 1
    form.more.click()
    assert len(form.rows) == 2 and len(window.model.style.steps[0].parts) == 2
    type_into(form.rows[0].amount.edit, "2 cm")
    assert window.model.style.steps[0].parts[0].mouth == "2 cm"
    assert form.rows[0].amount.note.text() == "= 2.00 cm wide"
    type_into(form.rows[1].amount.edit, "30%")
    form.rows[1].amount.edit.selectAll()
    QTest.keyClick(form.rows[1].amount.edit, Qt.Key.Key_Backspace)
    QTest.keyClick(form.rows[1].amount.edit, Qt.Key.Key_Return)
    assert window.model.style.steps[0].parts[1].is_rest
    form.rows[1].to.picked.emit("station:side_bust")
    assert window.model.style.steps[0].parts[1].to.station == "side_bust"
    assert window.model.account.is_whole and len(window.model.account.placed) == 3
    piece = window.model.pattern.piece("front")
    assert piece.intake("mid_armhole") == pytest.approx(20.0, abs=1e-6)
    window.run("edit.undo")
    assert window.model.style.steps[0].parts[1].to.station != "side_bust"


def test_a_mistake_in_a_part_stays_and_is_explained(open_desk) -> None:
    window = open_desk(style([]))
    window.run("add.dart.split")
    form = window.side.reading.form("dart.split")
    before = window.model.style
    type_into(form.rows[0].amount.edit, "half of it")
    assert window.model.style is before and form.rows[0].amount.edit.text() == "half of it" and form.rows[0].amount.fault()
    type_into(form.rows[0].amount.edit, "160%")
    assert window.model.style is before or window.model.derived.derivation.broken
    form.rows[0].amount.give_up()
    type_into(form.rows[0].amount.edit, "90 cm")
    assert "cannot open a mouth" in window.side.reading.step_fault.text()  # shown in place, nothing is lost
    assert window.model.style.steps[0].parts[0].mouth == "90 cm"


def test_equal_mouths_and_places_taken_out(open_desk) -> None:
    window = open_desk(style([]))
    window.run("add.dart.split")
    form = window.side.reading.form("dart.split")
    form.more.click()
    form.more.click()
    form.equal.click()
    step = window.model.style.steps[0]
    assert step.equal and not window.model.derived.derivation.broken and not form.rows[0].amount.isVisible()
    piece = window.model.pattern.piece("front")
    made = [d.id for d in piece.darts if d.id != ("waist" if step.dart == "shoulder" else "shoulder")]
    assert len({round(piece.intake(dart), 6) for dart in made}) == 1 and len(made) == 3
    form.rows[1].away.click()
    assert len(window.model.style.steps[0].parts) == 2
    form.equal.click()
    assert window.model.style.steps[0].parts[0].share == "50%" and window.model.style.steps[0].parts[1].is_rest
    form.rows[0].away.click()
    assert not form.rows[0].away.isEnabled()  # one place is the least


def test_merge_by_ticks(open_desk) -> None:
    window = open_desk(style([move("waist", "mid_armhole", "30%")]))
    window.run("add.dart.merge")
    form = window.side.reading.form("dart.merge")
    step = window.model.style.steps[1]
    assert set(step.darts) == {"shoulder", "waist", "mid_armhole"}
    form.list.boxes["mid_armhole"].click()
    assert window.model.style.steps[1].darts == ("shoulder", "waist")
    assert not form.list.boxes["waist"].isEnabled()  # two are the least
    form.to.picked.emit("station:side_bust")
    assert {d.id for d in window.model.pattern.piece("front").darts} == {"shoulder", "mid_armhole"}
    form.to.picked.emit("first")
    assert window.model.style.steps[1].to is None and window.model.account.is_whole


def test_equalise_and_where_it_cannot_be(open_desk) -> None:
    window = open_desk(style([]))
    window.run("add.dart.equalise")
    piece = window.model.pattern.piece("front")
    assert piece.intake("shoulder") == pytest.approx(piece.intake("waist"), abs=1e-6)
    # On the back every dart has a pivot of its own: it is not offered there.
    form = window.side.reading.form("dart.equalise")
    assert [form.list.on.itemData(k) for k in range(form.list.on.count())] == ["front"]
    one = open_desk(style([{"do": "dart.merge", "on": "front", "darts": ["shoulder", "waist"]}]))
    one.qt_actions.ask("Step")  # as when the menu opens
    assert not one.qt_action("add.dart.merge").isEnabled() and not one.qt_action("add.dart.equalise").isEnabled()
    assert one.qt_action("add.dart.split").isEnabled()


def test_picking_what_is_shown_already_asks_for_nothing(open_desk) -> None:
    """Found by torture: the piece of a step is shown although nothing of it can be ticked; picking it again raised."""
    window = open_desk(style([{"do": "dart.equalise", "on": "back", "darts": ["shoulder", "waist"]}]))
    window.model.choose_step(0)
    form = window.side.reading.form("dart.equalise")
    shown = [form.list.on.itemData(k) for k in range(form.list.on.count())]
    assert shown == ["front", "back"] and form.list.on.currentData() == "back"
    before = window.model.style
    form.list.on.activated.emit(1)
    assert window.model.style is before
    form.list.on.activated.emit(0)
    assert window.model.style.steps[0].on == "front"


ODD: dict[str, list[dict[str, Any]]] = {
    "strapless": [{"do": "trim.strapless", "on": "front"}, {"do": "trim.strapless", "on": "back"}],
    "one piece": [{"do": "drape.cowl_armhole"}],
    "joined yokes": [{"do": "yoke.cut", "on": on} for on in ("front", "back")] + [{"do": "yoke.join", "on": "front_yoke"}],
    "wrap": [{"do": "neck.shape", "on": "front", "shape": "wrap"}],
    "bare shoulder": [{"do": "neck.shape", "on": "front", "shape": "one_shoulder"}],
}


@pytest.mark.parametrize("name", ODD)
def test_every_step_begins_or_says_that_it_has_no_room(open_desk, name: str) -> None:
    """What a command puts in is a step, whatever is on the table; and it can be done there."""
    window = open_desk(style(ODD[name]))
    window.model.choose_pivot(None)
    for do, form in all_forms().items():
        value = form.first(window.model) if form.can(window.model) else None
        if value is not None:
            assert registry.read(value).do == do
