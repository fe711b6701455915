"""The boundary of a step: whatever happens in it costs this step and nothing else."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core import faults
from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.moves.laid_open import fullness_fault
from zesty_pivot.core.moves.let_lines import anchored
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.quantity import in_unit
from zesty_pivot.core.recipe.by_halves import worked
from zesty_pivot.core.recipe.following import followed
from zesty_pivot.core.steps.base import Step


def attempt(step: Step, pattern: Pattern, context: Context) -> Outcome:
    """What a step makes of a pattern. Raises nothing but ZestyErrors: a fault of the program, and a pattern that does not hold
    together, are refusals like any other. Their lengths are told in the style's unit."""
    context = context.at(pattern)
    try:
        return contained(
            step.title, lambda: followed(worked(step.with_ids(pattern), pattern, context), pattern, context), pattern
        )
    except ZestyError as fault:
        what, advice = (in_unit(text, context.scope.unit) for text in (fault.what, fault.advice))
        if (what, advice) == (fault.what, fault.advice):
            raise
        raise type(fault)(what, where=fault.where, advice=advice) from fault


def contained(title: str, work: Callable[[], Outcome], pattern: Pattern) -> Outcome:
    """What some work of a title makes of a pattern. Raises as `attempt` does."""
    try:
        outcome = work()
        made, lost = anchored(outcome.pattern, pattern)
        told = (Note(f"the {full.taking.value} went with what was cut away", full.id.partition(".")[0]) for full in lost)
        outcome = Outcome(made, (*outcome.notes, *told))
        broken = outcome.pattern.check(pattern) or fullness_fault(outcome.pattern, pattern)
    except ZestyError:
        raise
    except Exception as fault:
        reference = faults.caught(fault, f"the step “{title}”")
        raise StepError(faults.sentence("the step", reference), advice=faults.ADVICE) from fault
    if broken is not None:
        raise StepError(f"this would leave {broken}", advice="Change the step, or the one before it.")
    return outcome
