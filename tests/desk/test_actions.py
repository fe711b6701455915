"""The table of actions: every id runs, shortcuts are not given twice, nothing enabled does nothing."""

import pytest
from PyQt6.QtWidgets import QInputDialog, QMessageBox

from tests.samples import move, style
from zesty_pivot.desk.actions import actions

STEPS = [move("shoulder", "french"), move("waist", "side_bust", "50%"), {"do": "piece.true", "on": "front", "edge": "waist"}]
IDS = [action.id for action in actions()]


def test_ids_and_shortcuts_are_given_once() -> None:
    assert len(set(IDS)) == len(IDS)
    shortcuts = [action.shortcut for action in actions() if action.shortcut]
    assert len(set(shortcuts)) == len(shortcuts)


@pytest.mark.parametrize("id", IDS)
def test_every_action_does_something(id: str, open_desk, monkeypatch: pytest.MonkeyPatch, tmp_path) -> None:
    window = open_desk(style(STEPS))
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("Another", True))
    told = []
    monkeypatch.setattr(QMessageBox, "about", lambda *a: told.append(a))
    window.ask.path = tmp_path / "made.zpiv"
    model = window.model
    model.choose_step(1)
    if id == "edit.redo":
        model.edit(model.style.model_copy(update={"notes": "x"}), "note")
        model.undo()
    elif id in ("edit.undo", "file.demo"):
        model.edit(model.style.model_copy(update={"notes": "x"}), "note")
    elif id == "view.style":
        model.set_view("paper")
    elif id == "units.cm":
        model.set_units("in")
    window.table.pan(3, 3)
    assert window.qt_action(id).isEnabled()

    def seen() -> tuple:
        return (
            model.style, model.view, model.is_dirty, model.path, window.canvas().scale, window.canvas().origin.x(),
            tuple(window.ask.asked), tuple(told), window.isVisible(),
        )  # fmt: skip

    before = seen()
    window.run(id)
    assert seen() != before


def test_what_cannot_be_done_is_not_offered(open_desk) -> None:
    window = open_desk(style([]))
    for id in ("edit.undo", "edit.redo", "step.off", "step.earlier", "step.later", "step.remove", "units.cm"):
        assert not window.qt_action(id).isEnabled(), id
        before = window.model.style
        window.run(id)
        assert window.model.style is before


def test_menus_hold_every_action(open_desk) -> None:
    window = open_desk()
    found = {action.text() for menu in window.menuBar().actions() for action in menu.menu().actions()}
    assert {window.qt_action(id).text() for id in window.action_ids()} == found
