"""The real window, driven: drag, true, undo and redo, save, reopen, export."""

from pathlib import Path

import pypdf
import pytest
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDropEvent
from PyQt6.QtTest import QTest

from tests.desk.driving import corner_findings, drag, stations, type_into
from tests.samples import REAL_BLOCK, move, real_block, scaled_value, style
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk.start import application
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.window import Window


def test_the_whole_way_from_a_bead_to_a_printed_sheet(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    first = window.model.style
    assert corner_findings(window)

    drag(window, "waist", "side_bust")
    assert stations(window) == {"french", "side_bust"}
    assert window.model.account.is_whole
    assert len(window.model.style.steps) == 2
    dragged = window.model.style

    # The waist has a corner where its dart was closed, the side seam one across the French dart as it is sewn: their
    # findings offer to true them.
    for edge in ("waist", "side_seam"):
        (button,) = [b for b, mend in window.side.reading.findings.mends if mend.step and mend.step.get("edge") == edge]
        QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    assert not corner_findings(window)
    assert window.focusWidget() is window.table
    assert len(window.model.style.steps) == 4
    trued = window.model.style

    while window.model.history.undo_title:
        window.run("edit.undo")
    assert window.model.style == first
    while window.model.history.redo_title:
        window.run("edit.redo")
    assert window.model.style == trued != dragged

    window.ask.path = tmp_path / "descant.zpiv"
    window.run("file.save_as")
    assert not window.model.file.is_dirty
    assert style_file.read(tmp_path / "descant.zpiv") == trued
    window.run("file.demo")
    window.run("file.open")
    assert window.model.style == trued and window.model.file.path == tmp_path / "descant.zpiv"

    window.run("view.paper")
    window.ask.path = tmp_path / "descant.pdf"
    window.run("export.pdf")
    assert len(pypdf.PdfReader(tmp_path / "descant.pdf").pages) == len(window.views.paper.canvas.tiles) + 1


def test_looking_back_and_inserting(open_desk) -> None:
    window = open_desk(style([move("shoulder", "french"), move("waist", "side_bust")]))
    window.strip.choose(1)
    assert window.model.pattern.piece("front").has_dart("waist") and window.model.state_index == 1
    assert window.model.account.placed[1].where == "waist"
    window.run("add.piece.true")
    assert [step.do for step in window.model.style.steps] == ["dart.move", "piece.true", "dart.move"]


def test_figures_are_those_of_the_state_on_the_table(open_desk) -> None:
    window = open_desk(style([{"do": "piece.true", "on": "front", "edge": "waist", "over": "8 cm"}]))
    end = window.side.reading.figures.text()
    window.strip.choose(0)
    block = window.side.reading.figures.text()
    assert "Finished waist: 76.8 cm" in block and block != end
    assert window.model.look is window.model.look  # worked out once
    window.strip.choose(1)
    assert window.side.reading.figures.text() == end


@pytest.mark.parametrize(
    "odd", [{"ease": {"front.shoulder": "nape/9"}}, {"cut_away": "nape/9"}, {"allowances": {"front.waist": "nape/9"}}]
)
def test_a_finish_that_cannot_be_worked_out_opens_with_a_finding_and_is_refused_when_typed(
    open_desk, tmp_path: Path, odd
) -> None:
    """Once a style is saved it opens, whatever its block cannot answer; a new formula is refused where it is typed."""
    window = open_desk()
    path = tmp_path / "bad.zpiv"
    path.write_bytes(style_file.dump(style([], finish=Finish.model_validate(odd))))
    window.docs.open_path(path)
    assert window.model.file.path == path
    assert any("no measurement 'nape'" in finding.message for finding in window.model.findings)
    for view in ("finish", "paper", "style"):
        window.model.set_view(view)
    window.model.recipe.set_finish(
        {"cut_away": "2 cm", "ease": {"front.shoulder": "3 mm"}, "allowances": {"front.waist": "1 cm"}}, "mend"
    )
    before = window.model.style
    assert not any("nape" in finding.message for finding in window.model.findings)
    window.model.recipe.set_finish(odd, "odd")
    assert window.model.style is before and "no measurement 'nape'" in window.message.text()


def test_what_the_finish_decides_itself_is_said(open_desk) -> None:
    window = open_desk(style([], finish=Finish(end="cut_away")))
    window.run("view.finish")
    assert "Back shoulder dart: too narrow to cut away the inside" in window.views.finish.dart_notes.text()
    assert window.views.finish.dart_notes.isVisible()


def test_steps_off_moved_and_removed(open_desk) -> None:
    window = open_desk(style([move("shoulder", "french"), move("waist", "side_bust")]))
    window.strip.choose(2)
    window.run("step.earlier")
    assert [step.dart for step in window.model.style.steps] == ["waist", "shoulder"]
    window.run("step.later")
    window.run("step.off")
    assert window.model.style.steps[1].off and stations(window) == {"french", "waist"}
    assert "switched off" in window.strip.cards[2].figures.text()
    window.run("step.remove")
    assert len(window.model.style.steps) == 1 and window.model.step is None


def test_a_broken_step_is_shown_in_place(open_desk) -> None:
    window = open_desk(style([move("waist", "french"), move("shoulder", "mid_neck"), move("side", "waist")]))
    card = window.strip.cards[3]
    assert card.property("broken") and "no dart 'side'" in card.toolTip()
    assert window.model.findings[0].check == "broken_step"
    assert stations(window) == {"french", "mid_neck"}
    window.strip.choose(3)
    assert "no dart 'side'" in window.side.reading.step_fault.text()
    assert window.side.reading.form("dart.move").dart.currentData() == "side"


def test_a_new_style_from_a_block_and_by_drop(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    window.ask.path = REAL_BLOCK
    window.run("file.new")
    assert window.model.style.block == real_block() and window.model.style.steps == ()
    path = tmp_path / "quill.zblock"
    path.write_bytes(block_file.dump(demo_style().block))
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    window.dropEvent(
        QDropEvent(QPointF(5, 5), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    )
    assert window.model.style.block == demo_style().block and window.model.style.name == "quill"


def test_broken_files_are_said_and_nothing_is_lost(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    drag(window, "waist", "mid_armhole")
    before = window.model.style
    (tmp_path / "bad.zpiv").write_text("{")
    window.ask.path = tmp_path / "bad.zpiv"
    window.run("file.open")
    assert window.model.style is before and "broken JSON" in window.message.text() and window.message.isVisible()
    window.ask.path = tmp_path / "no" / "such"
    (tmp_path / "no").write_text("a file")
    window.run("file.save_as")
    assert "cannot be written" in window.message.text() and window.model.file.is_dirty


def test_unsaved_changes_are_asked_about(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    window.run("file.demo")
    assert window.ask.asked == []
    drag(window, "waist", "mid_armhole")
    changed = window.model.style
    window.ask.keep = "cancel"
    window.run("file.demo")
    assert window.model.style is changed and window.ask.asked == ["Descant bodice"]
    assert not window.close()
    window.ask.keep, window.ask.path = "save", tmp_path / "kept.zpiv"
    window.run("file.demo")
    assert style_file.read(tmp_path / "kept.zpiv") == changed and window.model.style != changed


def test_finish_choices_reach_the_sheet(open_desk) -> None:
    window = open_desk()
    window.run("view.finish")
    view = window.views.finish
    ring = window.model.derived.pieces[0].ring
    index = view.allowance.findData("home_room")
    view.allowance.setCurrentIndex(index)
    view.allowance.activated.emit(index)
    assert window.model.style.finish.allowance == "home_room"
    assert len(window.model.derived.pieces[0].ring) and window.model.derived.pieces[0].ring[0] is not ring[0]
    field = view.own_fields["front.waist"]
    type_into(field.edit, "3/4 in")
    assert window.model.style.finish.allowances == {"front.waist": "3/4 in"}
    type_into(field.edit, "x")
    assert field.note.objectName() == "fault" and window.model.style.finish.allowances == {"front.waist": "3/4 in"}
    end = view.own_fields["end:front.french"]
    end.setCurrentIndex(end.findData("cap"))
    end.activated.emit(end.currentIndex())
    assert window.model.derived.pieces[0].darts[0].cap is not None
    type_into(view.size_edit, "14")
    assert window.model.style.finish.size == "14"
    for _ in range(5):
        window.run("edit.undo")
    assert window.model.style == demo_style()


@pytest.mark.parametrize("paper", ["A3", "Letter", "full"])
def test_papers(open_desk, tmp_path: Path, paper: str) -> None:
    window = open_desk()
    window.run("view.paper")
    window.paging.change(paper=paper)
    assert not window.views.paper.canvas.grab().isNull()
    window.ask.path = tmp_path / "x"
    window.run("export.pdf")
    pages = len(pypdf.PdfReader(tmp_path / "x.pdf").pages)
    assert pages == (1 if paper == "full" else len(window.views.paper.canvas.tiles) + 1)
    window.run("export.svg")
    assert (tmp_path / "x.svg").read_bytes().startswith(b"<?xml")
    window.ask.path = tmp_path / "all"
    window.run("export.all")
    paper = "A4" if paper == "full" else paper
    names = {path.name for path in (tmp_path / "all").iterdir()}
    assert {
        "sheet.svg", "front.svg", "back.svg", f"tiles-{paper}.pdf", "full.pdf", "report.json", "pattern.dxf", "pattern.plt",
        "cut-sheet.pdf", "stickers.pdf",
    } <= names  # fmt: skip
    assert "lay.pdf" not in names  # nothing was laid


@pytest.mark.parametrize("unit", ["mm", "in"])
def test_units(open_desk, unit: str) -> None:
    window = open_desk()
    before = window.model.pattern
    window.run(f"units.{unit}")
    assert window.model.style.units == unit and window.table.unit() == unit
    assert window.model.pattern == before
    assert f" {unit}" in window.side.reading.figures.text()
    assert not window.qt_action(f"units.{unit}").isEnabled()
    assert not window.table.grab().isNull()


def test_zoom_pan_and_fit(open_desk) -> None:
    window = open_desk()
    table = window.table
    scale = table.scale
    window.run("view.nearer")
    assert table.scale == pytest.approx(scale * 1.25)
    before = QPointF(table.origin)
    QTest.mousePress(table, Qt.MouseButton.LeftButton, pos=QPoint(60, 500))
    QTest.mouseMove(table, QPoint(110, 480))
    table.pan(10, 5)
    assert table.origin != before
    QTest.mouseRelease(table, Qt.MouseButton.LeftButton, pos=QPoint(110, 480))
    window.run("view.fit")
    assert table.scale == pytest.approx(scale)


@pytest.mark.parametrize("size", [0.03, 1.0, 12.0])
def test_the_table_looks_alike_at_every_size(open_desk, size: float) -> None:
    """A practice block at 1:30 and one of 5 m fill the table as a block of full size does."""
    value = block_file.from_value(scaled_value(size, size), "scaled")
    window = open_desk(style_file.from_block(value))
    window.table.fit()
    box = window.table.content_box()
    room = window.table.width() - RULER - 28, window.table.height() - RULER - 28
    filled = box.width() * window.table.scale / room[0], box.height() * window.table.scale / room[1]
    assert max(filled) == pytest.approx(1.0, abs=1e-6)
    drag(window, "waist", "mid_armhole")
    assert window.model.account.is_whole and not window.model.derived.derivation.broken
    for view in ("finish", "paper"):
        window.model.set_view(view)
        assert not window.canvas().grab().isNull()
    assert ("pages of A4" in window.views.paper.pages.fault.text()) == (size > 2)


def test_the_window_stands_before_its_findings_are_looked_for(qtbot) -> None:  # type: ignore[no-untyped-def]
    """What the checks say comes a moment after the first paint; the model knows it all the same when it is asked."""
    application()
    window = Window(style([move("shoulder", "french")]))
    qtbot.addWidget(window)
    assert not window.model.pace.is_checked and not window.side.reading.findings.cards
    window.show()
    qtbot.waitUntil(lambda: window.model.pace.is_checked, timeout=5_000)
    shown = [card.finding for card in window.side.reading.findings.cards]
    assert shown and sorted(shown, key=str) == sorted(window.model.findings, key=str)
    assert window.strip.cards[-1]._dot
