"""Several files that belong together, written to a folder so that it never holds some of one pattern and some of another.

They are written to a folder of their own beside the others and then put in their places, one process at a time: first what
an earlier run wrote there goes, then the new files come. A stop in the middle of that leaves fewer files, never a mixture,
and the new ones wait whole: the next run puts them in place first.
"""

from __future__ import annotations

import fcntl
import json
import os
import shutil
import tempfile
from collections.abc import Iterator, Mapping
from contextlib import contextmanager, suppress
from dataclasses import dataclass, field
from pathlib import Path as FilePath

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files

NEW, READY = ".zesty-pivot-new", ".zesty-pivot-ready"  # being written; whole, and on their way to their places
REPORT = "report.json"


@dataclass
class _Now:
    """What this process is writing: folders that are not whole yet, whether it is putting files in their places, and the
    signal that asked it to end meanwhile."""

    unfinished: set[FilePath] = field(default_factory=set)
    is_placing: bool = False
    asked: int | None = None


_NOW = _Now()


def may_end(signal: int) -> bool:
    """Whether a process that was asked to end by a signal may do so at once: what it was writing is taken away. While files are
    put in their places it may not, and ends right after."""
    if _NOW.is_placing:
        _NOW.asked = signal
        return False
    for folder in list(_NOW.unfinished):
        shutil.rmtree(folder, ignore_errors=True)
    return True


def write_together(folder: FilePath, contents: Mapping[str, bytes]) -> list[FilePath]:
    """Writes files by name into a folder that is made when it is not there; all of them or none. The SVG files of pieces that
    an earlier report there names and that are no longer among them are taken away. Anything else in the folder is left alone.

    Raises FileError when the folder cannot be made or written.
    """
    try:
        folder.mkdir(parents=True, exist_ok=True)
        made = FilePath(tempfile.mkdtemp(prefix=f"{NEW}-{os.getpid()}-", dir=folder))
        _NOW.unfinished.add(made)
        try:
            for name, content in contents.items():
                files.write_atomic(made / name, content)
            with _alone(folder):
                _finish_earlier(folder)
                for name in contents:
                    if (folder / name).is_dir():
                        raise FileError(f"a folder called {name!r} is in the way", where=files.shown(folder), advice="Move it.")
                made.rename(folder / READY)
                _put_in_place(folder)
        finally:
            _NOW.unfinished.discard(made)
            shutil.rmtree(made, ignore_errors=True)
    except FileError:
        raise
    except OSError as fault:
        where = files.shown(folder, whole=True)
        raise FileError(
            f"the folder cannot be written: {fault.strerror}", where=where, advice="Choose another folder."
        ) from None
    except ValueError:
        raise FileError("there can be no folder of this name", where=files.shown(folder), advice="Choose another.") from None
    return [folder / name for name in contents]


@contextmanager
def _alone(folder: FilePath) -> Iterator[None]:
    """One process at a time, by a lock on the folder itself; signals that would end this one wait meanwhile."""
    handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY | os.O_CLOEXEC)
    try:
        fcntl.flock(handle, fcntl.LOCK_EX)
        _NOW.is_placing = True
        try:
            yield
        finally:
            _NOW.is_placing = False
    finally:
        os.close(handle)
    if _NOW.asked is not None:
        os._exit(128 + _NOW.asked)


def _put_in_place(folder: FilePath) -> None:
    """Puts the files that are ready in their places: the old ones go first, the report comes last. Where an earlier run was
    stopped while it did this, some are in their places already and no longer among those that are ready."""
    ready = folder / READY
    names = sorted((path.name for path in ready.iterdir() if path.is_file()), key=lambda name: (name == REPORT, name))
    if any(name.endswith(".svg") for name in names):
        for name in _pieces(folder / REPORT) - set(names):
            (folder / name).unlink(missing_ok=True)
    for name in names:
        (folder / name).unlink(missing_ok=True)
    for name in names:
        (ready / name).replace(folder / name)
    shutil.rmtree(ready, ignore_errors=True)


def _pieces(report: FilePath) -> set[str]:
    """The SVG files of pieces that a report names; none when it cannot be read."""
    try:
        rows = json.loads(files.read_bytes(report))["pieces"]
        names = {row["svg"] for row in rows}
    except (FileError, ValueError, RecursionError, LookupError, TypeError):
        return set()
    return {name for name in names if isinstance(name, str) and name.endswith(".svg") and name == FilePath(name).name}


def _finish_earlier(folder: FilePath) -> None:
    """Brings what a killed run had ready to its end, and takes away what killed runs left half-written."""
    if (folder / READY).is_dir():
        with suppress(OSError):
            _put_in_place(folder)
        shutil.rmtree(folder / READY, ignore_errors=True)
    for path in folder.glob(f"{NEW}-*"):
        owner = path.name.removeprefix(f"{NEW}-").partition("-")[0]
        if owner.isdigit() and int(owner) != os.getpid() and not FilePath(f"/proc/{owner}").exists():
            shutil.rmtree(path, ignore_errors=True)
