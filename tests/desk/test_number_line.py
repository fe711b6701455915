"""Numbers behind a name in the search of the drawer, with real keys."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.samples import style
from zesty_pivot.desk.forms.number_line import parted


@pytest.mark.parametrize(
    ("text", "words", "numbers", "choices"),
    [
        ("queen anne 3 7 4", "queen anne", ("3", "7", "4"), ()),
        ("queen 3 1/2 7 in 4", "queen", ("3 1/2", "7 in", "4"), ()),
        ("keyhole 3 1/2 3 - 2 1 1/2", "keyhole", ("3 1/2", "3", "-", "2", "1 1/2"), ()),
        ("strapless 7 50%", "strapless", ("7", "50%"), ()),
        ("tucks 5 0,3 0.7cm", "tucks", ("5", "0,3", "0.7cm"), ()),
        ("boat neck", "boat neck", (), ()),
        ("keyhole 3 round", "keyhole 3 round", (), ()),
        ("3 4", "3", ("4",), ()),
        ("", "", (), ()),
        ("round +2 +1 1/2", "round", ("+2", "+1 1/2"), ()),
        ("keyhole 4,5 5, in a point", "keyhole", ("4,5", "5"), ("in a point",)),
        ("princess line, back, mid arm", "princess line", (), ("back", "mid arm")),
    ],
)
def test_words_and_numbers(text: str, words: str, numbers: tuple[str, ...], choices: tuple[str, ...]) -> None:
    assert parted(text) == (words, numbers, choices)


def search(window, text: str, modifier=Qt.KeyboardModifier.NoModifier) -> None:  # type: ignore[no-untyped-def]
    window.drawer.begin_search()
    window.drawer.search.clear()
    QTest.keyClicks(window.drawer.search, text)
    QTest.keyClick(window.drawer.search, Qt.Key.Key_Return, modifier)


def test_a_neckline_by_its_numbers(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="in"))
    window.drawer.begin_search()
    QTest.keyClicks(window.drawer.search, "queen anne 4 7")
    assert window.drawer.answers.note.text().startswith("half width 4 in, depth 7 in, next: ")
    QTest.keyClick(window.drawer.search, Qt.Key.Key_Return)
    (step,) = window.model.style.steps
    assert (step.shape, str(step.width), str(step.depth), step.drop) == ("queen_anne", "4", "7", None)
    assert not window.model.derived.derivation.broken
    front = window.model.pattern.piece("front")
    neck = window.model.derived.derivation.block.piece("front").corner("neck_point")
    assert float(front.corner("centre_neck")[1] - neck[1]) == pytest.approx(7 * 25.4, abs=0.01)
    window.run("edit.undo")
    assert not window.model.style.steps


def test_a_plus_counts_from_the_block_and_a_comma_chooses(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="cm"))
    block = window.model.derived.derivation.block.piece("front")
    window.drawer.begin_search()
    QTest.keyClicks(window.drawer.search, "keyhole +2 +3, in a")
    told = "half width 2 cm more than the block has, depth 3 cm more than the block has, next: "
    assert window.drawer.answers.note.text().startswith(told) and window.drawer.answers.note.text().endswith(", in a point")
    QTest.keyClick(window.drawer.search, Qt.Key.Key_Return)
    (step,) = window.model.style.steps
    assert (step.width_from, step.depth_from, step.end, str(step.width)) == ("neck_point", "centre_neck", "point", "2")
    front = window.model.pattern.piece("front")
    deeper = front.corner("centre_neck")[1] - block.corner("centre_neck")[1]
    assert float(deeper) == pytest.approx(30.0, abs=0.01)
    search(window, "princess line, back, mid arm")
    step = window.model.style.steps[-1]
    assert (step.on, step.from_.station) == ("back", "mid_armhole")


def test_places_in_their_order(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="in"))
    search(window, "style line 0, 2 1/2 side, 45% cen, back")
    (step,) = window.model.style.steps
    assert (step.from_.edge, str(step.from_.at), step.to.edge, str(step.to.at)) == ("side_seam", "2 1/2", "centre", "45%")
    assert (step.on, str(step.bow)) == ("back", "0") and not window.model.derived.derivation.broken


def test_a_plus_in_the_field_itself(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "neck.shape", "on": "front", "shape": "round", "other": "back"}], units="cm"))
    edit = window.side.reading.form("neck.shape").fields["depth"].edit
    edit.setText("+ 4")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    (step,) = window.model.style.steps
    assert (str(step.depth), step.depth_from) == ("4", "centre_neck")


@pytest.mark.parametrize(
    ("text", "words"),
    [("keyhole 4 5, blue", "no choice is called 'blue'"), ("keyhole, b", "choices are called 'b'")],
)
def test_a_choice_that_is_none_is_told(open_desk, text: str, words: str) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="cm"))
    search(window, text)
    assert not window.model.style.steps and words in window.message.text()


def test_shift_enter_is_another_variant(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="in"))
    shift = Qt.KeyboardModifier.ShiftModifier
    search(window, "square neck 4 5", shift)
    assert len(window.model.style.steps) == 1 and not window.model.variants.all
    search(window, "strapless n 7 100%", shift)
    search(window, "keyhole 4 4 - 2", shift)
    assert [one.name for one in window.model.variants.all] == [
        "Square, 4 wide, 5 deep", "Strapless, 7 deep, to the underarm", "Keyhole, 4 wide, 4 deep",
    ]  # fmt: skip
    (step,) = window.model.style.steps
    assert str(step.hole_start) == "2" and step.corner is None


def test_an_answer_that_is_walked_to_is_taken_with_shift_too_and_a_command_is_run(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "neck.shape", "on": "front", "shape": "round"}], units="in"))
    window.drawer.begin_search()
    QTest.keyClicks(window.drawer.search, "keyhole")
    QTest.keyClick(window.drawer.search, Qt.Key.Key_Down)
    QTest.keyClick(window.drawer.answers.buttons[0], Qt.Key.Key_Return, Qt.KeyboardModifier.ShiftModifier)
    assert len(window.model.variants.all) == 2 and [step.shape for step in window.model.style.steps] == ["keyhole"]
    search(window, "set-back", Qt.KeyboardModifier.ShiftModifier)
    assert window.model.view == "finish"


def test_a_style_that_is_full_of_variants_keeps_what_lies_on_the_table(open_desk, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr("zesty_pivot.desk.variant_edits.MAX_VARIANTS", 2)
    window = open_desk(style([], units="in"))
    shift = Qt.KeyboardModifier.ShiftModifier
    for text in ("square neck 4 5", "scoop 4 6", "round neck 4 5"):
        search(window, text, shift)
    assert [step.shape for step in window.model.style.steps] == ["scoop"] and "room for 2 variants" in window.message.text()


def test_what_cannot_be_is_said_and_nothing_is_lost(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="in"))
    search(window, "square neck 4 5 6 7")
    assert not window.model.style.steps
    said = window.message.text()
    assert "takes 3 numbers: half width, depth, back depth below the neck point. You wrote 4." in said, said
    search(window, "square neck 4 5..")
    assert not window.model.style.steps
    search(window, "square neck 4 5")
    assert len(window.model.style.steps) == 1
    search(window, "square neck 4 5 6 7 8", Qt.KeyboardModifier.ShiftModifier)
    assert len(window.model.style.steps) == 1 and not window.model.variants.all and window.model.step == 0


def test_a_step_that_has_no_place_says_so(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    search(window, "join yokes")
    assert not window.model.style.steps and window.message.text()
