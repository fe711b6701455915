"""The drawer with real events: doors, tiles pictured on the pattern, galleries, and the search by the trade's words."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.samples import hip_block, move, style
from zesty_pivot.core.steps.registry import all_steps
from zesty_pivot.desk.drawer.doors import DOORS, door_of
from zesty_pivot.desk.drawer.search import search

ROUND = {"do": "neck.shape", "on": "front", "shape": "round"}


def test_every_step_is_behind_one_door_that_names_it() -> None:
    named = [do for door in DOORS for do in door.steps]
    assert sorted(named) == sorted(all_steps()) and len(DOORS) == 8
    assert all(do in next(door for door in DOORS if door.id == door_of(do)).steps for do in all_steps())


def test_no_door_is_scrolled_for(open_desk) -> None:
    window = open_desk()
    drawer = window.drawer
    for door in drawer.doors.buttons.values():
        corner = door.mapTo(drawer, door.rect().bottomRight())
        assert door.isVisibleTo(window) and drawer.rect().contains(corner)


def test_tiles_are_pictured_and_what_cannot_be_says_why(open_desk) -> None:
    window = open_desk(style([]))
    window.drawer.open_door("darts")
    tiles = window.drawer.tiles["darts"].grid
    tiles.finish()
    dim = {do for do, tile in tiles.choices.items() if tile.property("dim")}
    assert dim == {"dart.fisheye", "dart.return"}
    assert tiles.said("dart.return") == "No dart is parked." and tiles.said("dart.fisheye").endswith(".")
    pictures = [tile.icon().pixmap(78, 58).toImage() for do, tile in tiles.choices.items() if do not in dim]
    assert len({image.bits().asstring(image.sizeInBytes()) for image in pictures}) >= len(pictures) - 1
    before = tiles.choices["dart.move"].icon().pixmap(78, 58).toImage()
    window.model.recipe.add_step(all_steps()["dart.move"].model_validate(move("shoulder", "french")))
    tiles.finish()
    assert tiles.choices["dart.move"].icon().pixmap(78, 58).toImage() != before  # on the pattern as it is now


def test_a_tile_adds_and_the_hand_is_in_the_first_field(open_desk) -> None:
    window = open_desk(style([]))
    window.drawer.open_door("lines")
    QTest.mouseClick(window.drawer.tiles["lines"].grid.choices["line.contour"], Qt.MouseButton.LeftButton)
    assert [step.do for step in window.model.style.steps] == ["line.contour"]
    edit = window.side.reading.form("line.contour").fields["by"].edit
    assert window.focusWidget() is edit and edit.selectedText() == edit.text() != ""
    QTest.keyClicks(edit, "1 cm")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert window.model.style.steps[0].by == "1 cm" and window.focusWidget() is window.table
    assert window.keeper.settings.last_steps[0] == "line.contour"
    window.drawer.go_back()
    QTest.mouseClick(window.drawer.doors.recent[0], Qt.MouseButton.LeftButton)  # again: says that there is one, or adds it
    assert len(window.model.style.steps) == 2 or window.message.text()


def test_a_gallery_opens_with_its_step_and_goes_with_it(open_desk) -> None:
    window = open_desk(style([move("shoulder", "french"), ROUND]))
    window.strip.choose(2)
    assert window.drawer.page == "gallery:neck.shape"
    window.strip.choose(1)
    assert window.drawer.page == "doors"
    window.run("add.yoke.cut")
    assert window.drawer.page == "gallery:yoke.cut"
    window.run("edit.undo")
    assert window.drawer.page == "gallery:neck.shape"  # the step that has its place again
    window.strip.choose(0)
    assert window.drawer.page == "doors"


@pytest.mark.parametrize(
    ("words", "first"),
    [
        ("dart transfer", ("dart.move", "")), ("boat neck", ("neck.shape", "canoe")), ("princess", ("line.princess", "")),
        ("slash and spread", ("fullness.slash", "")), ("box pleat", ("fullness.pleat", "box")),
        ("a-line", ("fullness.flare", "")),
        ("surplice", ("neck.shape", "wrap")), ("tape", ("measure.tape", "")), ("gap", ("neck.gape", "")),
    ],
)  # fmt: skip
def test_the_trades_words_are_known(words: str, first: tuple[str, str]) -> None:
    (found, *_others) = search(words, {})
    assert (found.do, found.design) == first, found


def test_commands_are_found_by_what_people_call_them(open_desk) -> None:
    window = open_desk(style([]))
    (found, *_rest) = search("sloper", window.qt_actions.titles())
    window.drawer.take(found)
    assert window.model.view == "block"
    assert search("xyzzy", window.qt_actions.titles()) == []


def test_a_search_by_keys_begins_the_shape_that_was_asked_for(open_desk) -> None:
    window = open_desk(style([], hip_block()))
    window.run("step.find")
    assert window.focusWidget() is window.drawer.search
    QTest.keyClicks(window.drawer.search, "sweetheart neck")
    QTest.keyClick(window.drawer.search, Qt.Key.Key_Return)
    (step,) = window.model.style.steps
    assert step.shape == "sweetheart" and window.drawer.page == "gallery:neck.shape" and window.drawer.search.text() == ""
    window.run("step.find")
    QTest.keyClicks(window.drawer.search, "nothing of that kind")
    assert window.drawer.page == "answers" and window.drawer.answers.found == []
    QTest.keyClick(window.drawer.search, Qt.Key.Key_Escape)
    assert window.drawer.page == "doors"


def test_narrow_windows_have_doors_without_words(open_desk) -> None:
    window = open_desk(style([]))
    window.resize(860, 520)
    slim = window.drawer.width()
    QTest.mouseClick(window.drawer.doors.buttons["yokes"], Qt.MouseButton.LeftButton)
    assert slim < 70 and window.drawer.width() > 200 and window.drawer.page == "yokes"
    QTest.mouseClick(window.drawer.back, Qt.MouseButton.LeftButton)
    assert window.drawer.width() == slim
