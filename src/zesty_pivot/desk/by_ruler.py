"""What is done with a block by ruler: open, save, and a block made of it. Faults are said, nothing is lost."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from zesty_pivot.core.formats import files, ruled

if TYPE_CHECKING:
    from zesty_pivot.desk.ask import Asker
    from zesty_pivot.desk.model import DeskModel
    from zesty_pivot.desk.views import Views

SHEETS = f"Rulers' sheets (*{ruled.SUFFIX})"


class ByRulerHost(Protocol):
    """What this work asks of the window."""

    model: DeskModel
    ask: Asker
    views: Views


class ByRuler:
    """The work with a ruler's sheet."""

    def __init__(self, window: ByRulerHost) -> None:
        self._window, self._model = window, window.model

    def open(self) -> None:
        """Asks for a sheet."""
        path = self._window.ask.open_file("Open a ruler's sheet", SHEETS)
        if path is not None:
            self.take(path)

    def take(self, path: Path) -> None:
        """A sheet that is known, such as one that was dropped."""
        self._model.tried(lambda: self._window.views.intake.ruling.open_file(path), f"{path.name} is open.")

    def save(self) -> None:
        """The sheet as a file."""
        file = self._window.views.intake.ruling.file
        path = self._window.ask.save_file("Save the ruler's sheet", f"{file.name}{ruled.SUFFIX}", SHEETS)
        if path is not None:
            target = path if path.suffix else path.with_suffix(ruled.SUFFIX)
            self._model.tried(lambda: files.write_atomic(target, ruled.dump(file)), f"Saved {target.name}.")

    def finish(self) -> None:
        """A block of what was measured, to be looked at in the import view."""
        ruling, incoming = self._window.views.intake.ruling, self._window.views.intake.incoming
        self._model.tried(
            lambda: incoming.begin(ruling.source), "It lies on the table. Look at what is asked, then begin a style over it."
        )
