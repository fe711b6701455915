"""The journal of unsaved work: one file for each running program, written after every edit, found again after a crash.

A program holds a lock on its own journal while it runs; a journal whose lock is free was left behind. The lock is the
operating system's (flock): it goes with the process, however that ends.
"""

from __future__ import annotations

import fcntl
import json
import os
from datetime import UTC, datetime
from pathlib import Path as FilePath
from typing import IO, Any

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.style_file import Style

KIND = "journal"
SUFFIX = ".zjournal"


class Journal:
    """The journal of this program. Not for several threads at once."""

    def __init__(self, folder: FilePath) -> None:
        """Raises FileError when the folder cannot be made or written."""
        self._path = folder / f"{os.getpid()}-{os.urandom(4).hex()}{SUFFIX}"
        try:
            folder.mkdir(parents=True, exist_ok=True)
            self._lock: IO[bytes] | None = lock_path(self._path).open("wb")
            fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as fault:
            raise FileError(
                f"unsaved work cannot be journalled: {fault.strerror}", where=str(folder), advice="Save often."
            ) from None

    @property
    def path(self) -> FilePath:
        """The journal's file; it is there while there is unsaved work."""
        return self._path

    def write(self, style: Style, document: FilePath | None, base: str | None = None) -> None:
        """Writes the unsaved style down, whole or not at all. `base` is the stamp of the document as it was opened or saved
        last. Raises FileError when it cannot."""
        value: dict[str, Any] = {
            "format": f"zesty-pivot/{KIND}",
            "version": files.version_of(KIND),
            "document": str(document) if document is not None else None,
            "base": base,
            "written": datetime.now(UTC).isoformat(),
            "style": json.loads(style_file.dump(style)),
        }
        files.write_atomic(self._path, json.dumps(value).encode())  # ASCII: a path may hold what no character set knows

    def clear(self) -> None:
        """There is no unsaved work now."""
        self._path.unlink(missing_ok=True)

    def close(self) -> None:
        """Gives the lock up; a journal that still holds work is offered at the next start."""
        if self._lock is not None:
            lock_path(self._path).unlink(missing_ok=True)
            self._lock.close()
            self._lock = None


def lock_path(path: FilePath) -> FilePath:
    """Where the lock of a journal lies."""
    return path.with_suffix(".lock")


def is_held(path: FilePath) -> bool:
    """Whether the program that writes this journal still runs. What is no file is nobody's lock."""
    try:
        with os.fdopen(os.open(lock_path(path), os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC), "rb") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return True
    except OSError:
        return False
    return False
