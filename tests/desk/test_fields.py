"""Fields that calculate, choices, columns, icons."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLabel

from tests.samples import style
from zesty_pivot.core.quantity import Scope, format_length, length_mm
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.icons import icon

SCOPE = Scope("cm", {"bust": 928.0})


@pytest.fixture
def field(qtbot) -> CalcField:  # type: ignore[no-untyped-def]
    found = CalcField(lambda text: f"= {format_length(length_mm(text, SCOPE), 'cm', fine=True)}", "Length", may_be_empty=True)
    qtbot.addWidget(found)
    found.show()
    return found


def typed(field: CalcField, text: str) -> list[str]:
    """What is committed when a text is typed and Enter pressed."""
    heard: list[str] = []
    field.committed.connect(heard.append)
    field.edit.setFocus()
    field.edit.selectAll()
    QTest.keyClicks(field.edit, text)
    QTest.keyClick(field.edit, Qt.Key.Key_Return)
    field.committed.disconnect()
    return heard


@pytest.mark.parametrize(("text", "worth"), [("13", "= 13.00 cm"), ("5 1/4 in", "= 13.33 cm"), ("bust/12", "= 7.73 cm")])
def test_value_and_formula_stand_together(field: CalcField, text: str, worth: str) -> None:
    assert typed(field, text) == [text]
    assert field.note.text() == worth and field.edit.text() == text and field.fault() == ""


def test_a_mistake_is_explained_and_what_was_typed_stays(field: CalcField) -> None:
    field.set_text("4 cm")
    assert typed(field, "bsut/12") == []
    assert field.edit.text() == "bsut/12" and "Did you mean 'bust'" in field.note.text()
    assert field.edit.property("fault") is True
    field.set_text("4 cm")  # the model speaks while somebody types: the typing wins
    assert field.edit.text() == "bsut/12"


def test_what_cannot_be_read_waits_for_its_owner(field: CalcField) -> None:
    """Looking at another step loses nothing: the typed text is there again with its step, until Escape gives it up."""
    field.set_text("4 cm", "step 1")
    assert typed(field, "4 cmm") == []
    field.edit.clearFocus()
    field.set_text("4 cm", "step 1")
    assert field.edit.text() == "4 cmm" and field.fault()
    field.set_text("9 cm", "step 2")
    assert field.edit.text() == "9 cm" and not field.fault()
    field.set_text("4 cm", "step 1")
    assert field.edit.text() == "4 cmm" and field.note.text()
    field.edit.setFocus()
    QTest.keyClick(field.edit, Qt.Key.Key_Escape)
    assert field.edit.text() == "4 cm" and not field.fault()
    field.set_text("9 cm", "step 2")
    field.set_text("4 cm", "step 1")
    assert field.edit.text() == "4 cm"


def test_what_was_read_is_no_draft(field: CalcField) -> None:
    field.set_text("4 cm", "step 1")
    assert typed(field, "5 cm") == ["5 cm"]
    field.edit.clearFocus()
    field.set_text("6 cm", "step 1")  # undo, say
    assert field.edit.text() == "6 cm"


def test_showing_a_value_commits_nothing(field: CalcField) -> None:
    heard: list[str] = []
    field.committed.connect(heard.append)
    field.set_text("4 cm")
    field.edit.editingFinished.emit()
    assert heard == [] and field.note.text() == "= 4.00 cm"


def test_an_empty_field_that_may_be(field: CalcField) -> None:
    field.set_text("4 cm")
    assert typed(field, " ") == [""] or typed(field, "\b") == [""]
    assert field.fault() == ""


def test_a_choice_tells_only_what_the_user_picked(qtbot) -> None:  # type: ignore[no-untyped-def]
    choice = Choice("School")
    qtbot.addWidget(choice)
    heard: list[str] = []
    choice.picked.connect(heard.append)
    choice.show_choices([("a", "One"), ("b", "Two")], "b")
    assert choice.currentText() == "Two" and heard == []
    choice.show_choices([("a", "One")], "gone")
    assert choice.currentText() == "gone" and choice.count() == 2
    choice.activated.emit(0)
    assert heard == ["a"]


def test_a_column_is_as_tall_as_its_wrapped_text(qtbot) -> None:  # type: ignore[no-untyped-def]
    column = Column()
    area = column.scrolled()
    qtbot.addWidget(area)
    words = QLabel("many words that do not fit on one line " * 12)
    words.setWordWrap(True)
    column.rows.addWidget(words)
    area.resize(200, 100)
    area.show()
    qtbot.waitUntil(lambda: words.height() >= words.heightForWidth(words.width()), timeout=2000)
    assert column.height() > 100


def test_icons_ship(qtbot) -> None:  # type: ignore[no-untyped-def]
    assert not icon("undo-2").isNull()
    with pytest.raises(FileNotFoundError):
        icon("no-such-icon")


def test_a_formula_is_picked_from_measurements_and_tapes(open_desk) -> None:
    tape = {
        "do": "measure.tape", "on": "front", "name": "half neckline", "way": "seam", "from": {"station": "centre_neck"},
        "to": {"on": "back", "station": "centre_neck"},
    }  # fmt: skip
    window = open_desk(style([tape, {"do": "neck.shape", "on": "front", "shape": "square"}]))
    window.strip.choose(2)
    field = window.side.reading.form("neck.shape").fields["depth"]
    menu = field.names_menu()
    offered = {action.text().split("\t")[0]: action for action in menu.actions()}
    assert {"half_neckline", "bust", "waist"} <= set(offered)
    assert offered["bust"].text().endswith(window.model.length(window.model.style.scope().measures["bust"]))
    offered["half_neckline"].trigger()
    QTest.keyClicks(field.edit, " / 2 +")
    offered["bust"].trigger()
    assert field.edit.text() == "half_neckline / 2 +bust"
    QTest.keyClicks(field.edit, "/24 - nape")
    QTest.keyClick(field.edit, Qt.Key.Key_Return)
    assert field.edit.selectedText() == "nape" and field.edit.property("fault")  # a wrong one says where
    QTest.keyClicks(field.edit, "1 cm")
    QTest.keyClick(field.edit, Qt.Key.Key_Return)
    assert window.model.style.steps[1].depth == "half_neckline / 2 +bust/24 - 1 cm"
