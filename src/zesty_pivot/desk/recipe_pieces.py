"""Steps copied from style to style, and kept under a name to be put into any."""

from __future__ import annotations

from pathlib import Path

from pydantic import ValidationError
from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QGuiApplication

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import files, recipe_file
from zesty_pivot.core.formats.file_names import plain_names
from zesty_pivot.core.formats.recipe_file import SUFFIX, RecipePiece
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.settings import recipes_folder


class RecipePieces(QObject):
    """The user's own pieces, and the clipboard."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self._known: dict[Path, RecipePiece] | None = None

    @property
    def all(self) -> dict[Path, RecipePiece]:
        """The pieces that were kept, by their files."""
        if self._known is None:
            self._known = recipe_file.in_folder(recipes_folder())
        return self._known

    def _piece(self, name: str, steps: tuple[Step, ...]) -> RecipePiece | None:
        try:
            return RecipePiece(name=name, units=self._model.style.units, steps=steps)
        except ValidationError as fault:
            self._model.say(files.faults(fault), fault=True)
            return None

    def keep(self, name: str, steps: tuple[Step, ...]) -> None:
        """Keeps steps under a name, in the place of a piece of the same name."""
        piece = self._piece(name.strip()[:120], steps)
        if piece is None:
            return
        same = next((path for path, known in self.all.items() if known.name == piece.name), None)
        stem = plain_names([piece.name], (path.stem for path in self.all))[piece.name]
        path = same or recipes_folder() / f"{stem}{SUFFIX}"

        def write() -> None:
            recipes_folder().mkdir(parents=True, exist_ok=True)
            files.write_atomic(path, recipe_file.dump(piece))

        try:
            written = self._model.tried(write, f"Kept “{piece.name}”. It is in the drawer, for any style.")
        except OSError as fault:
            self._model.say(f"{recipes_folder()} cannot be written: {fault.strerror}. Free some space.", fault=True)
            written = False
        if written:
            self._known = None
            self.changed.emit()

    def put_in(self, piece: RecipePiece) -> None:
        """Puts the steps of a piece after the state on the table, one entry of the history."""
        try:
            steps = piece.for_units(self._model.style.units)
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
            return
        count = len(steps)
        self._model.recipe.add_steps(steps, f"{piece.name}, {count} step{'s' if count > 1 else ''}")

    def forget(self, path: Path) -> None:
        """Takes a kept piece away."""
        try:
            path.unlink(missing_ok=True)
        except OSError as fault:
            self._model.say(f"{path.name} cannot be taken away: {fault.strerror}.", fault=True)
        self._known = None
        self.changed.emit()

    # The clipboard.

    def copy(self, steps: tuple[Step, ...]) -> None:
        """Copies steps as text."""
        piece = self._piece("copied", steps)
        board = QGuiApplication.clipboard()
        if piece is not None and board is not None:
            board.setText(recipe_file.dump(piece).decode())
            self._model.say(f"Copied {len(steps)} step{'s' if len(steps) > 1 else ''}. Paste them into any style.")

    def paste(self) -> None:
        """Puts copied steps in; text that is none is said."""
        board = QGuiApplication.clipboard()
        text = board.text() if board is not None else ""
        if not text.strip().startswith("{"):
            self._model.say("There are no copied steps on the clipboard. Copy a step first.", fault=True)
            return
        try:
            self.put_in(recipe_file.from_text(text, "the clipboard"))
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
