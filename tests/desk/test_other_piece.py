"""The same on the other piece, by its keys."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.samples import style


@pytest.mark.parametrize(
    ("step", "more"),
    [
        ({"do": "line.princess", "on": "front", "top": "20 mm"}, {}),
        (
            {
                "do": "line.cut",
                "on": "back",
                "from": {"edge": "side_seam", "at": "5 cm"},
                "to": {"edge": "centre", "at": "45%"},
            },
            {},
        ),
        ({"do": "piece.side_seam", "on": "front", "other": "back", "by": "1 cm"}, {"other": "front"}),
        ({"do": "fullness.gather", "on": "front", "edge": "waist"}, {}),
    ],
)
def test_the_same_numbers_on_the_other_piece(open_desk, step: dict, more: dict) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([step]))
    window.model.choose_step(0)
    window.activateWindow()
    assert QTest.qWaitForWindowActive(window)
    window.table.setFocus()
    QTest.keyClick(window.table, Qt.Key.Key_G, Qt.KeyboardModifier.ControlModifier)
    first, second = window.model.style.steps
    there = "back" if step["on"] == "front" else "front"
    assert second == first.model_copy(update={"on": there, **more})
    assert not window.model.derived.derivation.broken
    window.run("edit.undo")
    assert window.model.style.steps == (first,)


def test_a_dart_that_the_other_piece_does_not_have_is_one_that_it_has(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "dart.use", "on": "front", "dart": "shoulder", "as": "gathers"}]))
    window.model.choose_step(0)
    window.run("step.other")
    assert window.model.style.steps[1].on == "back" and not window.model.derived.derivation.broken


def test_why_it_cannot_be(open_desk) -> None:  # type: ignore[no-untyped-def]
    tape = {
        "do": "measure.tape",
        "on": "front",
        "way": "straight",
        "from": {"landmark": "neck_point"},
        "to": {"landmark": "bust_point"},
    }
    window = open_desk(style([tape]))
    window.model.choose_step(0)
    window.run("step.other")
    assert len(window.model.style.steps) == 1 and "on the other piece" in window.message.toolTip()
