"""Folders of settings and journals as nobody should find them: what a start meets there is read, or set aside and told of; it
begins at once, and nothing is lost."""

from __future__ import annotations

import json
import os
import random
import shutil
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from tests.torture.desks import window_on
from tests.torture.mangled import mangled_bytes, mangled_value
from tests.torture.recipes import Caught
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.faults import LOGGER
from zesty_pivot.core.formats import aside, files, style_file
from zesty_pivot.core.formats.journal import SUFFIX
from zesty_pivot.core.formats.leftovers import MOST, leftovers
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.desk import settings

WITHIN = 2.0  # seconds of the processor from the first look to what is offered, whatever else the machine does
MANY = 40  # a folder with more than anybody has; five hundred are a test of their own

DATES = (
    "2026-11-28T10:00:00+00:00", "2026-11-28", "9999-12-31T23:59:59-23:59", "0001-01-01T00:00:00+23:59", "yesterday", "", 0,
    -1, 1e300, 10**400, None, [], "2026-02-30", "1970-01-01T00:00:00", "+999999-01-01", "\x00",
)  # fmt: skip


@contextmanager
def homes(folder: Path) -> Iterator[None]:
    """The folders of settings, state and data of this process, in one of its own for a while."""
    names = [f"XDG_{name}_HOME" for name in ("CONFIG", "STATE", "DATA", "CACHE")]
    before = {name: os.environ.get(name) for name in names}
    os.environ.update({name: str(folder / name.lower()) for name in names})
    try:
        yield
    finally:
        for name, value in before.items():
            os.environ.pop(name, None)
            if value is not None:
                os.environ[name] = value


def _documents(chance: random.Random, folder: Path) -> object:
    """What a journal may name as the file its work belongs to."""
    saved, pipe = folder / "saved.zpiv", folder / "pipe.zpiv"
    if not saved.exists():
        style_file.save(demo_styles()[0], saved)
        os.mkfifo(pipe)
        os.utime(saved, (0, chance.choice([0, 4_000_000_000])))
    return chance.choice([None, str(saved), str(pipe), str(folder), "/dev/zero", "a\x00b", "x" * 5000, "", 3, [], "/no/where"])


def _journal(chance: random.Random, folder: Path) -> bytes:
    """A journal that is sound but for its date and its document."""
    value = {
        "format": "zesty-pivot/journal", "version": 1, "document": _documents(chance, folder),
        "base": chance.choice([None, "x", 0, {}]), "written": chance.choice(DATES),
        "style": json.loads(style_file.dump(chance.choice(demo_styles()))),
    }  # fmt: skip
    return json.dumps(value).encode()


def _settings(chance: random.Random) -> bytes:
    value = settings.Settings().model_dump(mode="json") | {
        "theme": chance.choice(["system", "light", "dark"]), "scale": chance.choice([100, 150]),
        "has_started": chance.random() < 0.8, "window": chance.choice(["", "zz", "00" * 40]),
        "folder": chance.choice(["", "", "/no/where", "~nobody", "a\x00b"]),
        "recent": chance.sample(["/no/where.zpiv", "/dev/zero", "", "~", "/tmp", chance.choice(["x", "a\x00b"])], 3),
        "practise": {"whole": [chance.choice([3, 10**30]), 2]},
    }  # fmt: skip
    return json.dumps(value).encode()


def _put(chance: random.Random, path: Path, sound: bytes) -> None:
    """Something at a path: most often a mangled file, now and then what is no file at all."""
    path.parent.mkdir(parents=True, exist_ok=True)
    ways: list[tuple[int, Callable[[], object]]] = [
        (4, lambda: path.write_bytes(sound)),
        (5, lambda: path.write_bytes(mangled_value(chance, sound) if sound[:1] == b"{" else sound)),
        (4, lambda: path.write_bytes(mangled_bytes(chance, sound))),
        (1, lambda: path.write_bytes(chance.randbytes(chance.choice([0, 1, 100, 70_000])))),
        (1, lambda: _sparse(path)),
        (1, lambda: path.mkdir()),
        (1, lambda: os.mkfifo(path)),
        (1, lambda: path.symlink_to(path)),
        (1, lambda: path.symlink_to(chance.choice(["/dev/zero", "/dev/tty", "/no/where", "."]))),
    ]
    (way,) = chance.choices([way for _w, way in ways], [weight for weight, _way in ways])
    way()
    if chance.random() < 0.2 and path.exists():
        os.utime(path, (0, chance.choice([-(2**31), 0, 2**33])), follow_symlinks=False)


