"""The measure view, driven by keys and mouse: the chart, people and dates, what is odd, estimates, files, undo."""

from __future__ import annotations

import csv
import io
import json
from pathlib import Path

import pypdf
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel

from tests.bodies import IN, PERSON
from tests.core.drafting.worked import worked
from zesty_pivot.core.formats import measures_file
from zesty_pivot.core.formats.style_file import from_block
from zesty_pivot.core.measure import CHART
from zesty_pivot.desk.measure_figure import LINES
from zesty_pivot.desk.settings import people_file

ENTER = Qt.Key.Key_Return


def measured(window, texts: list[str]):  # type: ignore[no-untyped-def]
    """A new person with a name and some rows, typed one after the other; an empty text skips its row."""
    window.run("people.new")
    view = window.views.measure
    QTest.keyClicks(view.name, "Ada Wimple")
    QTest.keyClick(view.name, ENTER)
    rows = iter(view.rows.values())
    for text, row in zip(texts, rows, strict=False):
        QTest.keyClicks(row.edit, text)
        QTest.keyClick(row.edit, ENTER)
    return view


def words(view) -> str:  # type: ignore[no-untyped-def]
    QApplication.processEvents()
    return " ".join(found.text() for found in view.findChildren(QLabel) if found.isVisibleTo(view))


def test_the_chart_is_typed_from_the_top_down_in_any_unit(open_desk) -> None:
    window = open_desk()
    view = measured(window, ["38 in", "", "83,5", "30 1/2 in", "bust + 6 cm"])
    body = window.views.people.body()
    assert body.name == "Ada Wimple"
    assert body.lengths == {
        "bust": pytest.approx(38 * IN), "under_bust": pytest.approx(835.0), "waist": pytest.approx(30.5 * IN),
        "hip": pytest.approx(38 * IN + 60.0),
    }  # fmt: skip
    assert view.rows["hip"].note.text() == "102.5 cm · 40 3/8 in" and view.rows["bust"].note.text() == "96.5 cm · 38 in"
    assert (
        view.rows["over_bust"].note.text() == "estimate: bust less 3 cm"
        and "93.5 cm" in view.rows["over_bust"].edit.placeholderText()
    )
    saved = measures_file.read_all(people_file())
    assert saved.people[-1].name == "Ada Wimple" and saved.people[-1].measures["under_bust"] == "83,5 cm"


def test_enter_goes_on_escape_gives_up_and_the_line_is_lit(open_desk) -> None:
    window = open_desk()
    view = measured(window, ["96"])
    for row, measurement in zip(view.rows.values(), CHART, strict=True):
        row.entered.emit(row.name)
        assert view.figure.shown == measurement.name and view.tape.text().lower().endswith(measurement.tape.lower())
    assert set(LINES) == set(view.rows)
    row = view.rows["waist"]
    QTest.keyClicks(row.edit, "77")
    QTest.keyClick(row.edit, Qt.Key.Key_Escape)
    assert row.edit.text() == "" and "waist" not in window.views.people.body().lengths


def test_text_in_a_number_field_is_said_and_nothing_is_lost(open_desk) -> None:
    window = open_desk()
    told: list[str] = []
    window.model.said.connect(lambda text, _fault: told.append(text))
    view = measured(window, ["96", "", "wide", "70 +"])
    assert told and told[-1].startswith("waist: ") and "'70 +' is not finished" in told[-1]
    assert (
        view.rows["under_bust"].note.objectName() == "fault" and "no measurement 'wide'" in view.rows["under_bust"].note.text()
    )
    assert view.rows["waist"].edit.text() == "70 +"
    assert window.views.people.body().lengths == {"bust": pytest.approx(960.0)}


def test_what_is_odd_is_said_beside_the_tape(open_desk) -> None:
    window = open_desk()
    view = measured(window, ["38", "", "", "76"])  # inches typed in a style of centimetres
    assert "38 cm or 38 in?" in words(view) and "Measure again: full bust." in words(view)
    assert view.rows["bust"].note.objectName() == "warning"


def test_a_child_has_its_rows_its_limits_and_the_caution(open_desk) -> None:
    window = open_desk()
    view = measured(window, ["61"])
    QTest.mouseClick(view.child, Qt.MouseButton.LeftButton)
    assert window.views.people.person.is_child
    assert not view.rows["span"].isVisibleTo(view) and view.rows["fwl"].isVisibleTo(view)
    assert "strangling hazard" in words(view) and "local rules" in words(view)
    assert view.rows["bust"].title.text() == "Chest" and view.rows["shoulder"].edit.placeholderText() == "≈ 25.6 cm"


def test_several_dates_are_compared(open_desk) -> None:
    window = open_desk()
    view = measured(window, ["96", "", "", "76"])
    window.views.people.set_facts(date="2025-01-20")
    window.run("people.again")
    view.rows["waist"].edit.selectAll()
    QTest.keyClicks(view.rows["waist"].edit, "78,5")
    QTest.keyClick(view.rows["waist"].edit, ENTER)
    view.tabs.turn("compare")
    assert ("Waist", "78.5 cm", "76.0 cm", "+2.5 cm") in view.differences.rows
    assert ("Full bust", "96.0 cm", "96.0 cm", "=") in view.differences.rows
    names = [(person.name, person.date) for person in window.views.people.all]
    assert len(set(names)) == len(names)


