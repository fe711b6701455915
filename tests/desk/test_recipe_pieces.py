"""Steps copied from style to style and kept under a name; how a dart is sewn beside its step; with real events."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest

from tests.desk.driving import type_into
from tests.samples import hip_block, move, style
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import recipe_file
from zesty_pivot.core.quantity import length_mm
from zesty_pivot.core.steps import registry

SHIFT, LEFT = Qt.KeyboardModifier.ShiftModifier, Qt.MouseButton.LeftButton
STEPS = [
    move("shoulder", "french"),
    {"do": "piece.true", "on": "front", "edge": "waist", "over": "3"},
    move("waist", "mid_shoulder"),
]


def test_copied_steps_keep_their_meaning_in_another_style(open_desk) -> None:
    window, other = open_desk(style(STEPS)), open_desk(style([], hip_block(), units="in"))
    QTest.mouseClick(window.strip.cards[1], LEFT)
    QTest.mouseClick(window.strip.cards[2], LEFT, SHIFT)
    assert window.strip.cards[1].property("marked") and window.strip.cards[2].property("marked")
    window.run("step.copy")
    other.run("step.paste")
    pasted = other.model.style.steps
    assert [step.do for step in pasted] == ["dart.move", "piece.true"]
    assert length_mm(pasted[1].over, other.model.style.scope()) == pytest.approx(30.0)  # 3 were centimetres
    other.run("edit.undo")
    assert other.model.style.steps == ()


@pytest.mark.parametrize(
    "text", ["", "bust 92", "{}", '{"format": "zesty-pivot/recipe", "version": 1, "name": "x", "steps": []}', "{" * 9]
)
def test_what_is_no_step_is_said_in_a_line(open_desk, text: str) -> None:
    window = open_desk(style([]))
    QGuiApplication.clipboard().setText(text)
    window.run("step.paste")
    assert window.model.style.steps == () and window.message.text() and window.message.property("fault")
    assert "\n" not in window.message.text()


def test_a_piece_is_kept_under_a_name_and_put_into_any_style(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.strip.choose(1)
    window.ask.typed = "our French dart"
    window.run("step.keep")
    drawer = window.drawer
    assert drawer.doors.own.isVisibleTo(window) and "1" in drawer.doors.own.text()
    other = open_desk(style([]))
    QTest.mouseClick(other.drawer.doors.own, LEFT)
    assert other.drawer.page == "own"
    QTest.mouseClick(other.drawer.own.buttons["our French dart"], LEFT)
    assert other.model.style.steps == (registry.read(STEPS[0]),)
    other.drawer.own.bins["our French dart"].click()
    assert other.drawer.page == "doors" and not other.drawer.doors.own.isVisibleTo(other)


def test_a_folded_card_is_copied_whole(open_desk) -> None:
    window = open_desk(style([]))
    window.run("true.all")
    count = len(window.model.style.steps)
    assert window.strip.marked == (0, count)
    window.run("step.copy")
    assert len(recipe_file.from_text(QGuiApplication.clipboard().text(), "here").steps) == count


def test_a_file_of_a_later_version_is_refused() -> None:
    piece = recipe_file.RecipePiece(name="x", steps=(registry.read(STEPS[0]),))
    text = recipe_file.dump(piece).decode()
    assert recipe_file.from_text(text, "here") == piece
    with pytest.raises(FileError, match="newer than 1"):
        recipe_file.from_text(text.replace('"version": 1', '"version": 2'), "here")


def test_how_a_dart_is_sewn_stands_with_the_dart(open_desk) -> None:
    window = open_desk(style([move("shoulder", "french")]))
    window.model.choose_pivot(("front", "bust_point"), "shoulder")
    panel = window.side.reading.sewing
    assert panel.isVisibleTo(window) and panel.title.text() == "French dart of the front, as it is sewn"
    type_into(panel.own.edit, "3 cm")
    (sewn,) = [dart for dart in window.model.derived.pieces[0].darts if dart.dart == "shoulder"]
    assert sewn.setback_mm == pytest.approx(30.0) and window.model.style.finish.darts["front.french"].setback == "3 cm"
    titles = {panel.fold.itemData(k): panel.fold.itemText(k) for k in range(panel.fold.count())}
    assert {titles["before"], titles["after"]} == {"up", "down"} and "down, as the style" in titles.values()
    up = next(key for key, title in titles.items() if title == "up")
    panel.fold.picked.emit(up)
    panel.end.picked.emit("cut_away")
    (sewn,) = [dart for dart in window.model.derived.pieces[0].darts if dart.dart == "shoulder"]
    assert sewn.fold == up and sewn.cap is None and sewn.cut_away_mm > 0.0
    panel.point.picked.emit("inch")
    assert window.model.style.finish.darts["front.french"].setback is None
    window.model.choose_pivot(None)
    assert not panel.isVisibleTo(window)


def test_a_slash_takes_all_of_a_dart(open_desk) -> None:
    window = open_desk(
        style([{"do": "fullness.slash", "on": "front", "at": {"station": "french"}, "dart": "waist", "whole": True}])
    )
    front, block = window.model.pattern.piece("front"), window.model.derived.derivation.block.piece("front")
    (dart,) = [dart for dart in front.darts if front.dart_edge(dart.id) == "side_seam"]
    assert front.angle(dart.id) == pytest.approx(block.angle("waist"))
    window.strip.choose(1)
    form = window.side.reading.form("fullness.slash")
    assert not form.fields["by"].isVisibleTo(window)
    QTest.mouseClick(form.fields["whole"], LEFT, pos=form.fields["whole"].rect().center() / 8)
    assert not window.model.style.steps[0].whole and form.fields["by"].isVisibleTo(window)
