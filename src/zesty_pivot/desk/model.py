"""The desk's model: the document with its history, what is derived from it, and what is chosen."""

from __future__ import annotations

from pathlib import Path

from pydantic import ValidationError
from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.checks.base import Finding, Look, Mend
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.derived import Derived, derive, look_at, step_findings, unworked
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.formats.unit_change import with_units
from zesty_pivot.core.ledger import Account
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Unit, format_length, length_mm
from zesty_pivot.core.recipe import State
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk import opening
from zesty_pivot.desk.history import History
from zesty_pivot.desk.opening import OpenDocument

VIEWS = ("style", "finish", "paper")
START = "start"  # the start page, which is no view of the style


class DeskModel(QObject):
    """Everything the widgets show. They call its methods and follow its signals; nothing else holds state."""

    changed = pyqtSignal()  # the document, or what is shown of it
    chosen_changed = pyqtSignal()  # pivot, dart or step
    view_changed = pyqtSignal()
    document_changed = pyqtSignal()  # the document itself, its file, or what is saved of it
    saving = pyqtSignal()  # the document is about to be written to its file
    said = pyqtSignal(str, bool)  # a sentence, and whether it is a fault

    def __init__(self, style: Style, path: Path | None = None) -> None:
        super().__init__()
        self.opened = 0  # how many documents were opened: tells them apart
        self._reset(opening.ready(style, path))

    def _reset(self, opened: OpenDocument) -> None:
        self._evaluator, self._derived = opened.evaluator, opened.derived
        self.opened += 1
        self._look: Look | None = None
        self._history = History([opened.derived.style])
        self._preview: Style | None = None
        self._looked: tuple[int | None] | None = None  # the state looked at before a preview with steps that wait
        self.path = opened.path
        self._stamp = opened.stamp
        self._saved: Style | None = opened.derived.style
        self.view = "style"
        self.looking: int | None = None  # the state looked at; None is the last
        self.step: int | None = None  # the chosen step, counted from 0
        block = self._derived.derivation.block
        front = block.piece("front") if block.has("front") else block.pieces[0]
        pivots = [dart.pivot for dart in front.darts] or list(front.landmarks)
        self.pivot: tuple[str, str] | None = (front.name, pivots[0]) if pivots else None
        self.dart: str | None = None

    # What there is.

    @property
    def style(self) -> Style:
        """The document, without a preview."""
        return self._history.value

    @property
    def derived(self) -> Derived:
        """What is shown: the preview while something is dragged, else the document, worked out."""
        return self._derived

    @property
    def state_index(self) -> int:
        """The number of the state on the table: 0 is the block."""
        last = len(self._derived.derivation.states) - 1
        return last if self.looking is None else min(self.looking, last)

    @property
    def state(self) -> State:
        """The state on the table."""
        return self._derived.derivation.states[self.state_index]

    @property
    def pattern(self) -> Pattern:
        """The pattern on the table."""
        return self.state.pattern

    @property
    def findings(self) -> tuple[Finding, ...]:
        """The findings of the pattern on the table; broken steps always."""
        if self._shows_the_end:
            return self._derived.findings
        return (*step_findings(self._derived.derivation), *findings(self.look, at_rest=self._preview is None))

    @property
    def _shows_the_end(self) -> bool:
        return self.state_index == len(self._derived.derivation.states) - 1

    @property
    def look(self) -> Look:
        """Accounts and seams of the pattern on the table, worked out once however many widgets ask."""
        if self._shows_the_end:
            return self._derived.look
        if self._look is None or self._look.pattern is not self.pattern or self._look.finish is not self._derived.style.finish:
            self._look = look_at(self._derived.style, self._derived.derivation.block, self.pattern)
        return self._look

    @property
    def account(self) -> Account | None:
        """The account of the chosen pivot, for the pattern on the table."""
        if self.pivot is None:
            return None
        name, pivot = self.pivot
        if self.pattern.has(name):
            name = self.pattern.piece(name).of or name
        accounts = [account for account in self.look.accounts if account.pivot == pivot]
        # A piece may hold darts of another that was taped to it.
        return next((account for account in accounts if account.piece == name), accounts[0] if accounts else None)

    @property
    def is_dirty(self) -> bool:
        """Whether closing now would lose something."""
        return self.style is not self._saved

    @property
    def undo_title(self) -> str:
        """What undo would take back."""
        return self._history.undo_title

    @property
    def redo_title(self) -> str:
        """What redo would do again."""
        return self._history.redo_title

    def length(self, mm: float, *, fine: bool = False) -> str:
        """A length in the style's unit."""
        return format_length(mm, self.style.units, fine=fine)

    # What can be done.

    def say(self, text: str, *, fault: bool = False) -> None:
        """A sentence for the message line."""
        self.said.emit(text, fault)

    def edit(self, style: Style, title: str) -> bool:
        """A new document, as one entry of the history; false when it was not taken. One that could not be saved and opened
        again, or not be worked out, is said and left."""
        self._end_preview()
        if style == self.style:
            self._show(self.style)
            return True
        before = self._history.marked()
        try:
            self._history.push(style.checked(), title)
            self.document_changed.emit()  # first of all, so that the journal need not wait for what follows
            self._put(derive(self.style, self._evaluator))
        except ZestyError as fault:
            self._history.back_to(before)
            self.document_changed.emit()
            self._show(self.style)
            self.say(f"Left as it was: {fault}", fault=True)
            return False
        return True

    def preview(self, style: Style | None, until: int | None = None) -> None:
        """Shows a style that is not in the history yet; None shows the document again. With `until` only so many steps are
        worked out: what comes after the step that is dragged waits until it is put down."""
        if style is None:
            self._end_preview()
            self._show(self.style)
            return
        if self._preview is None:
            self._looked = (self.looking,) if until is not None else None
        self._preview = style
        self._show(style if until is None else style.with_steps(style.steps[:until]))

    def _end_preview(self) -> None:
        """What was dragged is put down; where steps had to wait, the table looks at the state that it looked at before."""
        if self._preview is not None and self._looked is not None:
            self.looking = self._looked[0]
        self._preview = self._looked = None

    @property
    def is_previewing(self) -> bool:
        """Whether something is dragged that is not in the history yet."""
        return self._preview is not None

    def _show(self, style: Style) -> None:
        """Shows a style; one that cannot be worked out is shown with its steps broken, so that undo always works."""
        try:
            self._put(derive(style, self._evaluator, at_rest=self._preview is None))
        except ZestyError as fault:
            self._put(unworked(style, fault))

    def _put(self, derived: Derived) -> None:
        self._derived, style = derived, derived.style
        last = len(self._derived.derivation.states) - 1
        if self.looking is not None and self.looking >= last:
            self.looking = None
        if self.step is not None and self.step >= min(len(style.steps), len(self.style.steps)):
            self.step = None
        self.changed.emit()

    def undo(self) -> None:
        """Takes back the last entry."""
        self._travel(-1, f"Undone: {self.undo_title}")

    def redo(self) -> None:
        """Does the next entry again."""
        self._travel(1, f"Done again: {self.redo_title}")

    def _travel(self, by: int, words: str) -> None:
        if self._history.step(by):
            self._end_preview()
            self.document_changed.emit()
            self._show(self.style)
            self.say(words)

    def would_change(self, step: Step) -> bool:
        """Whether a step could be done to the pattern on the table and would change it."""
        context = Context(self._derived.derivation.block, self.style.scope())
        try:
            return attempt(step, self.pattern, context).pattern is not self.pattern
        except ZestyError:
            return False

    def add_step(self, step: Step, title: str) -> None:
        """A step after the state on the table, chosen from then on."""
        at = self.state_index
        if self._edit_steps((*self.style.steps[:at], step, *self.style.steps[at:]), title, at):
            self._say_outcome(at + 1)

    def replace_step(self, at: int, step: Step, title: str) -> None:
        """A step exchanged for another."""
        steps = (*self.style.steps[:at], step, *self.style.steps[at + 1 :])
        if self.edit(self.style.with_steps(steps), title):
            self._say_outcome(at + 1)

    def remove_step(self, at: int) -> None:
        """A step taken out; the ones after it follow."""
        words = self.style.steps[at].said()
        self.step = None
        self.edit(self.style.with_steps((*self.style.steps[:at], *self.style.steps[at + 1 :])), f"remove {words}")
        self.chosen_changed.emit()

    def move_step(self, at: int, by: int) -> None:
        """A step moved earlier (-1) or later (1)."""
        steps = list(self.style.steps)
        if by and 0 <= at + by < len(steps):
            steps.insert(at + by, steps.pop(at))
            self._edit_steps(tuple(steps), f"move {steps[at + by].said()}", at + by)

    def duplicate_step(self, at: int) -> None:
        """A step once more, after itself."""
        step = self.style.steps[at]
        steps = (*self.style.steps[: at + 1], step, *self.style.steps[at + 1 :])
        if self._edit_steps(steps, f"duplicate {step.said()}", at + 1):
            self._say_outcome(at + 2)

    def _edit_steps(self, steps: tuple[Step, ...], title: str, at: int) -> bool:
        """Other steps, of which one is chosen from then on and the pattern after it looked at; false when not taken."""
        before = self.step, self.looking
        self.step, self.looking = at, None if at + 1 == len(steps) else at + 1
        taken = self.edit(self.style.with_steps(steps), title)
        if not taken:
            self.step, self.looking = before
            self.changed.emit()
        self.chosen_changed.emit()
        return taken

    def _say_outcome(self, number: int) -> None:
        states = self._derived.derivation.states
        if number >= len(states):
            return
        state = states[number]
        if state.error is not None:
            self.say(str(state.error), fault=True)
        elif state.step is not None:
            notes = "; ".join(note.text for note in state.notes)
            self.say(f"{_capital(state.step.said())}." + (f" {_capital(notes)}." if notes else ""))

    def mend(self, mend: Mend) -> None:
        """Does what a finding offers: adds its step, or changes the finish."""
        if mend.step is not None:
            self.looking = None
            self.add_step(registry.read(mend.step), mend.title)
        elif mend.finish is not None:
            self.set_finish(mend.finish, mend.title)

    def set_finish(self, change: dict[str, object], title: str) -> None:
        """Changes finish options; what cannot be read is said and nothing is lost."""
        try:
            style = self.style.with_finish(change)
            for text in style.finish.lengths():  # one that no measurement answers is refused here, where it is typed
                length_mm(text, style.scope())
            self.edit(style, title)
        except ValidationError as fault:
            self.say(files.faults(fault), fault=True)
        except ZestyError as fault:
            self.say(str(fault), fault=True)

    def set_units(self, units: Unit) -> None:
        """The unit that bare numbers have and lengths are shown in; what was written keeps its meaning."""
        try:
            style = with_units(self.style, units)
        except ZestyError as fault:
            self.say(f"Left as it was: {fault}", fault=True)
            return
        self.edit(style, f"show {units}")

    def choose_pivot(self, pivot: tuple[str, str] | None, dart: str | None = None) -> None:
        """The pivot with the ring, and the bead that is chosen on it."""
        self.pivot, self.dart = pivot, dart
        self.chosen_changed.emit()

    def choose_step(self, at: int | None) -> None:
        """The chosen step; the table looks at the state after it. None is the whole recipe, -1 the block."""
        last = len(self._derived.derivation.states) - 1
        self.step = at if at is not None and 0 <= at < len(self.style.steps) else None  # a preview may have more
        self.looking = None if at is None or at + 1 == last else at + 1
        self.changed.emit()
        self.chosen_changed.emit()

    def set_view(self, view: str) -> None:
        """Style, finish or paper; or the start page."""
        if view != self.view and view in (*VIEWS, START):
            self.view = view
            self.view_changed.emit()

    # Files.

    def open(self, path: Path) -> None:
        """Opens a style, or a new style over a block. Raises a ZestyError and keeps everything when it cannot."""
        self.adopt(opening.read(path))

    def adopt(self, opened: OpenDocument) -> None:
        """Shows a document that is ready, with a history of its own."""
        self._reset(opened)
        self._tell_all()

    def replace(self, style: Style, path: Path | None) -> None:
        """Another document, with a history of its own. Raises a ZestyError and keeps everything when it is not sound."""
        self.adopt(opening.ready(style, path))

    def recover(self, style: Style, path: Path | None) -> None:
        """Unsaved work that comes back: the document of `path`, or of none, and not what is saved there."""
        self._reset(opening.ready(style, path))
        self._saved = None
        self._tell_all()

    def _tell_all(self) -> None:
        self.document_changed.emit()
        self.changed.emit()
        self.chosen_changed.emit()
        self.view_changed.emit()

    def save(self, path: Path) -> None:
        """Saves atomically. Raises FileError and keeps everything when it cannot."""
        self.saving.emit()
        style_file.save(self.style, path)
        self.path, self._saved, self._stamp = path, self.style, files.stamp(path)
        self.document_changed.emit()
        self.changed.emit()

    @property
    def stamp(self) -> str | None:
        """What tells the content of the file as it was opened or saved last."""
        return self._stamp

    @property
    def is_changed_on_disk(self) -> bool:
        """Whether the file is another one than was opened or saved here: something else wrote it, or took it away."""
        return self.path is not None and files.stamp(self.path) != self._stamp

    def keep_mine(self) -> None:
        """Takes note of the file as it is on disk now, and counts the document as not saved."""
        if self.path is not None:
            self._stamp, self._saved = files.stamp(self.path), None
            self.document_changed.emit()
            self.changed.emit()


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]
