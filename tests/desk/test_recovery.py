"""Nothing is lost: unsaved work is offered with a picture, files that change outside are noticed, full disks are said."""

import threading
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.core.formats.work_left import WORK, left_behind
from tests.desk.driving import drag
from tests.samples import move, style
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.leftovers import leftovers
from zesty_pivot.desk.settings import journal_folder


def held(window) -> dict:  # type: ignore[no-untyped-def]
    """What this window's journal holds."""
    path = window.keeper._journal.path
    return files.read_json(path, "journal") if path.exists() else {}


def test_an_edit_is_written_down_and_does_not_wait_for_the_disk(open_desk, monkeypatch: pytest.MonkeyPatch) -> None:
    """A disk that does not answer holds up the writer's thread, not the drag. That it takes less than a second is seen by
    the kills of test_killed."""
    window = open_desk()
    assert held(window) == {}
    gate, write = threading.Event(), files.write_atomic

    def slow(path: Path, content: bytes) -> None:
        gate.wait(30.0)
        write(path, content)

    monkeypatch.setattr(files, "write_atomic", slow)
    drag(window, "waist", "side_bust")
    assert len(window.model.style.steps) == 2 and held(window) == {}
    gate.set()
    assert window.keeper.writer.flush()
    assert len(held(window)["style"]["steps"]) == 2 and held(window)["document"] is None
    window.run("edit.undo")
    window.keeper.writer.flush()
    assert held(window) == {}  # nothing is unsaved now


