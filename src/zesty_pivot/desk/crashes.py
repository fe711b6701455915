"""Programs that stopped in the middle: each leaves a file with what Python was doing, and the next start offers it. No Qt here.

A crash below Python (a fault of a library) ends the process without any exception; `faulthandler` still writes where it was.
"""

from __future__ import annotations

import faulthandler
import os
import re
from contextlib import suppress
from pathlib import Path
from typing import IO

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files

SUFFIX = ".crash"
_MOST = 64 * 1024  # bytes read of a crash; a stack of every thread has a few thousand

# The folders of this machine before the program's own, and before libraries.
_FOLDERS = re.compile(r'File "[^"]*?((?:zesty_pivot|site-packages|lib/python[^/"]*)/[^"]*)"')


class CrashFile:
    """The file of this process: empty while all is well, gone after an orderly end."""

    def __init__(self, folder: Path) -> None:
        """Where no file can be written the program runs without one."""
        self._path = folder / f"{os.getpid()}{SUFFIX}"
        self._file: IO[bytes] | None = None
        with suppress(OSError, ValueError):
            folder.mkdir(parents=True, exist_ok=True)
            self._file = self._path.open("wb")
            faulthandler.enable(self._file)

    def close(self) -> None:
        """All went well."""
        if self._file is not None:
            faulthandler.disable()
            self._file.close()
            self._file = None
            with suppress(OSError):
                self._path.unlink()


def crashes(folder: Path) -> str:
    """What programs that no longer run left of their crashes, without the folders of this machine; their files go."""
    found: list[str] = []
    with suppress(OSError):
        for path in sorted(folder.glob(f"*{SUFFIX}")):
            if not path.stem.isdigit() or Path(f"/proc/{path.stem}").exists():
                continue
            with suppress(FileError):
                found.append(files.read_bytes(path, _MOST).decode("utf-8", "replace"))
            with suppress(OSError):
                path.unlink()
    return "\n".join(_FOLDERS.sub(r'File "\1"', text) for text in found if text.strip())