def _sparse(path: Path) -> None:
    """A file that is large and holds nothing."""
    with path.open("wb") as file:
        file.truncate(10 * 2**30)


def littered(seed: int, folder: Path) -> None:
    """Fills the folders that the program reads at its start; the same for the same seed."""
    chance = random.Random(seed)
    if chance.random() < 0.9:
        _put(chance, settings.settings_file(), _settings(chance))
    unsaved = settings.journal_folder()
    for number in range(chance.choice([0, 1, 3, 6, MANY])):
        path = unsaved / f"{chance.choice(['7', '4194999', 'x y', 'é'])}-{number}{SUFFIX}"
        _put(chance, path, _journal(chance, folder))
        if chance.random() < 0.3:
            _put(chance, path.with_suffix(".lock"), b"")
    for name in ("4194999.crash", "x.crash", "-1.crash"):
        if chance.random() < 0.3:
            _put(chance, settings.crash_folder() / name, b'File "/home/somebody/zesty_pivot/x.py", line 1')
    if chance.random() < 0.2:
        _put(chance, settings.fault_log(), b"2026-11-28 a line\n" * 9000)
    if chance.random() < 0.1:  # what should be a folder is none
        place = chance.choice([unsaved / aside.FOLDER, unsaved, settings.settings_file().parent / aside.FOLDER])
        if not place.exists():
            _put(chance, place, b"")


def _kept(folder: Path) -> dict[int, Path]:
    """Which files, pipes and links there are in the folders, by what stays the same wherever they are moved to."""
    return {path.lstat().st_ino: path for path in folder.rglob("*") if path.suffix in (SUFFIX, ".json")}


def _on_disk(paths: list[Path], saved: Path) -> set[int]:
    """The journals that hold what is saved as their document."""
    found = set()
    for path in paths:
        with suppress(ValueError, ZestyError, KeyError, TypeError, RecursionError):
            value = json.loads(files.read_bytes(path))
            if value["document"] == str(saved) and style_file.from_value(value["style"], "") == style_file.read(saved):
                found.add(path.lstat().st_ino)
    return found


def tried(seed: int, folder: Path, *, window: bool = False) -> str | None:
    """What is wrong with how one start meets its folders; None when nothing is."""
    home = folder / f"home-{seed}"
    home.mkdir()
    caught = Caught()
    LOGGER.addHandler(caught)
    try:
        with homes(home):
            littered(seed, home)
            said = _started(home, window=window)
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        said = f"raised {type(fault).__name__}: {fault}"
    finally:
        LOGGER.removeHandler(caught)
        shutil.rmtree(home, ignore_errors=True)
    return f"start {seed}: {caught.said[0]}" if caught.said else f"start {seed}: {said}" if said else None


def _started(home: Path, *, window: bool) -> str | None:
    before, saved = _kept(home), home / "saved.zpiv"
    may_go = _on_disk(list(before.values()), saved)
    begun = time.process_time()
    found, told = settings.load_or_set_aside()
    left = leftovers(settings.journal_folder())
    if time.process_time() - begun > WITHIN:
        return f"the start took {time.process_time() - begun:.1f} s"
    missing = set(before) - set(_kept(home)) - may_go
    if missing:
        return f"{sorted(before[inode].name for inode in missing)} are gone"
    if len(left.offered) > MOST or any("\n" in text for text in (told, left.told)):
        return "too many are offered, or told of in more than a line"
    if any(one.document == saved and one.style == style_file.read(saved) for one in left.offered):
        return "what is saved is offered as unsaved"
    with_trouble = settings.load_or_set_aside()
    if with_trouble[0] != found:
        return "the settings are others when they are read again"
    try:
        settings.save(found.model_copy(update={"scale": 125}))
    except ZestyError as fault:
        if "\n" in str(fault):
            return f"the settings cannot be saved: {fault!r}"
    return _window() if window else None


def _window() -> str | None:
    """The window opens, shows its page, is edited and closed."""
    begun = time.process_time()
    window = window_on(demo_styles()[0])
    try:
        window.begin(with_start_page=True)
        took = time.process_time() - begun
        for row in window.views.start_page.leftovers[:1]:
            row.back.click()
        window.model.set_view("style")
        window.model.edit(window.model.style.model_copy(update={"notes": "a note"}), "note")
        if window.model.style.notes != "a note":
            return "an edit was not taken"
    finally:
        window.ask.keep = "discard"  # type: ignore[attr-defined]
        window.close()
        window.deleteLater()
    return f"the window took {took:.1f} s" if took > 2 * WITHIN else None
