"""The tape on the table with real events: what it shows against the drawn points, kept as a step, by keys as well."""

from __future__ import annotations

import math

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from tests.desk.driving import type_into
from tests.desk.test_pointing import click, inside, spot
from tests.samples import hip_block, move, style
from zesty_pivot.core.formats import style_file

LEFT = Qt.MouseButton.LeftButton


def put(window, at: QPoint) -> None:  # type: ignore[no-untyped-def]
    QTest.mouseMove(window.table, at)
    QTest.mouseClick(window.table, LEFT, pos=at)


def taped(open_desk, *steps, block=None, units="cm"):  # type: ignore[no-untyped-def]
    window = open_desk(style(list(steps), block, units=units))
    window.run("table.tape")
    assert window.style_view.tape_bar.isVisibleTo(window)
    return window


def test_from_a_landmark_to_a_landmark_kept_and_followed(open_desk) -> None:
    window = taped(open_desk)
    front = window.model.pattern.piece("front")
    neck, bust = front.corner("neck_point"), front.landmarks["bust_point"]
    put(window, inside(window, "front", *neck))
    put(window, inside(window, "front", *bust))
    assert window.style_view.tape_bar.figure.text().startswith(f"{math.dist(neck, bust) / 10.0:.2f} cm = ")
    assert " in" in window.style_view.tape_bar.figure.text()
    window.style_view.tape_bar.keep.click()
    (step,) = window.model.style.steps
    assert (step.from_.landmark, step.to.landmark) == ("neck_point", "bust_point") and not window.table.tape.tool.is_on
    edit = window.side.reading.form("measure.tape").fields["name"].edit
    assert window.focusWidget() is edit
    type_into(edit, "to the bust point")
    (tape,) = window.model.pattern.tapes
    assert (tape.name, tape.key) == ("to the bust point", "to_the_bust_point")
    assert "in formulas: to_the_bust_point" in window.side.reading.form("measure.tape").fields["name"].note.text()


def test_half_the_neckline_over_the_shoulder_in_inches(open_desk) -> None:
    window = taped(open_desk, {"do": "neck.shape", "on": "front", "shape": "round", "depth": "4 in"}, units="in")
    window.style_view.tape_bar.way.picked.emit("seam")
    put(window, spot(window, "front", "neckline", 0.0))
    put(window, spot(window, "back", "neckline", 0.0))
    QTest.keyClick(window.table, Qt.Key.Key_Return)
    (tape,) = window.model.pattern.tapes
    runs = [r.path.length for on in ("front", "back") for r in window.model.pattern.piece(on).runs if r.edge == "neckline"]
    assert tape.mm == pytest.approx(sum(runs), abs=1e-6)


def test_any_place_can_be_measured_and_survives_save_and_reopen(open_desk, tmp_path) -> None:
    """Inside a piece it is said from the nearest landmark, along an edge from its nearer end, to a millimetre."""
    window = taped(open_desk, block=hip_block())
    put(window, inside(window, "front", 62.4, 331.7))
    at = spot(window, "front", "armhole", 0.83)
    put(window, at)
    tool = window.table.tape.tool
    points = [tool.start.at, tool.stop.at]
    assert math.dist(points[0], (62.4, 331.7)) < 2.0 and tool.stop.value["edge"] == "armhole"
    assert tool.reading.mm == pytest.approx(math.dist(*points), abs=1e-6)
    QTest.keyClick(window.table, Qt.Key.Key_Return)
    mm = window.model.pattern.tapes[0].mm
    style_file.save(window.model.style, tmp_path / "t.zpiv")
    again = open_desk(style_file.read(tmp_path / "t.zpiv"))
    assert again.model.pattern.tapes[0].mm == mm


def test_darts_on_the_way_are_shut_or_open(open_desk) -> None:
    window = taped(open_desk)
    for share in (0.0, 1.0):
        put(window, spot(window, "front", "waist", share))
    shut = window.table.tape.tool.reading.mm
    window.style_view.tape_bar.shut.click()
    front = window.model.pattern.piece("front")
    ends = front.corner("side_waist"), front.corner("centre_waist")
    assert window.table.tape.tool.reading.mm == pytest.approx(math.dist(*ends), abs=1e-6) and shut < math.dist(*ends) - 20.0


def test_by_keyboard_alone_and_put_away(open_desk) -> None:
    window = taped(open_desk)
    table, tool = window.table, window.table.tape.tool
    QTest.keyClick(table, Qt.Key.Key_Right)
    QTest.keyClick(table, Qt.Key.Key_Return)
    first = tool.start
    for _times in range(3):
        QTest.keyClick(table, Qt.Key.Key_Right)
    QTest.keyClick(table, Qt.Key.Key_Return)
    assert tool.is_laid and tool.start is first and tool.stop is table.tape.places()[3]
    QTest.keyClick(table, Qt.Key.Key_Return)
    assert len(window.model.style.steps) == 1
    window.run("table.tape")
    QTest.keyClick(table, Qt.Key.Key_Escape)
    assert not tool.is_on and window.style_view.foot.isVisibleTo(window)


def test_what_cannot_be_measured_is_said(open_desk) -> None:
    window = taped(open_desk)
    put(window, inside(window, "front", 60.0, 200.0))
    put(window, inside(window, "back", 60.0, 200.0))
    assert "stays on one piece" in window.style_view.tape_bar.figure.text() and not window.style_view.tape_bar.keep.isEnabled()
    QTest.keyClick(window.table, Qt.Key.Key_Return)
    assert window.model.style.steps == ()


def test_from_a_card_and_over_an_edit_before_it(open_desk) -> None:
    window = open_desk(style([move("shoulder", "french")]))
    window.model.choose_pivot(None)
    card = click(window, spot(window, "back", "side_seam", 0.5))
    card.tape.click()
    tool = window.table.tape.tool
    assert tool.is_on and tool.start.piece == "back" and card.isHidden()
    put(window, spot(window, "back", "side_seam", 1.0))
    assert tool.reading.mm == pytest.approx(window.model.pattern.piece("back").edge("side_seam").sewn_length / 2.0, abs=1.5)


def test_a_field_after_it_knows_its_name(open_desk) -> None:
    half = {
        "do": "measure.tape", "on": "front", "name": "half neckline", "way": "seam", "from": {"station": "centre_neck"},
        "to": {"on": "back", "station": "centre_neck"},
    }  # fmt: skip
    window = open_desk(style([half, {"do": "neck.shape", "on": "front", "shape": "square"}]))
    window.strip.choose(2)
    field = window.side.reading.form("neck.shape").fields["depth"]
    type_into(field.edit, "half_neckline / 2")
    assert field.note.text() == f"= {window.model.pattern.tapes[0].mm / 20.0:.2f} cm" and not field.edit.property("fault")
    window.strip.choose(1)
    form = window.side.reading.form("measure.tape")
    type_into(form.fields["hold"].edit, "half_neckline")  # itself is not known yet at its own place
    assert form.fields["hold"].edit.property("fault")
