"""What the block view shows: a body, a method with its conventions, the draft as far as it is drawn, and what was compared."""

from __future__ import annotations

import math
from collections.abc import Mapping
from contextlib import suppress

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.drafting.draft import Draft, draft
from zesty_pivot.core.drafting.method import Method
from zesty_pivot.core.drafting.settings import kept, resolved
from zesty_pivot.core.drafting.values import Number, Point
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.block_check import Looked, check_block
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.drafted_block import block_name, block_of
from zesty_pivot.core.formats.redraft import Change, changes, with_body
from zesty_pivot.core.formats.style_file import Style, from_block
from zesty_pivot.core.measure.estimates import Estimate
from zesty_pivot.core.record import record
from zesty_pivot.data.methods import ORDER, all_methods
from zesty_pivot.desk.history import History
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.people import BodyShown, People
from zesty_pivot.desk.settings import methods_folder

LEAST_MOVED = 0.05  # mm: what moves by less is told as still

COMPARED = {"before": "as it was before the last change", "plain": "the method's own conventions", "none": "nothing"}


@record
class Conventions:
    """A method with what was set of its parameters."""

    method: str
    settings: Mapping[str, str]


@record
class Moved:
    """A point that a convention moved: what it is called, and by how much (mm)."""

    piece: str
    title: str
    by: float


