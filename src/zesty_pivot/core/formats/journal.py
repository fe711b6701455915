"""The journal of unsaved work: one file for each running program, written after every edit, found again after a crash.

A program holds a lock on its own journal while it runs; a journal whose lock is free was left behind. The lock is the
operating system's (flock): it goes with the process, however that ends.
"""

from __future__ import annotations

import fcntl
import json
import os
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path as FilePath
from typing import IO, Any

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.style_file import Style

KIND = "journal"
SUFFIX = ".zjournal"


@dataclass(frozen=True)
class Leftover:
    """Unsaved work that a program left behind: the style, the file it belongs to if it had one, and when it was written
    down (UTC)."""

    path: FilePath
    style: Style
    document: FilePath | None
    written: datetime


class Journal:
    """The journal of this program. Not for several threads at once."""

    def __init__(self, folder: FilePath) -> None:
        """Raises FileError when the folder cannot be made or written."""
        self._path = folder / f"{os.getpid()}-{os.urandom(4).hex()}{SUFFIX}"
        try:
            folder.mkdir(parents=True, exist_ok=True)
            self._lock: IO[bytes] | None = _lock_path(self._path).open("wb")
            fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as fault:
            raise FileError(
                f"unsaved work cannot be journalled: {fault.strerror}", where=str(folder), advice="Save often."
            ) from None

    @property
    def path(self) -> FilePath:
        """The journal's file; it is there while there is unsaved work."""
        return self._path

    def write(self, style: Style, document: FilePath | None) -> None:
        """Writes the unsaved style down, whole or not at all. Raises FileError when it cannot."""
        value: dict[str, Any] = {
            "format": f"zesty-pivot/{KIND}",
            "version": files.VERSION,
            "document": str(document) if document is not None else None,
            "written": datetime.now(UTC).isoformat(),
            "style": json.loads(style_file.dump(style)),
        }
        files.write_atomic(self._path, json.dumps(value, ensure_ascii=False).encode())

    def clear(self) -> None:
        """There is no unsaved work now."""
        self._path.unlink(missing_ok=True)

    def close(self) -> None:
        """Gives the lock up; a journal that still holds work is offered at the next start."""
        if self._lock is not None:
            _lock_path(self._path).unlink(missing_ok=True)
            self._lock.close()
            self._lock = None


def leftovers(folder: FilePath) -> tuple[Leftover, ...]:
    """What programs that no longer run left unsaved, the newest first.

    Work that is on disk by now as its document is no leftover and its journal goes. A journal that cannot be read is set
    aside under the suffix `.broken`, so that nothing is thrown away and nothing is offered twice.
    """
    found: list[Leftover] = []
    for path in sorted(folder.glob(f"*{SUFFIX}")) if folder.is_dir() else ():
        if _is_held(path):
            continue
        try:
            left = _read(path)
        except ZestyError:
            path.replace(path.with_name(path.name + ".broken"))
            continue
        if _is_saved(left):
            forget(left)
        else:
            found.append(left)
    _sweep(folder)
    found.sort(key=lambda left: left.written, reverse=True)
    return tuple(found)


def forget(left: Leftover) -> None:
    """Takes a leftover's journal away: its work has been brought back, or is not wanted."""
    left.path.unlink(missing_ok=True)
    _lock_path(left.path).unlink(missing_ok=True)


def _lock_path(path: FilePath) -> FilePath:
    return path.with_suffix(".lock")


def _is_held(path: FilePath) -> bool:
    """Whether the program that writes this journal still runs."""
    try:
        with _lock_path(path).open("rb") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except FileNotFoundError:
        return False
    except OSError:
        return True
    return False


def _read(path: FilePath) -> Leftover:
    value = files.read_json(path, KIND)
    document, written, style = value.get("document"), value.get("written"), value.get("style")
    try:
        when = datetime.fromisoformat(str(written))
    except ValueError:
        raise FileError("the journal has no time", where=path.name) from None
    if not isinstance(style, dict):
        raise FileError("the journal holds no style", where=path.name)
    read = style_file.from_value(style, path.name)
    return Leftover(path, read, FilePath(document) if isinstance(document, str) else None, when)


def _is_saved(left: Leftover) -> bool:
    if left.document is None:
        return False
    try:
        return style_file.read(left.document) == left.style
    except ZestyError:
        return False


def _sweep(folder: FilePath) -> None:
    """Takes away locks without journals and half-written files that a kill left in the journal's folder."""
    for lock in folder.glob("*.lock") if folder.is_dir() else ():
        path = lock.with_suffix(SUFFIX)
        if not path.exists() and not _is_held(path):
            with suppress(OSError):
                lock.unlink()
    files.sweep(folder, f"*{SUFFIX}")