def test_saving_clears_the_journal(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    drag(window, "waist", "side_bust")
    window.ask.path = tmp_path / "mine.zpiv"
    window.run("file.save")
    window.keeper.writer.flush()
    assert held(window) == {} and window.model.file.path == tmp_path / "mine.zpiv"
    drag(window, "waist", "mid_armhole")
    window.keeper.writer.flush()
    assert held(window)["document"] == str(tmp_path / "mine.zpiv")


def test_it_comes_back_at_the_next_start(open_desk, tmp_path: Path) -> None:
    document = tmp_path / "descant.zpiv"
    style_file.save(style([]), document)
    left_behind(journal_folder(), document)
    window = open_desk()
    window.begin(with_start_page=False)
    assert window.model.view == "start"
    (card,) = window.views.start_page.leftovers
    QTest.qWait(20)
    assert card.isVisible() and not card.picture.pixmap().isNull()
    QTest.mouseClick(card.back, Qt.MouseButton.LeftButton)
    assert window.model.style == WORK and window.model.file.path == document and window.model.file.is_dirty
    assert window.model.view == "style" and window.views.start_page.leftovers == []
    window.keeper.writer.flush()
    assert leftovers(journal_folder()).offered == () and held(window)["style"]["steps"]
    window.run("file.save")
    assert style_file.read(document) == WORK


def test_it_can_be_let_go(open_desk) -> None:
    left_behind(journal_folder())
    window = open_desk()
    window.begin(with_start_page=False)
    (card,) = window.views.start_page.leftovers
    QTest.mouseClick(card.aside, Qt.MouseButton.LeftButton)
    window.keeper.writer.flush()
    assert leftovers(journal_folder()).offered == () and window.views.start_page.leftovers == []


def test_closing_leaves_nothing_behind(open_desk) -> None:
    window = open_desk()
    drag(window, "waist", "side_bust")
    window.ask.keep = "discard"
    window.close()
    assert leftovers(journal_folder()).offered == () and list(journal_folder().iterdir()) == []


def test_a_file_changed_outside_is_noticed(open_desk, tmp_path: Path) -> None:
    document = tmp_path / "shared.zpiv"
    style_file.save(style([]), document)
    window = open_desk()
    window.docs.open_path(document)
    window.docs.look_at_disk()
    assert window.notice.isHidden()
    theirs = style([move("shoulder", "french")])
    style_file.save(theirs, document)
    window.docs.look_at_disk()
    assert window.notice.isVisible() and "shared.zpiv" in window.notice.words.text()
    QTest.mouseClick(window.notice.buttons[0], Qt.MouseButton.LeftButton)
    assert window.model.style == theirs and not window.model.file.is_dirty and window.notice.isHidden()


def test_mine_can_be_kept_and_saved_over_theirs(open_desk, tmp_path: Path) -> None:
    document = tmp_path / "shared.zpiv"
    style_file.save(style([]), document)
    window = open_desk()
    window.docs.open_path(document)
    mine = window.model.style.model_copy(update={"notes": "mine"})
    window.model.edit(mine, "note")
    style_file.save(style([move("shoulder", "french")]), document)
    for answer, saved in (("cancel", False), ("over", True)):
        window.ask.over = answer
        assert window.docs.save() is saved
    assert style_file.read(document) == mine and "changed shared.zpiv" in window.ask.asked
    style_file.save(style([]), document)
    window.docs.look_at_disk()
    QTest.mouseClick(window.notice.buttons[1], Qt.MouseButton.LeftButton)
    assert window.model.file.is_dirty and window.model.style == mine
    window.docs.look_at_disk()
    assert window.notice.isHidden()


def test_a_file_that_is_gone_is_told(open_desk, tmp_path: Path) -> None:
    document = tmp_path / "gone.zpiv"
    style_file.save(style([]), document)
    window = open_desk()
    window.docs.open_path(document)
    document.unlink()
    window.docs.look_at_disk()
    assert "no longer there" in window.notice.words.text()
    QTest.mouseClick(window.notice.buttons[0], Qt.MouseButton.LeftButton)
    assert document.exists()


def test_a_full_disk_keeps_the_work_open(open_desk, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    window = open_desk()
    drag(window, "waist", "side_bust")
    window.keeper.writer.flush()
    dragged = window.model.style

    def full(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(files.os, "fsync", full)
    window.ask.path = tmp_path / "mine.zpiv"
    window.run("file.save")
    assert "No space left on device" in window.message.text() and window.message.property("fault")
    assert window.model.style == dragged and window.model.file.is_dirty and not (tmp_path / "mine.zpiv").exists()
    said = window.message.text()
    drag(window, "waist", "mid_armhole")
    window.keeper.writer.flush()
    QTest.qWait(20)
    assert "No space left" in window.message.text() and said  # the journal cannot be written either, and that is said
    monkeypatch.undo()


def test_the_version_before_is_kept(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    window.ask.path = tmp_path / "mine.zpiv"
    window.run("file.save")
    first = (tmp_path / "mine.zpiv").read_bytes()
    drag(window, "waist", "side_bust")
    window.run("file.save")
    assert (tmp_path / "mine.zpiv~").read_bytes() == first != (tmp_path / "mine.zpiv").read_bytes()


def test_dialogs_begin_in_the_folder_used_last(open_desk, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    from PyQt6.QtWidgets import QFileDialog

    from zesty_pivot.desk.ask import Asker

    window = open_desk()
    begun: list[str] = []

    def chosen(_parent, _title, start, _kinds) -> tuple[str, str]:  # type: ignore[no-untyped-def]
        begun.append(start)
        return str(tmp_path / "there" / "x.zpiv"), ""

    monkeypatch.setattr(QFileDialog, "getSaveFileName", chosen)
    (tmp_path / "there").mkdir()
    window.ask = Asker(window, window.keeper.settings.begin_folder, window._used_folder)
    window.run("file.save_as")
    assert (tmp_path / "there" / "x.zpiv").exists()
    assert window.keeper.settings.begin_folder() == tmp_path / "there"
    window.keeper.change(lambda settings: settings.model_copy(update={"folder": "/no/such/folder"}))
    assert window.keeper.settings.begin_folder().is_dir()
    window.ask.keep_changes = lambda _name: "discard"


def test_a_saved_pdf_is_offered_to_be_opened(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    window.run("view.paper")
    assert "3 findings stand open" in window.views.paper.pages.open_findings.text()
    window.ask.path = tmp_path / "sheet.pdf"
    window.run("export.pdf")
    assert "print it at 100 %" in window.notice.words.text()
    QTest.mouseClick(window.notice.buttons[0], Qt.MouseButton.LeftButton)
    assert window.ask.shown == [tmp_path / "sheet.pdf"] and window.notice.isHidden()


def test_a_journal_that_cannot_be_written_is_told_and_the_work_goes_on(open_desk, tmp_path: Path) -> None:
    (tmp_path / "xdg-state").write_text("a file where the folder should be")
    window = open_desk()
    assert "cannot be journalled" in window.message.text() and window.message.property("fault")
    drag(window, "waist", "side_bust")
    assert len(window.model.style.steps) == 2
    window.begin(with_start_page=False)
    assert window.model.view == "style"


def test_what_is_open_is_not_lost_by_bringing_something_back(open_desk) -> None:
    left_behind(journal_folder())
    window = open_desk()
    window.begin(with_start_page=False)
    window.model.edit(window.model.style.model_copy(update={"notes": "mine"}), "note")
    mine = window.model.style
    window.run("file.start")
    (card,) = window.views.start_page.leftovers
    window.ask.keep = "cancel"
    QTest.mouseClick(card.back, Qt.MouseButton.LeftButton)
    assert window.model.style is mine and window.views.start_page.leftovers == [card]
    window.ask.keep = "discard"
    QTest.mouseClick(card.back, Qt.MouseButton.LeftButton)
    assert window.model.style == WORK and window.views.start_page.leftovers == []


def test_work_with_a_formula_that_cannot_be_answered_comes_back(open_desk) -> None:
    """A finish with a measurement that this block does not have: it is a finding, and no reason to lose the rest."""
    odd = WORK.with_finish({"cut_away": "wrist/2"})
    left_behind(journal_folder(), None, odd)
    window = open_desk()
    window.begin(with_start_page=False)
    (card,) = window.views.start_page.leftovers
    QTest.mouseClick(card.back, Qt.MouseButton.LeftButton)
    window.keeper.writer.flush()
    assert window.model.style == odd and window.model.file.is_dirty
    assert any("wrist" in finding.message for finding in window.model.findings)
