"""The width at which a neckline passes over the head."""

from __future__ import annotations

from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger.opening import opened
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.bodice_halves import block_half
from zesty_pivot.core.procedures.neckline_edges import ROOM
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps.neck_shape import ShapeNeck

_ROUNDS = 12


def wider(step: ShapeNeck, before: Pattern, block: Pattern, style: Style, head_mm: float) -> ShapeNeck:
    """The step with the least width, to the millimetre, at which its neckline passes over a head. Raises StepError when no
    width does, or the shape has none."""
    context = Context(block, style.scope(), style.sewing())
    numbers = step.numbers(context, step.on)
    bodice = block_half(context, step.on)
    what = "no width of this shape passes over the head"
    if "width" not in numbers:
        raise StepError(what, where=step.on, advice="Let it open, or choose another shape.")

    def passes(mm: float) -> bool:
        made = _at(step, mm)
        try:
            found = opened(attempt(made, before, context).pattern, style.scope().measures, style.finish.stretch)
        except ZestyError:
            return False
        return found is not None and found.stretched_mm >= head_mm

    low, high = int(numbers["width"]), int(bodice.tip_x - ROOM)
    if not passes(high):
        # Near the tip some shapes leave the piece: the widest that can be drawn counts.
        high = next((mm for mm in range(high, low, -5) if passes(mm)), 0)
        if not high:
            raise StepError(what, where=step.on, advice="Let it open, or choose another shape.")
    for _ in range(_ROUNDS):
        if high - low <= 1:
            break
        middle = (low + high) // 2
        low, high = (low, middle) if passes(middle) else (middle, high)
    return _at(step, high)


def _at(step: ShapeNeck, mm: float) -> ShapeNeck:
    return step.model_copy(update={"width": f"{mm:.0f} mm", "width_from": "centre"})
