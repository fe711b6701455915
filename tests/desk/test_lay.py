"""Tracing paper, fold, walk and hand sheet in the real window, by mouse and keys."""

import json
from pathlib import Path

import pypdf
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest

from tests.core.finish.built_in import with_built_in
from tests.desk.driving import drag, stations
from tests.samples import move, style, written
from zesty_pivot.core.conventions.sewing import PLAIN, closing_angle
from zesty_pivot.core.formats import report
from zesty_pivot.core.piece import Pattern
from zesty_pivot.desk.table import laid

STEPS = [move("shoulder", "french"), move("waist", "mid_armhole", "40%"), {"do": "piece.true", "on": "front", "edge": "waist"}]


def test_tracing_paper_tells_what_the_report_tells(open_desk) -> None:
    """The figures on the panel are those of report.json, of the style and of its block alone."""
    window = open_desk(style(STEPS))
    window.run("panel.trace")
    window.run("trace.block")
    now = json.loads(report.dump(report.report(window.model.derived)))
    waist = next(e["sewn_mm"] for p in now["pieces"] if p["name"] == "front" for e in p["edges"] if e["id"] == "waist")
    seam = window.side.trace.seams.rows[1]
    assert len(window.side.trace.seams.rows) == 2  # a head and the waist: truing changed one seam
    assert seam[0] == "Front waist" and seam[1] == window.model.length(waist)
    front = next(p for p in now["pieces"] if p["name"] == "front")
    shown = {row[0].partition(" dart")[0]: row for row in window.side.trace.darts.rows[1:]}
    for dart in front["darts"]:
        row = shown[f"Front {dart['called']}"]
        assert row[1] == f"{dart['angle_deg']:.1f}°\n{window.model.length(dart['intake_mm'])}"
    marks = laid.difference_marks(window.table, window.model.pattern, window.lay.figures, window.table.layout_now())
    assert len(marks) == 4 and {mark[1] for mark in marks} >= {"17.2° moved here", "5.6° new"}


