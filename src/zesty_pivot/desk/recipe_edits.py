"""Changes of the document's steps and finish, each one entry of the history."""

from __future__ import annotations

from pydantic import ValidationError

from zesty_pivot.core.checks.base import Finding, Mend
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import accepted, files
from zesty_pivot.core.formats.unit_change import with_units
from zesty_pivot.core.ledger.moved import moved_edges
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.quantity import Unit, format_length, length_mm
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.document import Document


class RecipeEdits:
    """What can be done to the recipe of a document. What cannot be is said, and nothing is lost."""

    def __init__(self, document: Document) -> None:
        self._document = document

    @property
    def _steps(self) -> tuple[Step, ...]:
        return self._document.style.steps

    def would_change(self, step: Step) -> bool:
        """Whether a step could be done to the pattern on the table and would change it."""
        context = self._document.derived.context
        try:
            return attempt(step, self._document.pattern, context).pattern is not self._document.pattern
        except ZestyError:
            return False

    def said(self, at: int, step: Step | None = None) -> str:
        """What a step (or another in its place) does in a few words, darts called by where they open before it."""
        states = self._document.derived.derivation.states
        before = states[at].pattern if at < len(states) else None
        return (step or self._steps[at]).said(before)

    def add_step(self, step: Step, title: str = "") -> None:
        """A step after the state on the table, chosen from then on; told of by its words when it has no title."""
        at = self._document.state_index
        title = title or self.said(at, step)
        if self._edit_steps((*self._steps[:at], step, *self._steps[at:]), title, at):
            self._say_outcome(at + 1)

    def add_steps(self, steps: tuple[Step, ...], title: str) -> None:
        """Several steps after the state on the table, as one entry; the last of them chosen. Groups in them are their own."""
        at = self._document.state_index
        known = {step.group for step in self._steps}
        fresh = tuple(step if step.group not in known else step.model_copy(update={"group": ""}) for step in steps)
        if self._edit_steps((*self._steps[:at], *fresh, *self._steps[at:]), title, at + len(fresh) - 1):
            self._say_outcome(at + len(fresh))

    def replace_step(self, at: int, step: Step, title: str = "") -> None:
        """A step exchanged for another; told of by its words when there is no title."""
        title = title or self.said(at, step)
        steps = (*self._steps[:at], step, *self._steps[at + 1 :])
        if self._document.edit(self._document.style.with_steps(steps), title):
            self._say_outcome(at + 1)

    def remove_step(self, at: int) -> None:
        """A step taken out; the ones after it follow."""
        told = self.said(at)
        self._document.step = None
        steps = (*self._steps[:at], *self._steps[at + 1 :])
        self._document.edit(self._document.style.with_steps(steps), f"remove {told}")
        self._document.chosen_changed.emit()

    def move_step(self, at: int, by: int) -> None:
        """A step moved earlier (-1) or later (1)."""
        steps = list(self._steps)
        if by and 0 <= at + by < len(steps):
            title = f"move {self.said(at)}"
            steps.insert(at + by, steps.pop(at))
            self._edit_steps(tuple(steps), title, at + by)

    def duplicate_step(self, at: int) -> None:
        """A step once more, after itself."""
        step = self._steps[at]
        steps = (*self._steps[: at + 1], step, *self._steps[at + 1 :])
        if self._edit_steps(steps, f"duplicate {self.said(at)}", at + 1):
            self._say_outcome(at + 2)

    def _edit_steps(self, steps: tuple[Step, ...], title: str, at: int) -> bool:
        """Other steps, of which one is chosen from then on and the pattern after it looked at; false when not taken."""
        before = self._document.step, self._document.looking
        self._document.step, self._document.looking = at, None if at + 1 == len(steps) else at + 1
        taken = self._document.edit(self._document.style.with_steps(steps), title)
        if not taken:
            self._document.step, self._document.looking = before
            self._document.changed.emit()
        self._document.chosen_changed.emit()
        return taken

    def _say_outcome(self, number: int) -> None:
        states = self._document.derived.derivation.states
        if number >= len(states):
            return
        state = states[number]
        if state.error is not None:
            self._document.say(str(state.error), fault=True)
        elif state.step is not None:
            notes = "; ".join(note.text for note in state.notes)
            self._document.say(
                f"{capital(self._document.derived.derivation.said(number))}." + (f" {capital(notes)}." if notes else "")
            )

    def mend(self, mend: Mend) -> None:
        """Does what a finding offers: adds its step, or changes the finish."""
        if mend.step is not None:
            self._document.looking = None
            self.add_step(registry.read(mend.step), mend.title)
        elif mend.finish is not None:
            self.set_finish(mend.finish, mend.title)

    def accept(self, finding: Finding, reason: str) -> None:
        """Accepts a finding with a reason; without one it is told again."""
        style = self._document.style
        kept = tuple(one for one in style.accepted if not accepted.is_of(one, finding))
        if reason:
            kept = (*kept, accepted.accept(finding, reason))
        title = f"{'accept' if reason else 'tell again'}: {finding.message}"
        self._document.edit(style.model_copy(update={"accepted": kept}), title[:200])

    def set_finish(self, change: dict[str, object], title: str) -> None:
        """Changes finish options; what cannot be read is said and nothing is lost."""
        try:
            style = self._document.style.with_finish(change)
            for text in style.finish.lengths():  # one that no measurement answers is refused here, where it is typed
                length_mm(text, style.scope())
            before = self._document.derived.pattern
            if self._document.edit(style, title):
                self._say_moved(before)
        except ValidationError as fault:
            self._document.say(files.faults(fault), fault=True)
        except ZestyError as fault:
            self._document.say(str(fault), fault=True)

    def _say_moved(self, before: Pattern) -> None:
        """What was trued anew because darts are sewn otherwise now, with the amounts."""
        unit = self._document.style.units
        moved = [
            f"the {words(one.edge)} of the {words(one.piece)} by up to {format_length(one.mm, unit, fine=True)}"
            for one in moved_edges(before, self._document.derived.pattern)
        ]
        if moved:
            self._document.say(f"Trued anew for the new sewn points: {'; '.join(moved)}.")

    def set_units(self, units: Unit) -> None:
        """The unit that bare numbers have and lengths are shown in; what was written keeps its meaning."""
        try:
            style = with_units(self._document.style, units)
        except ZestyError as fault:
            self._document.say(f"Left as it was: {fault}", fault=True)
            return
        self._document.edit(style, f"show {units}")
