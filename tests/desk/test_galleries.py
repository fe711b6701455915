"""Galleries of steps, with real events: pictured on the user's own pattern, looked at, taken."""

import pytest
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.desk.driving import type_into
from tests.desk.test_neck_panel import hover
from tests.samples import hip_block, style
from zesty_pivot.core.steps import registry
from zesty_pivot.desk.galleries.registry import all_galleries

CUT = {"do": "yoke.cut", "on": "front"}
NOT_ALONE = {"fit", "gathered", "pleated"}  # what needs a partner, or a dart, is refused where there is none


def gallery(window, do: str):  # type: ignore[no-untyped-def]
    found = window.drawer.gallery(do)
    found.finish()
    return found


def click(choice) -> None:  # type: ignore[no-untyped-def]
    QTest.mouseClick(choice, Qt.MouseButton.LeftButton)


BACKS = ("yoke.cut",)  # a gallery whose variants are not the same on both


@pytest.mark.parametrize(("do", "on"), [*((do, "front") for do in all_galleries()), *((do, "back") for do in BACKS)])
def test_each_variant_is_pictured_and_can_be_taken(open_desk, do: str, on: str) -> None:  # type: ignore[no-untyped-def]
    start = {"do": do, "on": on, **({"other": ""} if do in ("neck.shape", "drape.cowl") else {})}
    if do == "trim.peplum":
        start["other"] = "back" if on == "front" else "front"
    wanted = style([start])
    window = open_desk(wanted.model_copy(update={"block": hip_block()}) if do == "yoke.cut" else wanted)
    window.model.choose_step(0)
    shown = gallery(window, do)
    assert shown.isVisibleTo(window)
    pictures = set()
    for name, choice in shown.grid.choices.items():
        may_be_off = name in NOT_ALONE or (do == "neck.shape" and on == "back")
        assert choice.isEnabled() or may_be_off, choice.toolTip()
        if not choice.isEnabled():
            assert choice.toolTip().count(". ") <= 1
            continue
        pictures.add(choice.icon().pixmap(78, 58).toImage().bits().asstring(78 * 58 * 4))
        click(choice)
        assert not window.model.derived.derivation.broken and len(window.model.style.steps) == 1
        assert shown.grid.choices[name].isChecked(), name
    assert len(pictures) >= 0.7 * len(shown.grid.choices) or on == "back"


def test_looking_lays_it_on_the_table_and_keeps_all_above_still(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([CUT, {"do": "yoke.cut", "on": "back"}]))
    window.model.choose_step(0)
    shown = gallery(window, "yoke.cut")
    before = window.model.pattern
    choice = shown.grid.choices["scalloped"]
    place = choice.mapTo(window, choice.rect().topLeft())
    hover(choice)
    assert window.model.is_previewing and window.model.pattern != before and not window.model.file.is_dirty
    assert choice.mapTo(window, choice.rect().topLeft()) == place
    QApplication.sendEvent(choice, QEvent(QEvent.Type.Leave))
    assert window.model.pattern == before and not window.model.is_previewing
    QTest.keyClick(choice, Qt.Key.Key_Space)
    assert window.model.style.steps[0].shape == "scalloped" and window.model.step == 0
    window.run("edit.undo")
    assert window.model.style.steps[0] == registry.read(CUT)


def test_places_and_sizes_of_ones_own_stay(open_desk) -> None:  # type: ignore[no-untyped-def]
    """What a variant says nothing of is kept, and a size of one's own does not make another variant of it."""
    window = open_desk(style([CUT]))
    window.model.choose_step(0)
    shown = gallery(window, "yoke.cut")
    form = window.side.reading.form("yoke.cut")
    type_into(form.fields["at"].edit, "5 cm")
    click(shown.grid.choices["curved"])
    type_into(form.fields["depth"].edit, "4 cm")
    step = window.model.style.steps[0]
    assert (step.at, step.shape, step.depth) == ("5 cm", "curved", "4 cm") and shown.grid.choices["curved"].isChecked()
    click(shown.grid.choices["straight"])
    assert (window.model.style.steps[0].at, window.model.style.steps[0].depth) == ("5 cm", "3 cm")


def test_a_place_of_ones_own_stays_where_the_variant_can_be_there(open_desk) -> None:  # type: ignore[no-untyped-def]
    at = {"edge": "waist", "at": "85%"}
    window = open_desk(style([{"do": "fullness.pleat", "on": "back", "count": 1, "depth": "5 mm", "start": at}]))
    window.model.choose_step(0)
    shown = gallery(window, "fullness.pleat")
    click(shown.grid.choices["inverted"])
    assert window.model.style.steps[0].start.at == "85%"
    shown.finish()
    click(shown.grid.choices["fold"])
    assert window.model.style.steps[0].start.at == "100%"
    shown.finish()
    click(shown.grid.choices["knife"])  # which cannot lie on the fold
    assert window.model.style.steps[0].start is None and not window.model.derived.derivation.broken


def test_a_step_that_is_broken_can_be_mended_by_its_gallery(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "fullness.gather", "on": "front", "fit": True}]))
    assert window.model.derived.derivation.broken
    window.model.choose_step(0)
    click(gallery(window, "fullness.gather").grid.choices["light"])
    assert not window.model.derived.derivation.broken


def test_pictures_wait_while_something_is_dragged(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([CUT]))
    window.model.choose_step(0)
    shown = window.drawer.gallery("yoke.cut")
    shown._rest.timeout.emit()  # nothing has changed for a while
    window.model.preview(window.model.style, until=1)
    QTest.qWait(250)
    icons = [not choice.icon().isNull() for choice in shown.grid.choices.values() if not choice.isHidden()]
    assert sum(icons) <= 1
    window.model.preview(None)
    qtbot.waitUntil(lambda: len(shown.grid._made) == len(shown.grid.choices), timeout=8000)


def test_a_step_without_its_piece_costs_nothing(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([CUT, {"do": "yoke.cut", "on": "nowhere"}]))
    window.model.choose_step(0)
    shown = window.drawer.gallery("yoke.cut")
    window.model.choose_step(1)
    shown._rest.timeout.emit()
    assert not shown.isVisibleTo(window) and not window.grab().isNull()
