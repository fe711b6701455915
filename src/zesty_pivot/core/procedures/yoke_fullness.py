"""What opens in a yoke's seam: a dart led to it from elsewhere, and its fullness sewn, gathered, pleated or tucked there."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.moves.open_up import mouth_distance
from zesty_pivot.core.piece import Pattern, Piece, Use, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.clearing import ending_in_it, first_way
from zesty_pivot.core.procedures.dart_uses import As, UseAsked, use_dart
from zesty_pivot.core.procedures.letting_in import notched

SeamDarts = Literal["sewn", "gathers", "pleats", "tucks"]

USED: dict[SeamDarts, As] = {"gathers": "gathers", "pleats": "pleats", "tucks": "tucks"}

COUNTS, SPACINGS = (2, 3, 4), (30.0, 40.0, 20.0)  # of pleats and tucks, mm; the first for which there is room. Our own choice

PLACES = ("50%", "40%", "60%", "30%", "70%")  # of the seam where a dart may open that has nowhere nearer. Our own choice


def opened_in_seam(
    pattern: Pattern, name: str, edge: str, led: str | None, use: SeamDarts, context: Context
) -> Outcome:  # fmt: skip
    """The pattern with a dart of the piece below a yoke led to the yoke's seam (`edge` of the piece `name`), and every dart
    that opens in it put to its use. Raises StepError where a dart has no way there or its fullness no room."""
    made = Outcome(pattern)
    if led is not None:
        made = _led(pattern, name, edge, led, context)
    if use == "sewn":
        return made
    darts = _opening(made.pattern.piece(name), edge)
    if not darts:
        what = f"no dart opens in the seam of the {words(name)} to make {use} of"
        raise StepError(
            what, where=name, advice="Choose a dart that is led to the seam, or let in fullness by a step of its own."
        )
    for dart in darts:
        made = made.then(_used(made.pattern, name, edge, dart, use, context))
    return made


def shut_above_seam(pattern: Pattern, name: str, context: Context) -> Outcome:
    """The pattern with the darts of a hip yoke shut that end above its lower seam: what is left of them opens there, and is
    sewn, or eased where that would be too short. Raises StepError for one that has no way there."""
    made, edge = Outcome(pattern), pattern.lines[-1].id
    for dart in [dart.id for dart in pattern.piece(name).darts if dart.use is Use.DART]:
        made = made.then(_led(made.pattern, name, edge, dart, context))
        after, note = ending_in_it(made.pattern, name, dart, context, eased=True)
        made = made.then(Outcome(after, (note,)))
    return made


def _opening(piece: Piece, edge: str) -> list[str]:
    return [dart.id for dart in piece.darts if dart.use is Use.DART and piece.dart_edge(dart.id) == edge]


def _led(pattern: Pattern, name: str, edge: str, led: str, context: Context) -> Outcome:
    piece = pattern.piece(name)
    dart = piece.dart(led)
    if piece.dart_edge(led) == edge:
        return Outcome(pattern)
    there = [Spot(dart=id) for id in _opening(piece, edge) if piece.dart(id).pivot == dart.pivot]
    above = [Spot(edge=edge, as_far_as=dart.pivot)]
    made = first_way(pattern, name, led, [*there, *above, *(Spot(edge=edge, at=at) for at in PLACES)], context)
    if made is None:
        what = f"the {dart_words(piece, led)} dart has no clear way to the yoke's seam"
        raise StepError(what, where=name, advice="Move what lies between out of the way first, or leave it where it is.")
    return made


def _used(pattern: Pattern, name: str, edge: str, dart: str, use: SeamDarts, context: Context) -> Outcome:
    first: ZestyError | None = None
    for asked in _ways(name, dart, USED[use]):
        try:
            made = use_dart(asked, pattern, context)
        except ZestyError as fault:
            first = first or fault
            continue
        if use != "gathers":
            return made
        piece = made.pattern.piece(name)
        at, hold = mouth_distance(piece, dart), piece.dart(dart).hold
        ends = [at - hold.before_mm, at + hold.after_mm]
        return Outcome(notched(made.pattern, name, edge, ends, f"gather {dart}"), made.notes)
    assert first is not None
    raise first


def _ways(name: str, dart: str, as_: As) -> Iterator[UseAsked]:
    if as_ == "gathers":
        yield UseAsked(name, dart, as_)
        return
    for count in COUNTS:
        for spacing in SPACINGS:
            for stitched in (60.0, 30.0):
                yield UseAsked(name, dart, as_, count, spacing, stitched)
