"""Trims and facings follow the edges that they are measured and traced from, whatever step changes those."""

from __future__ import annotations

from zesty_pivot.core.errors import PlaceError, ZestyError
from zesty_pivot.core.piece import EdgeRef, Extra, Pattern, SeamSide
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import replace

CHANGED = 0.005  # mm that an edge must have changed by for it to be told


def followed(outcome: Outcome, before: Pattern, context: Context) -> Outcome:
    """What came of a step, with the trims and facings of the pattern before it made anew for the edges as they are now. A trim
    that cannot be stays as it was and says why (`Extra.lost`), for a check to find."""
    if outcome.pattern.pieces is before.pieces:
        return outcome
    known = {id(extra) for extra in before.extras}
    return _trims(_facings(outcome, known, context), known, context)


def _facings(outcome: Outcome, known: set[int], context: Context) -> Outcome:
    """Facings that no longer meet their edges, traced anew where they can be; a check finds those that cannot."""
    pattern, notes, unit = outcome.pattern, list[Note](), context.scope.unit
    for step in dict.fromkeys(extra.traced for extra in pattern.extras if extra.traced is not None and id(extra) in known):
        mine = [extra for extra in pattern.extras if extra.traced == step]
        others = {extra.piece.name for extra in pattern.extras if extra.traced != step}
        led = [extra if _is_there(pattern, extra) else _led(pattern, extra) for extra in mine]
        if all(_meets(pattern, extra) for extra in led):
            pattern = replace(pattern, extras=_exchanged(pattern.extras, mine, tuple(led))) if led != mine else pattern
            continue
        try:
            fresh = tuple(step.extras(pattern, context))
        except ZestyError:
            continue
        if others & {extra.piece.name for extra in fresh}:
            continue
        for extra in fresh:
            was = next((old for old in mine if old.piece.name == extra.piece.name), None)
            notes += _retraced(was, extra, unit) if was is not None and was != extra else []
        pattern = replace(pattern, extras=_exchanged(pattern.extras, mine, _kept(mine, fresh)))
    return Outcome(pattern, (*outcome.notes, *notes))


def _is_there(pattern: Pattern, extra: Extra) -> bool:
    return all(pattern.has(part.piece) for one in extra.follows for part in one.along.parts)


def _meets(pattern: Pattern, extra: Extra) -> bool:
    try:
        return all(
            abs(extra.piece.edge(one.edge).sewn_length - pattern.sewn_length(one.along) + one.shorter_mm) <= CHANGED
            for one in extra.follows
        )
    except PlaceError:
        return False


def _retraced(was: Extra, now: Extra, unit: Unit) -> list[Note]:
    text, before = f"the {words(now.piece.name)} is traced anew", dict(was.piece.roles)
    if was.piece.fold != now.piece.fold or not {one.edge for one in now.follows} <= before.keys():
        return [Note(text, now.of[0])]
    changes = {
        one.edge: now.piece.edge(one.edge).sewn_length - was.piece.edge(one.edge).sewn_length for one in now.follows
    }  # fmt: skip
    return [
        Note(f"{text}, its {words(edge)} {_amount(change, unit)}", now.of[0], change)
        for edge, change in changes.items()
        if abs(change) > CHANGED
    ]


def _led(pattern: Pattern, extra: Extra) -> Extra:
    """A facing of a piece that has been cut since, led along the edges of its panels."""
    follows = []
    for one in extra.follows:
        edges = [part.edge for part in one.along.parts if not pattern.has(part.piece)]
        found = [EdgeRef(piece.name, edge.id) for piece in pattern.come_from(extra.of[0]) for edge in piece.edges
                 if edge.id in edges]  # fmt: skip
        follows.append(replace(one, along=SeamSide(tuple(found))) if found else one)
    of = tuple(dict.fromkeys(part.piece for one in follows for part in one.along.parts))
    return replace(extra, follows=tuple(follows), of=of)


def _amount(change: float, unit: Unit) -> str:
    by = format_length(abs(change), unit, fine=abs(change) < 10.0)
    return f"{by} {'longer' if change > 0.0 else 'shorter'}"


def _trims(outcome: Outcome, known: set[int], context: Context) -> Outcome:
    """Trims made anew. One that cannot be says why."""
    pattern = outcome.pattern
    asked = dict.fromkeys(extra.asked for extra in pattern.extras if extra.asked is not None and id(extra) in known)
    notes: list[Note] = []
    for step in asked:
        mine = [extra for extra in pattern.extras if extra.asked == step]
        try:
            fresh = step.extras(pattern, context)
        except ZestyError as fault:
            fresh = tuple(replace(extra, lost=fault.what) for extra in mine)
        notes += _told(mine, fresh, context)
        pattern = replace(pattern, extras=_exchanged(pattern.extras, mine, _kept(mine, fresh)))
    return Outcome(pattern, (*outcome.notes, *notes))


def _kept(old: list[Extra], fresh: tuple[Extra, ...]) -> tuple[Extra, ...]:
    """The new parts, those that came out as they were as the same values."""
    return tuple(next((one for one in old if one == part), part) for part in fresh)


def _exchanged(extras: tuple[Extra, ...], mine: list[Extra], fresh: tuple[Extra, ...]) -> tuple[Extra, ...]:
    gone = {id(extra) for extra in mine}
    first = next(k for k, extra in enumerate(extras) if id(extra) in gone)
    return (*extras[:first], *fresh, *(extra for extra in extras[first:] if id(extra) not in gone))


def _told(old: list[Extra], fresh: tuple[Extra, ...], context: Context) -> list[Note]:
    unit, before = context.scope.unit, {extra.piece.name: extra for extra in old}
    found = []
    for extra in fresh:
        was = before.get(extra.piece.name)
        change = extra.edge_mm - was.edge_mm if was is not None else 0.0
        if abs(change) > CHANGED and not extra.lost:
            text = f"the {words(extra.piece.name)} follows its edge, {_amount(change, unit)}"
            found.append(Note(text, extra.of[0], change))
    return found
