"""Work that is not a style, kept while it is done: a ruler's sheet, a trace. It is there again at the next start. No Qt."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files
from zesty_pivot.desk.settings import intake_folder

Put = Callable[[str, Callable[[], None]], None]


class KeptWork:
    """One file of the user's state folder, written by the writer's thread."""

    def __init__(self, name: str, put: Put) -> None:
        """`put` hands a job to the writer, by a key."""
        self._path = intake_folder() / name
        self._key, self._put = f"kept {name}", put

    def read(self) -> bytes:
        """What was kept; nothing where there is none, or it cannot be read."""
        try:
            return files.read_bytes(self._path, files.MAX_BYTES) if self._path.exists() else b""
        except FileError:
            return b""

    def write(self, content: bytes) -> None:
        """Keeps this from now on."""
        self._put(self._key, lambda: files.write_atomic(self._path, content))
