"""The document on the desk: its history, what is derived from it, and which state of it lies on the table."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.checks.base import Finding, Look
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import accepted
from zesty_pivot.core.formats.derived import Derived, derive, look_at, step_findings, unworked
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import with_tapes
from zesty_pivot.core.quantity import Scope, format_length
from zesty_pivot.core.recipe import State
from zesty_pivot.desk.history import History
from zesty_pivot.desk.opening import OpenDocument
from zesty_pivot.desk.pace import Pace


class Document(QObject):
    """One style being worked on. A new value of it is one entry of the history; a preview is none."""

    changed = pyqtSignal()  # the document, or what is shown of it
    chosen_changed = pyqtSignal()  # pivot, dart or step
    document_changed = pyqtSignal()  # the document itself, its file, or what is saved of it
    said = pyqtSignal(str, bool)  # a sentence, and whether it is a fault

    def __init__(self, opened: OpenDocument) -> None:
        super().__init__()
        self.pace = Pace(self, self.changed)
        self.opened = 0  # how many documents were opened: tells them apart
        self.begin(opened)

    def begin(self, opened: OpenDocument) -> None:
        """Another document, with a history of its own; nobody is told yet."""
        self._evaluator, self._derived = opened.evaluator, opened.derived
        self._settled = opened.derived  # what was worked out before something was dragged
        self.opened += 1
        self._look: Look | None = None
        self.history = History([opened.derived.style])
        self._preview: Style | None = None
        self._looked: tuple[int | None] | None = None  # the state looked at before a preview with steps that wait
        self.looking: int | None = None  # the state looked at; None is the last
        self.step: int | None = None  # the chosen step, counted from 0

    @property
    def style(self) -> Style:
        """The document, without a preview."""
        return self.history.value

    @property
    def derived(self) -> Derived:
        """What is shown: the preview while something is dragged, else the document, worked out."""
        return self._derived

    @property
    def settled(self) -> Derived:
        """The document worked out, whatever is dragged meanwhile."""
        return self._settled if self._preview is not None else self._derived

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
        found = (*step_findings(self._derived.derivation), *findings(self.look, at_rest=self._preview is None))
        return accepted.told(found, self._derived.style.accepted)

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

    def scope_before(self, at: int) -> Scope:
        """What a step's formulas are worked out against: the measurements, and the tapes kept before it (counted from 0)."""
        states = self._derived.derivation.states
        return with_tapes(self.style.scope(), states[min(at, len(states) - 1)].pattern)

    def length(self, mm: float, *, fine: bool = False) -> str:
        """A length in the style's unit."""
        return format_length(mm, self.style.units, fine=fine)

    # What can be done.

    def say(self, text: str, *, fault: bool = False) -> None:
        """A sentence for the message line."""
        self.said.emit(text, fault)

    def tried(self, what: Callable[[], object], said: str = "") -> bool:
        """Whether something came out that may be refused: a fault is said, else what there is to say."""
        try:
            what()
        except ZestyError as fault:
            self.say(str(fault), fault=True)
            return False
        if said:
            self.say(said)
        return True

    def edit(self, style: Style, title: str) -> bool:
        """A new document, as one entry of the history; false when it was not taken. One that could not be saved and opened
        again, or not be worked out, is said and left."""
        self._end_preview()
        if style == self.style:
            self._show(self.style)
            return True
        before = self.history.marked()
        try:
            self.history.push(style.checked(), title)
            self.document_changed.emit()  # first of all, so that the journal need not wait for what follows
            self._put(derive(self.style, self._evaluator))
        except ZestyError as fault:
            self.history.back_to(before)
            self.document_changed.emit()
            self._show(self.style)
            self.say(f"Left as it was: {fault}", fault=True)
            return False
        return True

    def worked_out(self, style: Style) -> Derived:
        """Another style worked out beside this one, what is alike reused; without checks that take long. Raises FileError
        when it cannot be."""
        return derive(style, self._evaluator, at_rest=False)

    def preview(self, style: Style | None, until: int | None = None) -> None:
        """Shows a style that is not in the history yet; None shows the document again. With `until` only so many steps are
        worked out: what comes after the step that is dragged waits until it is put down."""
        if style is None:
            self._end_preview()
            self._show(self.style)
            return
        if self._preview is None:
            self._settled = self._derived
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
        self._travel(-1, f"Undone: {self.history.undo_title}")

    def redo(self) -> None:
        """Does the next entry again."""
        self._travel(1, f"Done again: {self.history.redo_title}")

    def travel_to(self, number: int) -> None:
        """The document as it was after an entry of the history, by its number."""
        title = self.history.titles[number] or "as it was opened"
        self._travel(number - self.history.at, f"Back to: {title}" if number < self.history.at else f"On to: {title}")

    def _travel(self, by: int, words: str) -> None:
        if self.history.step(by):
            self._end_preview()
            self.document_changed.emit()
            self._show(self.style)
            self.say(words)
