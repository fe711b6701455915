"""What a dart's fullness is used as: gathers, tucks, soft pleats, ease, flare, or a sewn dart again."""

from __future__ import annotations

from typing import Literal

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance, open_up
from zesty_pivot.core.piece import Dart, Hold, Pattern, Piece, Shape, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_darts
from zesty_pivot.core.procedures.dart_shares import fanned, grouped, main_of, together
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

As = Literal["dart", "gathers", "tucks", "pleats", "ease", "flare"]
Cloth = Literal["firm", "medium", "soft"]

USES: dict[As, Use] = {
    "dart": Use.DART, "gathers": Use.GATHERS, "tucks": Use.TUCK, "pleats": Use.PLEAT, "ease": Use.EASE, "flare": Use.FLARE,
}  # fmt: skip

# How much of a seam a cloth takes as ease without a pucker. Common practice, no source.
EASE_LIMIT: dict[Cloth, float] = {"firm": 0.03, "medium": 0.06, "soft": 0.10}

# Gathers and ease reach this far (mm) to either side of the mouth when nothing is said. Common practice, no source.
_REACH = 50.0


@record
class UseAsked:
    """How a dart of a piece is to be used. Lengths in mm: the `spacing` of tucks and pleats, how far a tuck is `stitched`, over
    how much of the sewn seam it is gathered or eased (by a `ratio`, or as usual, when None), how far that edge is raised."""

    on: str
    dart: str
    as_: As
    count: int = 2
    spacing: float = 30.0
    stitched: float = 60.0
    over: float | None = None
    ratio: float | None = None
    raised: float = 5.0
    cloth: Cloth = "medium"


