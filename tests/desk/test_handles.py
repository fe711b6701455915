"""Handles of a slash on the table, dragged with real mouse events."""

import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest

from tests.desk.handles import drag, points
from tests.samples import style
from zesty_pivot.core.steps import registry

SLASH = {"do": "fullness.slash", "on": "front", "at": {"edge": "waist", "at": "8%"}, "hinge": {"edge": "armhole", "at": "85%"},
         "by": "2 cm"}  # fmt: skip


def opened(open_desk):  # type: ignore[no-untyped-def]
    window = open_desk(style([SLASH]))
    window.strip.choose(1)
    return window


def test_the_hinge_is_dragged_along_the_armhole(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    assert set(points(window)) == {"at", "hinge"}
    drag(window, "hinge", QPointF(10, 14))
    step = window.model.style.steps[0]
    assert step.hinge.edge in ("armhole", "side_seam") and step.hinge.at != "85%"
    assert not window.model.derived.derivation.broken and step.at.at == "8%"
    window.run("edit.undo")
    assert window.model.style.steps[0].hinge.at == "85%"


def test_the_pattern_follows_live_and_escape_lets_go(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    before = window.model.pattern
    drag(window, "at", QPointF(-12, 0), drop=False)
    assert window.model.pattern is not before and window.model.style.steps[0].at.at == "8%"  # only a preview
    QTest.keyClick(window.table, Qt.Key.Key_Escape)
    assert window.model.pattern == before and window.table.handles.held is None and not window.model.file.is_dirty


def test_where_it_cannot_be_it_is_not_put_down(open_desk) -> None:  # type: ignore[no-untyped-def]
    """Dragged along the waist across the dart: the slash would cross it."""
    window = opened(open_desk)
    drag(window, "at", QPointF(-260, 10))
    assert window.model.style.steps[0].at.at == "8%" and "Not moved" in window.message.text()
    assert not window.model.derived.derivation.broken


def test_other_steps_have_no_handles(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "piece.true", "on": "front", "edge": "waist"}]))
    window.strip.choose(1)
    assert points(window) == {}
    window = open_desk(style([{**SLASH, "off": True}]))
    window.strip.choose(1)
    assert points(window) == {}


def test_steps_after_the_dragged_one_wait_and_the_table_stays_where_it_looked(open_desk) -> None:  # type: ignore[no-untyped-def]
    move = {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_neck"}}
    window = open_desk(style([SLASH, move, {"do": "piece.true", "on": "back", "edge": "waist"}]))
    window.strip.choose(1)
    cards = len(window.strip.cards)
    drag(window, "at", QPointF(-6, 0), drop=False)
    assert len(window.model.derived.derivation.states) == 2 and window.model.is_previewing
    assert len(window.strip.cards) == cards and window.model.state_index == 1
    QTest.keyClick(window.table, Qt.Key.Key_Escape)
    assert len(window.model.derived.derivation.states) == 4 and window.model.state_index == 1 and not window.model.is_previewing
    drag(window, "at", QPointF(-6, 0))
    assert window.model.style.steps[0].at.at != "8%" and len(window.model.style.steps) == 3
    assert len(window.model.derived.derivation.states) == 4 and window.model.state_index == 1
    assert len(window.strip.cards) == cards


UNEVEN = {"at": "6 cm", "right": "10 cm", "back_dart": "stay"}  # else the taper of a back's seam alters with it


@pytest.mark.parametrize(("on", "more", "key", "by"), [
    ("front", {}, "at", (2.0, 30.0)), ("back", {}, "centre", (0.0, 20.0)),
    ("front", {"shape": "curved"}, "depth", (0.0, 15.0)), ("back", {"shape": "scalloped"}, "depth", (0.0, 10.0)),
    ("front", UNEVEN, "right", (0.0, 15.0)), ("back", UNEVEN, "at", (0.0, 15.0)), ("front", UNEVEN, "centre", (0.0, 12.0)),
    ("back", {"kind": "midriff"}, "at", (0.0, -25.0)), ("back", UNEVEN, "right", (0.0, 15.0)),
    ("front", {"kind": "midriff", "shape": "pointed", "depth": "-2 cm"}, "depth", (0.0, -12.0)),
])  # fmt: skip
def test_a_yoke_seam_follows_the_hand(open_desk, on: str, more: dict, key: str, by: tuple) -> None:  # type: ignore[no-untyped-def]
    """The handle lands where it was dragged to, as the seam is drawn anew there, and says so in the form."""
    window = open_desk(style([{"do": "yoke.cut", "on": on, **more}]))
    window.model.choose_step(0)
    before = points(window)[key]
    drag(window, key, QPointF(*by))
    step = window.model.style.steps[0]
    assert getattr(step, key).endswith("mm") and not window.model.derived.derivation.broken
    moved = points(window)[key] - before
    assert moved.y() == pytest.approx(by[1], abs=4.0), (step, moved)
    sides = points(window)
    assert "right" not in sides or sides["right"].x() < sides["centre"].x() < sides["at"].x()  # a front's right is at the left
    window.run("edit.undo")
    assert window.model.style.steps[0] == registry.read({"do": "yoke.cut", "on": on, **more})
