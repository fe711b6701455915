"""Trims follow the edges that they are measured from, whatever step changes those."""

from __future__ import annotations

from dataclasses import replace

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Extra, Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.quantity import format_length

CHANGED = 0.005  # mm that an edge must have changed by for it to be told


def followed(outcome: Outcome, before: Pattern, context: Context) -> Outcome:
    """What came of a step, with the trims of the pattern before it made anew for the edges as they are now. One that cannot be
    stays as it was and says why (`Extra.lost`), for a check to find."""
    pattern = outcome.pattern
    if pattern.pieces is before.pieces or not any(extra.asked is not None for extra in before.extras):
        return outcome
    known = {id(extra) for extra in before.extras}
    asked = dict.fromkeys(extra.asked for extra in pattern.extras if extra.asked is not None and id(extra) in known)
    notes: list[Note] = []
    for step in asked:
        mine = [extra for extra in pattern.extras if extra.asked == step]
        try:
            fresh = step.extras(pattern, context)
        except ZestyError as fault:
            fresh = tuple(replace(extra, lost=fault.what) for extra in mine)
        notes += _told(mine, fresh, context)
        pattern = replace(pattern, extras=_exchanged(pattern.extras, step, _kept(mine, fresh)))
    return Outcome(pattern, (*outcome.notes, *notes))


def _kept(old: list[Extra], fresh: tuple[Extra, ...]) -> tuple[Extra, ...]:
    """The new parts, those that came out as they were as the same values."""
    return tuple(next((one for one in old if one == part), part) for part in fresh)


def _exchanged(extras: tuple[Extra, ...], step: object, fresh: tuple[Extra, ...]) -> tuple[Extra, ...]:
    first = next(k for k, extra in enumerate(extras) if extra.asked == step)
    rest = [extra for extra in extras[first:] if extra.asked != step]
    return (*extras[:first], *fresh, *rest)


def _told(old: list[Extra], fresh: tuple[Extra, ...], context: Context) -> list[Note]:
    unit, before = context.scope.unit, {extra.piece.name: extra for extra in old}
    found = []
    for extra in fresh:
        was = before.get(extra.piece.name)
        change = extra.edge_mm - was.edge_mm if was is not None else 0.0
        if abs(change) > CHANGED and not extra.lost:
            way = "longer" if change > 0.0 else "shorter"
            by = format_length(abs(change), unit, fine=abs(change) < 10.0)
            text = f"the {words(extra.piece.name)} follows its edge, {by} {way}"
            found.append(Note(text, extra.of[0], change))
    return found
