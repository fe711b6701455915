"""What stands in the journal's folder at a start, whatever it is: nothing is lost, nothing older is offered as newer, and the
start does not wait."""

import json
import os
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from tests.core.formats.work_left import WORK, left_behind
from tests.samples import style
from zesty_pivot.core.formats import aside, files, style_file
from zesty_pivot.core.formats import leftovers as leftovers_module
from zesty_pivot.core.formats.leftovers import MOST, leftovers

READ = leftovers_module._read
NEWER = WORK.model_copy(update={"notes": "newer"})


def written(path: Path, **change: object) -> Path:
    """A journal's file with some of its fields changed."""
    value = json.loads(path.read_text()) | change
    path.write_text(json.dumps(value))
    return path


def saved_later(document: Path, work=NEWER, seconds: float = 5.0) -> None:  # type: ignore[no-untyped-def]
    style_file.save(work, document)
    later = datetime.now(UTC).timestamp() + seconds
    os.utime(document, (later, later))


def test_an_older_state_than_the_file_is_told_and_comes_last(tmp_path: Path) -> None:
    """A program that was killed, while another one saved the same file afterwards."""
    document, folder = tmp_path / "descant.zpiv", tmp_path / "unsaved"
    style_file.save(style([]), document)
    left_behind(folder, document)
    saved_later(document)
    left_behind(folder, None, style([]))
    first, last = leftovers(folder).offered
    assert (first.is_older, last.is_older) == (False, True) and last.style == WORK
    style_file.save(NEWER, document)
    os.utime(document, (0, 0))  # the same file of long ago: what was left is newer
    assert [left.is_older for left in leftovers(folder).offered if left.document] == [False]


def test_a_save_that_the_work_was_begun_on_makes_it_no_older(tmp_path: Path) -> None:
    """The file has the stamp that the work began with, however its clock is set."""
    document, folder = tmp_path / "descant.zpiv", tmp_path / "unsaved"
    saved_later(document, style([]), 3600.0)
    journal = left_behind(folder, document)
    written(journal.path, base=files.stamp(document))
    (left,) = leftovers(folder).offered
    assert not left.is_older


@pytest.mark.parametrize(
    "when",
    ["9999-12-31T23:59:59-23:59", "0001-01-01T00:00:00+23:59", "yesterday", "", 0, -1, 1e300, 10**400, None, [], "2026-02-30"],
)
def test_odd_dates_lose_nothing(when: object, tmp_path: Path) -> None:
    path = written(left_behind(tmp_path).path, written=when)
    (left,) = leftovers(tmp_path).offered
    assert left.path == path and left.style == WORK
    assert left.written <= datetime.now(UTC) + timedelta(seconds=1)


def test_the_newest_are_offered_and_the_others_set_aside_and_told(tmp_path: Path) -> None:
    for number in range(MOST + 5):
        journal = left_behind(tmp_path, None, WORK.model_copy(update={"notes": f"work {number}"}))
        os.utime(journal.path, (number + 1, number + 1))
        written_at = datetime.fromtimestamp(1_700_000_000 + number, UTC).isoformat()
        stamp = journal.path.stat().st_mtime_ns
        written(journal.path, written=written_at)
        os.utime(journal.path, ns=(stamp, stamp))
    found = leftovers(tmp_path)
    assert [left.style.notes for left in found.offered] == [f"work {number}" for number in reversed(range(5, MOST + 5))]
    assert "5 older ones" in found.told and "\n" not in found.told
    kept = [json.loads(path.read_text())["style"]["notes"] for path in (tmp_path / aside.FOLDER).iterdir()]
    assert sorted(kept) == [f"work {number}" for number in range(5)]
    again = leftovers(tmp_path)
    assert len(again.offered) == MOST and again.told == ""


def test_of_what_is_set_aside_the_oldest_go_at_a_later_start(tmp_path: Path) -> None:
    folder = tmp_path / aside.FOLDER
    folder.mkdir()
    for number in range(aside.KEPT + 7):
        path = folder / f"{number}.zjournal"
        path.write_text("old")
        os.utime(path, (number, number))
    leftovers(tmp_path)
    assert sorted(int(path.stem) for path in folder.iterdir()) == list(range(7, aside.KEPT + 7))


def test_five_hundred_journals_and_what_is_none(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """The start does not wait: of five hundred no more are read than are offered or turn out to be none."""
    text = left_behind(tmp_path).path.read_bytes()
    for number in range(500):
        (tmp_path / f"{number}.zjournal").write_bytes(text)
    os.mkfifo(tmp_path / "pipe.zjournal")
    (tmp_path / "folder.zjournal").mkdir()
    (tmp_path / "ring.zjournal").symlink_to(tmp_path / "ring.zjournal")
    (tmp_path / "zero.zjournal").symlink_to("/dev/zero")
    os.mkfifo(tmp_path / "1.lock")
    read: list[Path] = []
    monkeypatch.setattr(leftovers_module, "_read", lambda path: read.append(path) or READ(path))
    found = leftovers(tmp_path)
    assert len(read) <= MOST + 4
    assert len(found.offered) == MOST and "4 that could not be read" in found.told
    kept = list((tmp_path / aside.FOLDER).iterdir())
    assert len(kept) + len(found.offered) == 505  # nothing is gone in the start that tells of it
    leftovers(tmp_path)
    assert len(read) <= 2 * MOST + 4 and len(list((tmp_path / aside.FOLDER).iterdir())) == aside.KEPT


def test_a_lock_that_is_a_folder_is_in_nobodys_way(tmp_path: Path) -> None:
    """Found by torture: what was to be forgotten could not be, and nothing else was offered."""
    document = tmp_path / "saved.zpiv"
    style_file.save(WORK, document)
    journal = left_behind(tmp_path / "unsaved", document)
    lock = journal.path.with_suffix(".lock")
    lock.unlink(missing_ok=True)
    lock.mkdir()
    left_behind(tmp_path / "unsaved", None, NEWER)
    assert [left.style for left in leftovers(tmp_path / "unsaved").offered] == [NEWER]
    assert not journal.path.exists()
