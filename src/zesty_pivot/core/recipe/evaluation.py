"""Working out a recipe. Each state remembers the state it came from, so an unchanged beginning is never redone."""

from __future__ import annotations

import itertools
from collections import OrderedDict
from collections.abc import Callable, Sequence

from zesty_pivot.core.conventions.sewing import PLAIN, Sewing
from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.quantity.formula import Scope
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.base import Step

KEPT_STATES = 512  # about forty styles of twelve steps; the oldest go first


@record
class State:
    """The pattern after a step. A broken step carries its error and the last good pattern."""

    pattern: Pattern
    step: Step | None = None
    notes: tuple[Note, ...] = ()
    error: StepError | None = None
    serial: int = 0
    is_idle: bool = False  # the step was done and changed nothing


@record
class Derivation:
    """All states of a recipe: the first is the block itself, then one for each step; `sewing` is how its darts are sewn."""

    block: Pattern
    states: tuple[State, ...]
    sewing: Sewing = PLAIN

    def said(self, number: int) -> str:
        """What a step does in a few words, its darts called by where they open before it; numbered from 1."""
        step = self.states[number].step
        return "as drafted" if step is None else step.said(self.states[number - 1].pattern)

    @property
    def pattern(self) -> Pattern:
        """The pattern after the last step."""
        return self.states[-1].pattern

    @property
    def idle(self) -> tuple[int, ...]:
        """The numbers (from 1) of steps that change nothing on this pattern, though they are done."""
        return tuple(number for number, state in enumerate(self.states) if state.is_idle)

    @property
    def broken(self) -> tuple[tuple[int, StepError], ...]:
        """The broken steps: their number counted from 1, and the reason."""
        return tuple((number, state.error) for number, state in enumerate(self.states) if state.error is not None)


class Evaluator:
    """Works out recipes and keeps recent states; the same beginning of the same block is never worked out twice."""

    def __init__(self, kept: int = KEPT_STATES) -> None:
        self._kept = kept
        self._serials = itertools.count(1)
        self._states: OrderedDict[tuple[int, Step], State] = OrderedDict()
        self._roots: OrderedDict[tuple[object, ...], tuple[Pattern, State]] = OrderedDict()
        self.worked = 0  # steps applied so far, for tests and the bench

    def evaluate(
        self,
        block: Pattern,
        steps: Sequence[Step],
        scope: Scope,
        progress: Callable[[int, int], None] | None = None,
        sewing: Sewing = PLAIN,
    ) -> Derivation:
        """Every state of the recipe. A step that cannot be done is kept broken; those after it go on from before it.

        `progress` is told how many steps of how many are worked out; what it raises stops the work. `sewing` is how the style
        sews its darts: steps that draw a seam across a shut dart ask it.
        """
        context = Context(block, scope, sewing)
        states = [self._root(context)]
        for number, step in enumerate(steps, start=1):
            if progress is not None:
                progress(number - 1, len(steps))
            states.append(self._after(states[-1], step, context, number))
        return Derivation(block, tuple(states), sewing)

    def _root(self, context: Context) -> State:
        block = context.block
        key = (id(block), *context.scope.key(), context.sewing)
        if key not in self._roots:
            self._roots[key] = (block, State(block, serial=next(self._serials)))
            while len(self._roots) > 16:
                self._roots.popitem(last=False)
        return self._roots[key][1]

    def _after(self, state: State, step: Step, context: Context, number: int) -> State:
        key = (state.serial, step)
        found = self._states.get(key)
        if found is None:
            found = self._apply(state, step, context, number)
            self._states[key] = found
            while len(self._states) > self._kept:
                self._states.popitem(last=False)
        else:
            self._states.move_to_end(key)
        return found

    def _apply(self, state: State, step: Step, context: Context, number: int) -> State:
        serial = next(self._serials)
        if step.off:
            return State(state.pattern, step, serial=serial)
        self.worked += 1
        try:
            outcome = attempt(step, state.pattern, context)
        except ZestyError as fault:
            error = _as_step_error(fault, f"step {number}, {step.said(state.pattern)}")
            return State(state.pattern, step, error=error, serial=serial)
        # A pattern with a piece or seam that was made anew may still be the same one.
        is_idle = outcome.pattern is state.pattern or outcome.pattern == state.pattern
        notes = outcome.notes
        if is_idle and not notes:
            notes = (Note("this changes nothing: it is already so", step.on),)
        return State(outcome.pattern, step, notes, serial=serial, is_idle=is_idle)


def _as_step_error(fault: ZestyError, place: str) -> StepError:
    where = f"{place} ({fault.where})" if fault.where else place
    return StepError(fault.what, where=where, advice=fault.advice)