def moves_to_use(using: UseAsked, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
    """Tucks and pleats made of it before become one, then as many as are asked. Raises StepError for no room."""
    piece = pattern.piece(using.on)
    main, found = main_of(piece, using.dart), list(together(piece, using.dart))
    if using.as_ in ("tucks", "pleats") and using.count > 1:
        piece = move_darts(found, pattern, context).pattern.piece(using.on)
        found += fanned(piece, main, using.count, using.spacing, context)
    return tuple(found)


def use_dart(using: UseAsked, pattern: Pattern, context: Context) -> Outcome:
    """The pattern with a dart's use changed. Raises StepError, in one sentence with what would work, for what cannot be."""
    main = main_of(pattern.piece(using.on), using.dart)
    moves = moves_to_use(using, pattern, context)
    outcome = move_darts(moves, pattern, context)
    piece = outcome.pattern.piece(using.on)
    made = [move for move in moves if move.made is not None]
    members = [main, *(move.made or "" for move in made)]
    if made:
        piece = grouped(piece, main, made)
    hold = _hold(using, piece, main, members, context)

    def used(each: Dart) -> Dart:
        if each.id not in members:
            return each
        group = each.group if len(members) > 1 else ""
        return replace(each, use=USES[using.as_], hold=hold, group=group, shape=Shape())

    piece = replace(piece, darts=tuple(used(each) for each in piece.darts))
    return Outcome(outcome.pattern.with_piece(piece), (*outcome.notes, *_notes(using, piece, members, context)))


def _hold(using: UseAsked, piece: Piece, main: str, members: list[str], context: Context) -> Hold:
    if using.as_ in ("gathers", "ease"):
        before, after = _stretch(using, piece, main, context)
        raised = using.raised if using.as_ == "gathers" else 0.0
        if raised < 0.0:
            raise StepError("a gathered edge can only be raised", where=using.on, advice="Enter 0 or more.")
        _refuse_other_mouths(using, piece, main, before, after)
        return Hold(before, after, raised)
    if using.as_ == "pleats" and using.count > 1:
        _refuse_deep(using, piece, members, context)
    if using.as_ == "tucks":
        stitched = using.stitched
        if stitched <= 0.0:
            raise StepError("a tuck must be stitched over more than 0", where=using.on, advice="Enter a length such as 6 cm.")
        if using.count > 1:
            _refuse_deep(using, piece, members, context)
        shortest = min(min(piece.legs(id)) for id in members)
        if stitched > shortest:
            long, unit = format_length(shortest, context.scope.unit), context.scope.unit
            what = f"tucks of {format_length(stitched, unit)} are longer than the way to the pivot"
            raise StepError(what, where=using.on, advice=f"Stitch up to {long}.")
        return Hold(stitched_mm=stitched)
    return Hold()


def _refuse_deep(using: UseAsked, piece: Piece, members: list[str], context: Context) -> None:
    """A pleat or tuck lies over its neighbour when it is deeper than the spacing."""
    deep, spacing = max(piece.intake(id) for id in members) / 2.0, using.spacing
    if deep > spacing:
        unit = context.scope.unit
        apart = format_length(spacing, unit)
        what = f"{using.as_} {format_length(deep, unit)} deep overlap at a spacing of {apart}"
        least = format_length(deep + 0.5, unit)
        raise StepError(what, where=using.on, advice=f"Space them {least} or more, or make more of them.")


def _stretch(using: UseAsked, piece: Piece, main: str, context: Context) -> tuple[float, float]:
    """How far (mm) to either side of the mouth the seam is gathered or eased along with it."""
    unit, taken = context.scope.unit, piece.intake(main)
    at, total = mouth_distance(piece, main), piece.edge(home_edge(piece, main)).sewn_length
    if using.over is not None:
        over = using.over
    elif using.ratio is not None:
        over = taken / (using.ratio - 1.0)
    else:
        over = min(2.0 * _REACH, total)
    if over <= 0.0:
        raise StepError("the stretch must be longer than 0", where=using.on, advice="Enter a length such as 8 cm.")
    if over > total:
        what = f"a stretch of {format_length(over, unit)} is longer than the {words(home_edge(piece, main))}"
        least = f" (a ratio of {1.0 + taken / total:.2f} or more)" if using.ratio is not None else ""
        raise StepError(what, where=using.on, advice=f"Up to {format_length(total, unit)}{least}.")
    if using.as_ == "ease":
        _refuse_ease(using, taken, over, total, context)
    start = min(max(at - over / 2.0, 0.0), total - over)
    return at - start, start + over - at


def _refuse_ease(using: UseAsked, taken: float, over: float, total: float, context: Context) -> None:
    limit, unit = EASE_LIMIT[using.cloth], context.scope.unit
    if taken > limit * over:
        most = format_length(limit * over, unit, fine=True)
        asked = f"{format_length(taken, unit, fine=True)} of ease over {format_length(over, unit)}"
        what = f"{asked} is {100 * taken / over:.0f}%, and {using.cloth} cloth takes {100 * limit:.0f}%"
        wider = f"ease it over {format_length(taken / limit, unit)}, or " if taken / limit <= total else ""
        raise StepError(what, where=using.on, advice=f"Leave up to {most} here: {wider}move the rest elsewhere first.")


def _refuse_other_mouths(using: UseAsked, piece: Piece, main: str, before: float, after: float) -> None:
    edge, at = home_edge(piece, main), mouth_distance(piece, main)
    for other in piece.darts:
        if other.id == main or home_edge(piece, other.id) != edge:
            continue
        there = mouth_distance(piece, other.id)
        if at - before < there < at + after:
            what = f"the {words(other.id)} dart opens in the stretch that would be taken up"
            raise StepError(what, where=using.on, advice="Move one of the two aside, or make the stretch shorter.")


def _notes(using: UseAsked, piece: Piece, members: list[str], context: Context) -> tuple[Note, ...]:
    unit = context.scope.unit
    if using.as_ in ("gathers", "ease"):
        opened = next(found for found in open_up(piece)[1] if found.dart.id in members)
        long, short = format_length(opened.open_mm, unit), format_length(opened.sewn_mm, unit)
        verb = "gather" if using.as_ == "gathers" else "ease"
        text = f"{verb} {long} of the {words(opened.edge)} to {short}, {opened.open_mm / opened.sewn_mm:.2f} to 1"
        return (Note(text, using.on, opened.taken_mm),)
    if using.as_ == "flare":
        wide = next(found for found in open_up(piece)[1] if found.dart.id in members).open_mm
        text = f"the {words(home_edge(piece, members[0]))} becomes {format_length(wide, unit)} wider and stays open"
        return (Note(text, using.on, wide),)
    if using.as_ in ("tucks", "pleats"):
        wide = piece.intake(members[0])
        return (Note(f"each takes {format_length(wide, unit, fine=True)} of the seam", using.on, wide),)
    return ()
