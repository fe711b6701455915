"""Files that belong together: all of one pattern or all of another, whatever stops the writing; names that never clash."""

import json
import os
from pathlib import Path

import pytest

from tests.samples import style
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import folder
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.file_names import svg_names
from zesty_pivot.core.formats.folder import READY, write_together
from zesty_pivot.core.formats.report import dump, report


class Stop(BaseException):
    """Stands for a process that ends in the middle."""


def contents(who: str, *pieces: str) -> dict[str, bytes]:
    report = json.dumps({"who": who, "pieces": [{"svg": f"{piece}.svg"} for piece in pieces]})
    return {
        "sheet.svg": who.encode(), **{f"{piece}.svg": who.encode() for piece in pieces}, "full.pdf": who.encode(),
        "report.json": report.encode(),
    }  # fmt: skip


def who_is_there(place: Path) -> set[str]:
    """Whose files are in their places now."""
    found = set()
    for path in place.iterdir():
        if path.is_file() and not path.name.startswith("."):
            text = path.read_text()
            found.add(json.loads(text)["who"] if path.suffix == ".json" else text)
    return found


def test_a_folder_holds_one_pattern(tmp_path: Path) -> None:
    (tmp_path / "notes.svg").write_text("mine")
    write_together(tmp_path, contents("old", "front", "back"))
    written = write_together(tmp_path, contents("new", "front_centre", "front_side", "back"))
    assert {path.name for path in written} == set(contents("new", "front_centre", "front_side", "back"))
    # The piece that is gone went with its report; what is not ours stays.
    assert {path.name for path in tmp_path.iterdir()} == {*(path.name for path in written), "notes.svg"}
    assert who_is_there(tmp_path) == {"new", "mine"}


@pytest.mark.parametrize("first", [True, False])
def test_a_stop_at_any_moment_never_mixes(first: bool, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Each file operation in turn is the last one: what is in place then is all old or all new, and the next run is whole."""
    operations = 0
    for last in range(200):
        place = tmp_path / str(last)
        if not first:
            write_together(place, contents("old", "front", "back", "yoke"))
        done = 0

        def counted(real):  # type: ignore[no-untyped-def]
            def call(*args, **more):  # type: ignore[no-untyped-def]
                nonlocal done
                if done == last:  # noqa: B023
                    raise Stop
                done += 1
                return real(*args, **more)

            return call

        with monkeypatch.context() as stopped:
            for name in ("unlink", "replace", "rename", "mkdir"):
                stopped.setattr(Path, name, counted(getattr(Path, name)))
            stopped.setattr(folder.shutil, "rmtree", lambda *_args, **_more: None)  # a process that is gone tidies nothing up
            try:
                write_together(place, contents("new", "front", "back"))
            except Stop:
                operations += 1
                folder._NOW.unfinished.clear()
            else:
                break
        if place.exists():
            assert who_is_there(place) in (set(), {"old"}, {"new"}), last
        write_together(place, contents("later", "front", "side"))
        assert who_is_there(place) == {"later"}
        assert {path.name for path in place.iterdir() if not path.name.startswith(".")} == set(contents("", "front", "side"))
        assert not (place / READY).exists()
    assert operations > 15


def test_what_is_ready_is_put_in_place_first(tmp_path: Path) -> None:
    ready = tmp_path / READY
    ready.mkdir()
    for name, content in contents("ready", "front").items():
        (ready / name).write_bytes(content)
    (tmp_path / f"{folder.NEW}-4194999-x").mkdir()
    write_together(tmp_path, {"extra.json": b'{"who": "x"}'})
    assert who_is_there(tmp_path) == {"ready", "x"}
    assert not [path for path in tmp_path.iterdir() if path.name.startswith(".")]


def test_a_folder_that_cannot_be_written_is_told(tmp_path: Path) -> None:
    (tmp_path / "front.svg").mkdir()
    with pytest.raises(FileError, match=r"a folder called 'front.svg' is in the way"):
        write_together(tmp_path, contents("new", "front"))
    assert {path.name for path in tmp_path.iterdir()} == {"front.svg"}
    with pytest.raises(FileError, match="no folder of this name"):
        write_together(tmp_path / "a\0b", {"x.svg": b""})
    (tmp_path / "file").write_text("x")
    with pytest.raises(FileError, match="cannot be written"):
        write_together(tmp_path / "file", {"x.svg": b""})


def test_a_process_may_end_but_for_the_moment_of_placing(tmp_path: Path) -> None:
    made = tmp_path / "half"
    made.mkdir()
    folder._NOW.unfinished.add(made)
    folder._NOW.is_placing = True
    try:
        assert not folder.may_end(2) and made.exists() and folder._NOW.asked == 2
        folder._NOW.is_placing, folder._NOW.asked = False, None
        assert folder.may_end(2) and not made.exists()
    finally:
        folder._NOW.unfinished.clear()
        folder._NOW.is_placing, folder._NOW.asked = False, None


def test_no_two_pieces_share_a_file() -> None:
    names = [
        "front",
        "back",
        "前",
        "後",
        "a b",
        "a-b",
        "a  b",
        "sheet",
        "Front",
        "é",
        "e\u0301",
        "...",
        "../up",
        "x" * 300,
        "CON",
    ]
    found = svg_names(names)
    assert found["front"] == "front.svg" and found["back"] == "back.svg" and found["前"] == "前.svg" and found["後"] == "後.svg"
    assert found["a-b"] == "a-b.svg" and found["a b"] == "a-b-2.svg" and found["sheet"] == "sheet-2.svg"
    assert len({name.casefold() for name in found.values()}) == len(names)
    assert all(os.sep not in name and not name.startswith(".") and len(name.encode()) < 255 for name in found.values())
    # Stable: another piece more changes no name that was plain.
    assert {name: found[name] for name in ("front", "前", "a-b")} == {
        name: svg_names([*names, "new piece"])[name] for name in ("front", "前", "a-b")
    }


def test_the_report_says_what_each_step_moved() -> None:
    derived = derive(style([{"do": "piece.true_seam", "on": "front", "other": "back", "seam": "side_seam", "edge": "armhole"}]))
    (row,) = json.loads(dump(report(derived)))["told"]
    assert row["step"] == 1 and row["piece"] == "front" and "the armhole moved by up to" in row["text"]
    assert 0.5 < row["amount_mm"] < 3.0
