"""What the library view shows: the blocks on the rail, what is searched for, which one is chosen."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.library import KeptBlock, Library, found, uses
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.quantity import MM_PER
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.measure_view import today
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.settings import library_folder


class Rail(QObject):
    """The library of the user. Read when it is first looked at, and again after every change."""

    changed = pyqtSignal()
    chosen_changed = pyqtSignal()

    def __init__(self, model: DeskModel, keeper: Keeper) -> None:
        super().__init__()
        self._model, self._keeper = model, keeper
        self.library = Library(library_folder())
        self.asked = ""
        self._chosen = ""
        self.blocks, self.told = self.library.blocks()

    @property
    def shown(self) -> list[KeptBlock]:
        """The blocks that are asked for."""
        return found(self.blocks, self.asked, MM_PER[self._model.style.units])

    @property
    def chosen(self) -> KeptBlock | None:
        """The block that is chosen, else the first that is shown."""
        shown = self.shown
        return next((one for one in shown if one.id == self._chosen), shown[0] if shown else None)

    def choose(self, id: str) -> None:
        """One of the blocks."""
        if id != self._chosen:
            self._chosen = id
            self.chosen_changed.emit()

    def search(self, asked: str) -> None:
        """What is asked for, in words and girths."""
        if asked != self.asked:
            self.asked = asked
            self.changed.emit()

    def keep(self, block: BlockFile, origin: str) -> None:
        """Hangs a block on the rail, and chooses it. Raises FileError."""
        self._chosen = self.library.keep(block, today(), origin).id
        self.asked = ""
        self._read()

    def add_version(self, kept: KeptBlock, note: str) -> None:
        """The block of the style that is open as another version. Raises FileError."""
        self.library.add_version(kept, self._model.style.block, today(), note)
        self._read()

    def change(self, kept: KeptBlock, **facts: str) -> None:
        """Its name or notes. Raises FileError."""
        self.library.change(kept, **facts)
        self._read()

    def take_out(self, kept: KeptBlock) -> None:
        """Takes it off the rail; its file is set aside."""
        self.library.take_out(kept)
        self._read()

    def take_in(self, path: Path) -> tuple[int, int]:
        """The blocks of a whole library's file: how many came, how many were here. Raises FileError."""
        found_ = self.library.take_in(path)
        self._read()
        return found_

    def used_by(self, kept: KeptBlock) -> list[str]:
        """The names of the styles that have it under them: the one that is open, the recent ones, the demo's."""
        open_ = (f"{self._model.style.name} (open)", self._model.style.block)
        return list(dict.fromkeys(uses(kept, [open_, *self._styles])))

    @cached_property
    def _styles(self) -> list[tuple[str, BlockFile]]:
        """Recent styles and those of the demo, read once."""
        known = [(f"{style.name} (demo)", style.block) for style in demo_styles()]
        for path in self._keeper.settings.recent:
            try:
                style = style_file.read(Path(path))
            except ZestyError:
                continue
            known.append((style.name, style.block))
        return known

    def _read(self) -> None:
        self.blocks, self.told = self.library.blocks()
        self.changed.emit()
        self.chosen_changed.emit()
