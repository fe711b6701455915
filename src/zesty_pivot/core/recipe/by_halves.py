"""Steps that are worked on halves, on a whole piece: each side as a half, and both put together again."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TypeVar

from zesty_pivot.core.moves.mirror import half_name, side_of
from zesty_pivot.core.piece import Pattern, Piece, Side
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.both_sides import Halves, parted, together
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.yoke_joining import apart, with_yokes_apart
from zesty_pivot.core.quantity.fields import Model, with_darts
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.steps.base import FrontAndBackStep, Step

Made = TypeVar("Made", bound=Model)


@record
class ByHalves:
    """A step as it is worked on halves: the pattern on each side of the body, the step with the names that it has there, the
    sides that it is for, and the pieces of the block that are put together again."""

    step: Step
    halves: Halves
    sides: tuple[Side, ...]
    sources: tuple[str, ...]


def worked(step: Step, pattern: Pattern, context: Context) -> Outcome:
    """What comes of a step, whose darts are named by their ids: one that is worked on halves is taken side by side where its
    piece is unfolded. Raises as `Step.apply` does."""
    if step.over_shoulders and pattern.joins:
        return with_yokes_apart(lambda parted: _worked(step, parted, context), pattern, context)
    return _worked(step, pattern, context)


def _worked(step: Step, pattern: Pattern, context: Context) -> Outcome:
    plan = by_halves(step, pattern)
    if plan is None:
        return step.apply(pattern, context)
    made = {
        side: plan.step.for_side(side, half, context).apply_half(half, context) if side in plan.sides else Outcome(half)
        for side, half in plan.halves.items()
    }
    left, right = made[Side.LEFT], made[Side.RIGHT]
    notes = [note if note in right.notes else _told(note, Side.LEFT) for note in left.notes]
    notes += [_told(note, Side.RIGHT) for note in right.notes if note not in left.notes]
    halves = {side: _on_one_side(outcome.pattern, plan.sources, side) for side, outcome in made.items()}
    whole = step.settled(together(halves, plan.sources, pattern), context)
    return Outcome(whole.pattern, (*whole.notes, *notes))


def by_halves(step: Step, pattern: Pattern) -> ByHalves | None:
    """How a step is worked on halves; None for one that takes its pieces as they are: they are halves, or it names an edge or a
    dart of one side."""
    if not step.half_by_half:
        return None
    pattern = step.readied(pattern)
    asked = step.names() if isinstance(step, FrontAndBackStep) else [step.on]
    mine = [piece for name in asked for piece in ([pattern.piece(name)] if pattern.has(name) else pattern.come_from(name))]
    whole = [piece for piece in mine if piece.is_unfolded]
    if not whole or any(text in piece.sides.known for piece in whole for text in _texts(step)):
        return None
    step = _with_sides(step, whole)
    sides = {spot.side for spot in _spots(step)} - {None} or {side_of(piece) for piece in whole} - {None}
    sources = tuple(dict.fromkeys(piece.of or piece.name for piece in whole))
    halves: Halves = dict.fromkeys(Side, pattern)
    for source in sources:
        opened = next(filter(_is_opened, pattern.come_from(source)), None)
        if opened is None:
            return None  # only panels of one side are left of it
        halves = {side: parted(half, opened.name)[side] for side, half in halves.items()}
    plain = with_darts(step, lambda name: next((p.sides.name(name) for p in whole if name in p.sides.known), name))
    plain = plain.model_copy(update={"on": half_name(pattern.piece(step.on))}) if pattern.has(step.on) else plain
    return ByHalves(plain, halves, tuple(side for side in Side if not sides or side in sides), sources)


def paper_lines(step: Step, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
    """The paper procedure of a step: on a whole piece that of one side, and of the other where it differs. Raises as
    `Step.by_hand` does."""
    if step.over_shoulders and pattern.joins:
        parted, joins = apart(pattern)
        if joins:
            text = "Take the joined pieces apart where they were taped; tape them together again at the end."
            return (line("yokes_apart", text), *paper_lines(step, replace(parted, joins=()), context, way))
    plan = by_halves(step, pattern)
    if plan is None:
        return step.by_hand(pattern, context, way)
    halves = [(plan.step.for_side(side, plan.halves[side], context), plan.halves[side]) for side in plan.sides]
    found = [one.by_hand(half, context, way) for one, half in halves]
    on = words(plan.sources[0])
    if len(found) > 1 and found[0] == found[1]:
        text = "Do the same on the other side of the {on}."
        return (*found[0], line("both_sides", text, on=on))
    lines: list[Line] = []
    for side, mine in zip(plan.sides, found, strict=True):
        lines += [line("one_side", "On the {side} of the {on} as worn:", side=side.value, on=on), *mine]
    return tuple(lines)


def _texts(step: Step) -> Iterator[str]:
    """What it names by itself: an edge, a dart."""
    for field in type(step).model_fields:
        value = getattr(step, field)
        yield from (text for text in (value if isinstance(value, tuple) else (value,)) if isinstance(text, str))


def _with_sides(model: Made, whole: list[Piece]) -> Made:
    """A model whose places are named as on a half, with their side: `armhole` on the left for `armhole.left`."""

    def named(value: object) -> object:
        if isinstance(value, tuple):
            return tuple(named(part) for part in value)
        if isinstance(value, Spot) and value.edge is not None:
            sides = next((piece.sides for piece in whole if piece.sides.of(value.edge) is not None), None)
            return value if sides is None else value.model_copy(
                update={"edge": sides.name(value.edge), "side": sides.of(value.edge)}
            )  # fmt: skip
        return _with_sides(value, whole) if isinstance(value, Model) else value

    changed = {field: named(getattr(model, field)) for field in type(model).model_fields}
    return model.model_copy(update={field: new for field, new in changed.items() if new != getattr(model, field)})


def _spots(model: Model) -> Iterator[Spot]:
    """The places that it names, and those of what it holds."""
    for field in type(model).model_fields:
        value = getattr(model, field)
        for part in value if isinstance(value, tuple) else (value,):
            if isinstance(part, Spot):
                yield part
            elif isinstance(part, Model):
                yield from _spots(part)


def _on_one_side(pattern: Pattern, sources: tuple[str, ...], side: Side) -> Pattern:
    """A pattern's side, where the step itself has unfolded the half that it was given."""
    for source in sources:
        opened = next(filter(_is_opened, pattern.come_from(source)), None)
        if opened is not None:
            pattern = parted(pattern, opened.name)[side]
    return pattern


def _is_opened(piece: Piece) -> bool:
    return piece.is_unfolded and side_of(piece) is None


def _told(note: Note, side: Side) -> Note:
    return replace(note, text=f"{side.value} as worn: {note.text}")