def test_everything_is_undone_and_done_again(open_desk) -> None:
    window = open_desk()
    before = window.views.people.all
    measured(window, ["96", "93", "83"])
    window.views.people.set_facts(notes="soft spoken")
    after = window.views.people.all
    window.run("people.remove")
    while window.views.people.history.undo_title and window.views.people.all != before:
        window.run("edit.undo")
    assert window.views.people.all == before and window.model.history.undo_title == ""
    window.views.people.choose(0)
    for _ in range(12):
        window.run("edit.redo")
    window.run("edit.undo")
    assert window.views.people.all == after


def test_people_go_out_and_come_in_as_csv_and_zmeas(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    count = len(window.views.people.all)
    for name in ("all.csv", "all.zmeas"):
        window.ask.path = tmp_path / name
        window.run("people.export")
        window.run("people.import")
    assert len(window.views.people.all) == 4 * count
    bodies = [window.views.people.body(k) for k in range(count)]
    for k, body in enumerate(bodies):
        for other in (count + k, 3 * count - count + k):
            assert window.views.people.body(other).lengths == pytest.approx(body.lengths, abs=0.01), other
    broken = tmp_path / "broken.csv"
    broken.write_text("name,bust,shoe\nOdo,ninety,44\nIna,95,38\n", encoding="utf-8")
    window.bodies.bring_in_from(broken)
    assert window.views.people.body().lengths == {"bust": pytest.approx(950.0)}
    assert "column 'shoe' is no measurement" in words(window)
    window.run("edit.undo")
    window.run("edit.undo")
    assert len(window.views.people.all) == 2 * count, "a file that was brought in goes out in one undo, all of its people"


def test_the_fraction_table_is_shown_and_saved(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    view = measured(window, ["96"])
    view.tabs.turn("fractions")
    assert view.fractions.rows[1] == ("Full bust", "96.0", "48.0", "24.0", "16.0", "12.0", "8.0")
    window.ask.path = tmp_path / "table.pdf"
    window.run("people.fractions")
    text = pypdf.PdfReader(tmp_path / "table.pdf").pages[0].extract_text()
    assert "1/12" in text and "96.0 cm" in text and "8.0 cm" in text
    window.ask.path = tmp_path / "table.csv"
    window.run("people.fractions")
    rows = list(csv.reader(io.StringIO((tmp_path / "table.csv").read_text(encoding="utf-8-sig"))))
    assert rows[1] == ["full bust", "96.0 cm", "48.0 cm", "24.0 cm", "16.0 cm", "12.0 cm", "8.0 cm"]


def test_the_body_of_a_drafted_block_is_edited_and_the_style_follows_live(open_desk) -> None:
    """The main promise: a measurement is changed, the block is drafted again and the recipe worked out over it, in one undo."""
    window = open_desk()
    window.model.file.replace(from_block(worked("quarter_waist").block), None)
    window.model.set_view("measure")
    first, girth = window.model.style, window.model.derived.girths.bust
    row = window.views.measure.rows["bust"]
    row.edit.selectAll()
    QTest.keyClicks(row.edit, "40 in")
    QTest.keyClick(row.edit, ENTER)
    assert window.model.derived.girths.bust - girth == pytest.approx(2 * IN, abs=0.01)
    assert window.model.style.block.method == "quarter_waist" and window.model.style.block.measurements[
        "bust"
    ] == pytest.approx(40 * IN)
    told: list[str] = []
    window.model.said.connect(lambda text, _fault: told.append(text))
    QTest.keyClicks(window.views.measure.rows["fwl"].edit, " - 3 in")
    QTest.keyClick(window.views.measure.rows["fwl"].edit, ENTER)  # shorter than the back: refused by name
    assert "Left as it was" in told[-1] and "shorter than the back's" in told[-1]
    window.run("edit.undo")
    assert window.model.style == first


def test_a_block_that_was_not_drafted_keeps_its_lines(open_desk) -> None:
    window = open_desk()
    window.model.set_view("measure")
    row, block = window.views.measure.rows["waist"], window.model.style.block
    row.edit.selectAll()
    QTest.keyClicks(row.edit, "75")
    QTest.keyClick(row.edit, ENTER)
    assert window.model.style.block is block and window.model.style.measures == {"waist": "75 cm"}
    assert "its lines stay" in words(window.views.measure)


def test_a_broken_file_of_people_is_set_aside_and_said(open_desk) -> None:
    people_file().parent.mkdir(parents=True, exist_ok=True)
    people_file().write_text("{", encoding="utf-8")
    window = open_desk()
    window.model.set_view("measure")
    assert len(window.views.people.all) == 6
    assert people_file().with_name("people.zmeas.unread").read_text(encoding="utf-8") == "{"


def test_two_people_of_one_name_and_date_are_refused_in_a_sentence(open_desk) -> None:
    window = open_desk()
    told: list[str] = []
    window.model.said.connect(lambda text, _fault: told.append(text))
    measured(window, ["96"])
    other = window.views.people.all[0]
    window.views.people.set_facts(name=other.name, date=other.date)
    assert "stands there twice" in told[-1] and window.views.people.person.name == "Ada Wimple"
    assert json.loads(people_file().read_text(encoding="utf-8"))["people"][-1]["name"] == "Ada Wimple"
    assert PERSON["bust"] > 0.0
