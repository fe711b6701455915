"""What a reader of files is: one file beside this one that defines `READER`. The library that it calls is loaded when it
reads."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.record import record


@record
class Reader:
    """A kind of file: its name for people, the endings of its files, and what tells it from its content.

    `is_one` looks at a file's first few thousand bytes; `read` gives what the file draws, and raises FileError.
    """

    id: str
    title: str
    endings: tuple[str, ...]
    is_one: Callable[[bytes], bool]
    read: Callable[[bytes], Drawing]
    order: int = 9

    @property
    def kind(self) -> str:
        """The files of this kind as a file dialog names them: `SVG (*.svg)`."""
        return f"{self.title} ({' '.join(f'*{ending}' for ending in self.endings)})"