def test_earlier_states_and_nothing(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.run("panel.trace")
    panel = window.side.trace
    panel.sheet.picked.emit("2")
    assert window.lay.traced.state == 2 and "after step 2" in panel.summary.text()
    assert {row[0] for row in panel.seams.rows[1:]} == {"Front waist"}
    (dart,) = panel.darts.rows[1:]  # truing moved the ends of its mouth, and nothing else
    assert dart[0].startswith("Front waist dart") and dart[2].startswith("=\n")
    panel.sheet.picked.emit("3")
    assert "nothing differs" in panel.summary.text()
    panel.everything.setChecked(True)
    assert len(panel.seams.rows) == 13 and len(panel.darts.rows) == 6
    panel.over.setChecked(True)
    assert window.lay.is_over and not window.table.grab().isNull()
    window.model.recipe.remove_step(2)
    assert window.lay.traced.state == 2  # a state that is gone is the last one now
    panel.sheet.picked.emit("none")
    assert window.lay.traced is None and window.lay.figures is None


def test_another_style_is_laid_on(open_desk, tmp_path: Path) -> None:
    window = open_desk(style([]))
    window.ask.path = written(STEPS, tmp_path)
    window.run("trace.other")
    assert window.lay.panel == "trace" and window.lay.traced.title == "Test"
    assert window.side.trace.sheet.currentText() == "Test"
    assert any(row.is_change for row in window.lay.figures.darts)
    window.ask.path = tmp_path / "nothing.zpiv"
    window.run("trace.other")
    assert "cannot be read" in window.message.text() and window.lay.traced.title == "Test"


def test_the_slider_folds_the_darts(open_desk) -> None:
    window = open_desk()
    slider = window.style_view.foot.slider
    slider.setValue(50)
    piece = window.model.pattern.piece("front")
    half = laid.shown_piece(piece, window.lay.fold, PLAIN)
    assert half.angle("waist") == pytest.approx(closing_angle(piece, "waist", PLAIN) / 2)
    assert laid.shown_piece(piece, 0.5, PLAIN) is half and laid.shown_piece(piece, 0.0, PLAIN) is piece
    slider.setFocus()
    QTest.keyClick(slider, Qt.Key.Key_End)
    assert window.lay.fold == 1.0 and "shut" in window.style_view.foot.told.text()
    assert laid.tears(laid.shown_piece(piece, 1.0, PLAIN)) and not window.table.grab().isNull()
    # Folded paper has no ring: beads cannot be taken, keys pick nothing up.
    middle = window.table.ring().bead("waist").middle
    pin = window.table.pin()
    import math

    assert window.table.bead_at(QPointF(pin.x() + 70 * math.cos(middle), pin.y() + 70 * math.sin(middle))) is None
    QTest.keyClick(window.table, Qt.Key.Key_Return)
    assert window.table.control.carry is None
    window.run("table.fold")
    assert window.lay.fold == 0.0
    drag(window, "waist", "side_bust")
    assert "side_bust" in stations(window)


def with_pattern(window, pattern: Pattern) -> None:  # type: ignore[no-untyped-def]
    """Shows a pattern that no file holds, in place of the block's."""
    state = window.model.derived.derivation.states[0]
    object.__setattr__(state, "pattern", pattern)
    window.model.changed.emit()


def test_the_walk_shows_a_built_in_difference_at_its_place(open_desk) -> None:
    """4 mm more in the last third of the back's side seam: nothing before it, all of it at the end."""
    window = open_desk(style([]))
    with_pattern(window, with_built_in(4.0, 0.7, 1.0))
    window.run("panel.walk")
    window.side.walk.seam.picked.emit("1")
    panel = window.side.walk
    assert window.canvas() is window.style_view.walk_table and window.canvas().isVisible()
    assert "longer by 0.40 cm in all" in panel.verdict.text() and panel.verdict.text().startswith("Back")
    rows = panel.stretches.rows[1:]
    assert [row[3] for row in rows] == ["=", "+0.40 cm"] and panel.notches.rows == [("balance notch", "meet")]
    found = window.lay.walked
    for value, expected in ((300, 0.0), (650, 0.0), (1000, 4.0)):
        panel.scrubber.setValue(value)
        assert found.running(window.canvas().distance()) == pytest.approx(expected, abs=0.01)
        assert not window.canvas().grab().isNull()


def test_walking_by_keys_and_from_the_other_end(open_desk) -> None:
    window = open_desk(style([]))
    with_pattern(window, with_built_in(4.0, 0.1, 0.4))
    window.run("panel.walk")
    window.run("walk.next")
    table = window.canvas()
    table.setFocus()
    for _ in range(10):
        QTest.keyClick(table, Qt.Key.Key_Right)
    assert window.lay.at == pytest.approx(0.1)
    QTest.keyClick(table, Qt.Key.Key_End)
    assert window.lay.at == 1.0
    QTest.keyClick(table, Qt.Key.Key_Home)
    assert window.lay.at == 0.0
    assert window.side.walk.notches.rows == [("balance notch", "miss by 0.40 cm")]
    window.run("walk.turn")
    assert window.side.walk.notches.rows == [("balance notch", "meet")] and window.lay.walked.ends[0] == "side waist"
    window.run("panel.reading")
    assert window.canvas() is window.table


def test_the_hand_sheet_reads_the_chosen_step_in_both_ways(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.run("panel.hand")
    whole = window.side.hand.text.toPlainText()
    assert "Before you start" in whole and "true the waist" in whole and "Pin at the bust point" in whole
    window.strip.choose(1)
    one = window.side.hand.text.toPlainText()
    assert "Before you start" not in one and "French dart position" in one
    window.run("hand.way")
    assert "Cut from the place" in window.side.hand.text.toPlainText() and window.lay.way == "slash"
    window.run("units.in")
    assert " in" in window.side.hand.text.toPlainText() and " cm" not in window.side.hand.text.toPlainText()


def test_the_hand_sheet_on_paper(open_desk, tmp_path: Path) -> None:
    """Alone as a PDF, and after the pages of the pattern; every line of the panel stands there."""
    window = open_desk(style(STEPS))
    window.ask.path = tmp_path / "hand.pdf"
    window.run("export.hand")
    text = " ".join(page.extract_text() for page in pypdf.PdfReader(tmp_path / "hand.pdf").pages)
    text = " ".join(text.split())
    for section in window.side.hand.sections():
        for line in section.lines:
            assert line.text in text
    window.model.set_view("paper")
    window.views.paper.pages.hand.picked.emit("slash")
    assert window.model.style.finish.hand_sheet == "slash"
    window.ask.path = tmp_path / "pages.pdf"
    window.run("export.pdf")
    pages = pypdf.PdfReader(tmp_path / "pages.pdf").pages
    assert len(pages) > len(window.views.paper.canvas.tiles) + 1
    assert "Cut from the place" in "".join(page.extract_text() for page in pages)


def test_another_document_begins_flat(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.run("table.fold")
    window.run("trace.block")
    window.lay.show_panel("walk")
    window.lay.choose_seam(1)
    window.model.edit(window.model.style.model_copy(update={"notes": "x"}), "note")
    assert window.lay.fold == 1.0 and window.lay.traced is not None and window.lay.seam == 1
    window.run("file.demo")
    assert window.lay.fold == 0.0 and window.lay.traced is None and window.lay.seam == 0
