"""The gallery of a step: its variants on the pattern that it meets; one that is looked at lies on the table."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import QRectF, QTimer
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.drawer.picture_grid import PictureGrid, Tried, drawn, is_half
from zesty_pivot.desk.galleries.base import GalleryEntry
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.shapes import shapes_of

REST = 200  # ms that nothing changes before pictures are made


class Designs(QWidget):
    """Shows the variants of the chosen step; while one is looked at, what is above must keep still."""

    def __init__(self, model: DeskModel, entry: GalleryEntry) -> None:
        super().__init__()
        self._model, self._entry = model, entry
        self._at, self._before = 0, Pattern(())
        self._step: Step | None = None
        self._ways: dict[str, tuple[Step, Pattern, Step]] = {}  # of what step and pattern, how each can be done
        self._told: tuple[Step | None, Pattern, str | None] = (None, self._before, None)  # which variant a step is
        self.looking_at: str | None = None
        self._key: object = None
        self.grid = PictureGrid({name: (one.title, one.hint) for name, one in entry.variants.items()}, "")
        self.grid.is_held = lambda: model.is_previewing
        model.changed.connect(self.grid.wait)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 4)
        rows.setSpacing(4)
        rows.addWidget(self.grid)
        rows.addStretch(1)
        self.grid.looked.connect(self._look)
        self.grid.left.connect(self._leave)
        self.grid.chosen.connect(self._choose)
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST)
        self._rest.timeout.connect(self._begin)

    @contained("the gallery of this step")
    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        """The variants of a step that meets a pattern; their pictures are made anew when either has changed."""
        if self._model.is_previewing:
            return
        self._at, self._step, self._before = at, step, before
        self.setVisible(before.has(step.on))
        if not before.has(step.on):
            return
        if step != self._told[0] or before is not self._told[1]:
            self._told = step, before, self._entry.now(step, before.piece(step.on))
        now = self._told[2]
        self.grid.check(now)
        others = {key: value for key, value in step.model_dump().items() if key not in self._entry.keys}
        key = (id(before), str(others), self._model.style.scope().key())
        if key != self._key:
            self._key = key
            self._rest.start()

    def finish(self) -> None:
        """Makes all pictures at once."""
        self._rest.stop()
        self._begin()
        self.grid.finish()

    @contained("the gallery of this step")
    def _begin(self) -> None:
        if self._step is None or not self._before.has(self._step.on):
            return
        source = self._before.piece(self._step.on)
        draw = partial(self._picture, self._before, source.of or source.name)
        self.grid.begin(partial(self._worked, self._step, self._before, self._model.derived.context), draw)

    def _worked(self, step: Step, before: Pattern, context: Context, name: str) -> Tried:
        fault = ""
        self._ways.pop(name, None)
        for made in self._entry.taken(name, step, before.piece(step.on)):
            try:
                pattern = attempt(made, before, context).pattern
            except ZestyError as found:
                fault = fault or str(found)
            else:
                self._ways[name] = (step, before, made)
                return Tried(pattern)
        return Tried(None, fault or f"the {words(step.on)} has no place for it")

    def _picture(self, before: Pattern, source: str, pattern: Pattern) -> QPixmap:
        """What comes from the piece of the block, what the step has changed in the colour of paper."""
        pieces = pattern.come_from(source)
        made = [extra.piece for extra in pattern.extras if extra.asked is not None and extra not in before.extras]
        pieces = tuple(made[:1]) or pieces  # of a trim its first part is the picture
        shown = QRectF()
        for piece in pieces:
            box = shapes_of(piece).box
            mirrored = QRectF(-box.right(), box.top(), box.width(), box.height())
            shown = shown.united(box.united(mirrored) if is_half(piece) else box)
        around = max(shown.width(), shown.height()) * 0.02
        coloured = [(piece, "table" if piece in before.pieces else "paper") for piece in pieces]
        return drawn(coloured, shown.adjusted(-around, -around, around, around), self.devicePixelRatioF(), marked=True)

    # Looking and choosing.

    def _taken(self, name: str) -> Step | None:
        """The step as it is now with a variant taken; None where it cannot be."""
        if self._step is None or name not in self._ways:
            return None
        asked, before, _made = self._ways[name]
        if asked != self._step or before is not self._before:  # its picture is still that of a moment ago
            self._worked(self._step, self._before, self._model.derived.context, name)
        return self._ways[name][2] if name in self._ways else None

    @contained("the look at a variant")
    def _look(self, name: str) -> None:
        step, at, style = self._taken(name), self._at, self._model.style
        if step is None:
            return
        self.looking_at = name
        self._model.preview(style.with_steps((*style.steps[:at], step, *style.steps[at + 1 :])), until=at + 1)

    def _leave(self) -> None:
        if self.looking_at is not None:
            self.looking_at = None
            self._model.preview(None)

    def _choose(self, name: str) -> None:
        self._leave()
        step = self._taken(name)
        if step is not None:
            self._model.recipe.replace_step(self._at, step, step.said(self._before))
            self._model.choose_step(self._at)