class Drafting(QObject):
    """The draft on the table of the block view. Everything is worked out again from body and conventions."""

    changed = pyqtSignal()  # the draft, or what is compared with it
    stepped = pyqtSignal()  # only how far it is drawn

    def __init__(self, model: DeskModel, people: People) -> None:
        super().__init__()
        self._model, self._people = model, people
        self._opened = -1
        self.methods: tuple[Method, ...] = all_methods(methods_folder())
        self.history: History[Conventions] = History([self._first()])
        self.at: int | None = None  # how many operations are drawn; None is all of them
        self.compared = "before"
        self.scale = "1:1"
        self.drawn: Draft | None = None
        self.block: BlockFile | None = None
        self.fault = ""
        self.other: Draft | None = None
        self.swapped: list[Change] = []
        self._worked: object = None
        people.changed.connect(self.refresh)
        self.refresh()

    # What is chosen.

    def _first(self) -> Conventions:
        """The conventions that the style's own block was drafted with, else those of the first method."""
        self._opened = self._model.opened
        block = self._model.style.block
        if block.method is not None and any(method.id == block.method for method in self.methods):
            return Conventions(block.method, dict(block.settings))
        return Conventions(self.methods[0].id, {})

    @property
    def conventions(self) -> Conventions:
        """The method and what is set of it."""
        return self.history.value

    @property
    def method(self) -> Method:
        """The chosen method."""
        return next((m for m in self.methods if m.id == self.conventions.method), self.methods[0])

    @property
    def body(self) -> BodyShown:
        """The body that is drafted for."""
        return self._people.body()

    @property
    def used(self) -> tuple[dict[str, float], list[Estimate]]:
        """The lengths (mm) that are drafted with, and which of them are estimates of what the method needs."""
        body, method = self.body, self.method
        guesses = body.estimates
        filled = [guesses[name] for name in method.needs if name not in body.lengths and name in guesses]
        return {**body.lengths, **{guess.name: guess.mm for guess in filled}}, filled

    @property
    def known(self) -> dict[str, float]:
        """The lengths (mm) that a convention's formula may ask for: measurements, and the other conventions as far as they are
        known."""
        lengths, _filled = self.used
        found = dict(lengths)
        with suppress(ZestyError):
            names = resolved(self.method, self.conventions.settings, lengths)
            found |= {name: value.amount for name, value in names.items() if isinstance(value, Number) and value.power == 1}
        return found

    def choose_method(self, id: str) -> None:
        """Another method; what was set of parameters that it has too is kept."""
        method = next((m for m in self.methods if m.id == id), None)
        if method is None or id == self.conventions.method:
            return
        own = {parameter.id: {choice.word for choice in parameter.choices} for parameter in method.parameters}
        settings = {
            key: text for key, text in self.conventions.settings.items() if key in own and (not own[key] or text in own[key])
        }
        self._put(Conventions(id, settings), f"draft by {method.title.lower()}")

    def set(self, id: str, text: str) -> None:
        """Another convention; nothing gives the method's own back. A fault is said."""
        settings = {key: held for key, held in self.conventions.settings.items() if key != id}
        try:
            made = kept(self.method, {**settings, **({id: text} if text else {})}, self._model.style.units)
        except ZestyError as fault:
            self._model.say(f"Left as it was: {fault}", fault=True)
            self.changed.emit()
            return
        if self.method.parameter(id).default == made.get(id):
            del made[id]
        self._put(Conventions(self.method.id, made), f"set {self.method.parameter(id).title.lower()}")

    def reset(self) -> None:
        """The method's own conventions."""
        if self.conventions.settings:
            self._put(Conventions(self.method.id, {}), "take the method's own conventions")

    def compare(self, with_: str) -> None:
        """What lies under the draft as tracing paper: one of COMPARED."""
        self.compared = with_
        self._worked = None
        self.refresh()

    def undo(self, by: int) -> None:
        """Takes back the last convention (-1), or sets it again (1)."""
        title = self.history.undo_title if by < 0 else self.history.redo_title
        if self.history.step(by):
            self._model.say(f"{'Undone' if by < 0 else 'Done again'}: {title}")
            self.refresh()

    def look_for_methods(self) -> None:
        """Reads the user's own methods again."""
        self.methods = all_methods(methods_folder())
        self._worked = None
        self.refresh()

    def _put(self, conventions: Conventions, title: str) -> None:
        if conventions != self.conventions:
            self.history.push(conventions, title)
        self.refresh()

    # What is drawn.

    def refresh(self) -> None:
        """Works the draft out again where body, method or settings are others."""
        if self._opened != self._model.opened:  # another document: its block's own conventions
            self.history = History([self._first()])
            self.swapped = []
        lengths, _filled = self.used
        wanted = (self.conventions.method, dict(self.conventions.settings), lengths, self.body.name, self.compared)
        if wanted == self._worked and self.drawn is not None:
            self.changed.emit()
            return
        self._worked = wanted
        self.drawn, self.block, self.fault = None, None, ""
        try:
            self.drawn = draft(self.method, lengths, self.conventions.settings)
            name = block_name(self.method, self.body.name if not self.body.is_style else "")
            self.block = block_of(self.drawn, name, is_own=self.method.id not in ORDER)
        except ZestyError as fault:
            self.fault = str(fault)
        except Exception as fault:  # noqa: BLE001 - the boundary of a draft: a method is a user's data
            self.fault = f"{faults.sentence('this draft', faults.caught(fault, 'a draft'))}."
        self.other = self._other(lengths)
        if self.at is not None and (self.drawn is None or self.at >= len(self.drawn.shown)):
            self.at = None
        self.changed.emit()

    def _other(self, lengths: Mapping[str, float]) -> Draft | None:
        """The draft to compare with."""
        if self.compared == "none" or self.drawn is None:
            return None
        before = self.history.values[self.history.at - 1] if self.history.at else self.conventions
        settings = {} if self.compared == "plain" else before.settings
        if (self.compared == "before" and before.method != self.method.id) or settings == self.conventions.settings:
            return None
        try:
            return draft(self.method, lengths, settings)
        except ZestyError:
            return None

    @property
    def count(self) -> int:
        """How many operations there are to draw."""
        return 0 if self.drawn is None else len(self.drawn.shown)

    @property
    def reached(self) -> int:
        """How many of them are drawn."""
        return self.count if self.at is None else self.at

    def go(self, at: int) -> None:
        """Draws as many operations; all of them where it is their number."""
        wanted = min(max(at, 0), self.count)
        self.at = None if wanted == self.count else wanted
        self.stepped.emit()

    @property
    def moved(self) -> list[Moved]:
        """The points that lie elsewhere than in the draft that is compared, the furthest first."""
        if self.drawn is None or self.other is None:
            return []
        found: list[Moved] = []
        for done in self.drawn.shown:
            other = self.other.names.get(done.name)
            if isinstance(done.value, Point) and isinstance(other, Point):
                by = math.dist(done.value.at, other.at)
                if by > LEAST_MOVED:
                    found.append(Moved(done.piece, self.drawn.title(done), by))
        return sorted(found, key=lambda moved: -moved.by)

    @property
    def lines(self) -> list[Looked]:
        """The check of the block."""
        if self.drawn is None or self.block is None:
            return []
        return check_block(self.drawn, self.block, self._model.style.units)

    # What becomes of it.

    def new_style(self) -> Style | None:
        """A new style over the block, or None where there is none."""
        if self.block is None:
            return None
        name = self.body.name if not self.body.is_style else self._model.style.name
        return from_block(self.block, name or "Untitled style").model_copy(update={"units": self._model.style.units})

    def put_under(self, block: BlockFile) -> None:
        """A block under the style that is open, as one entry of its history; what changed and what broke is listed."""
        before = self._model.derived
        if not self._model.edit(with_body(self._model.style, block), "another block under it"):
            return
        self.swapped = changes(before, self._model.derived)
        broken = sum(change.is_broken for change in self.swapped)
        told = f"{broken} thing{'' if broken == 1 else 's'} to look at." if broken else "Nothing broke."
        self._model.say(f"{block.name} lies under {self._model.style.name}. {told} Undo takes it back.")
        self.changed.emit()
