"""The journal of unsaved work: held while its program runs, found when it does not, never a half-written one."""

import json
import os
from pathlib import Path

import pytest

from tests.core.formats.work_left import WORK, left_behind
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.journal import Journal
from zesty_pivot.core.formats.leftovers import forget, leftovers


def test_work_comes_back_whole(tmp_path: Path) -> None:
    left_behind(tmp_path, tmp_path / "descant.zpiv")
    (found,) = leftovers(tmp_path).offered
    assert found.style == WORK and found.document == tmp_path / "descant.zpiv"
    assert leftovers(tmp_path).offered == (found,)  # looking takes nothing away
    forget(found)
    assert leftovers(tmp_path).offered == () and list(tmp_path.iterdir()) == []


def test_a_running_program_keeps_its_journal(tmp_path: Path) -> None:
    journal = Journal(tmp_path)
    journal.write(WORK, None)
    assert leftovers(tmp_path).offered == () and journal.path.exists()
    journal.clear()
    assert not journal.path.exists()
    journal.close()
    assert leftovers(tmp_path).offered == () and list(tmp_path.iterdir()) == []


def test_what_was_saved_is_no_leftover(tmp_path: Path) -> None:
    document = tmp_path / "saved.zpiv"
    style_file.save(WORK, document)
    left_behind(tmp_path / "unsaved", document)
    assert leftovers(tmp_path / "unsaved").offered == ()
    left_behind(tmp_path / "unsaved", document, WORK.model_copy(update={"notes": "later"}))
    assert len(leftovers(tmp_path / "unsaved").offered) == 1


def test_the_newest_comes_first(tmp_path: Path) -> None:
    for notes in ("first", "second", "third"):
        left_behind(tmp_path, None, WORK.model_copy(update={"notes": notes}))
    assert [left.style.notes for left in leftovers(tmp_path).offered] == ["third", "second", "first"]


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"{",
        b"\xff\xfe",
        b'{"format": "zesty-pivot/journal", "version": 1}',
        b'{"format": "zesty-pivot/style"}',
    ],
)
def test_a_broken_journal_is_set_aside(tmp_path: Path, content: bytes) -> None:
    (tmp_path / "1-ab.zjournal").write_bytes(content)
    left_behind(tmp_path)
    assert len(leftovers(tmp_path).offered) == 1
    assert (tmp_path / "set-aside" / "1-ab.zjournal").read_bytes() == content


def test_half_written_files_are_swept_away(tmp_path: Path) -> None:
    gone = tmp_path / f".1-ab.zjournal.4194999.x{files.PARTIAL}"
    mine = tmp_path / f".2-cd.zjournal.{os.getpid()}.y{files.PARTIAL}"
    for path in (gone, mine):
        path.write_bytes(b"half")
    assert leftovers(tmp_path).offered == ()
    assert not gone.exists() and mine.exists()


def test_a_folder_that_cannot_be_written_is_told(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("in the way")
    with pytest.raises(FileError, match="cannot be journalled"):
        Journal(tmp_path / "file" / "unsaved")


def test_the_file_is_readable_json(tmp_path: Path) -> None:
    journal = left_behind(tmp_path)
    value = json.loads(journal.path.read_text())
    assert value["format"] == "zesty-pivot/journal" and value["style"]["steps"][0]["dart"] == "shoulder"
    assert leftovers(tmp_path / "nowhere").offered == ()


def test_a_full_disk_says_what_to_do(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(files.os, "fsync", full)
    with pytest.raises(FileError, match=r"No space left on device.*Free some space"):
        files.write_atomic(tmp_path / "style.zpiv", b"x")
    assert list(tmp_path.iterdir()) == []
