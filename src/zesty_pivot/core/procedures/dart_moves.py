"""Moving a dart, or a share of it, to another place round its pivot; several such moves in a row."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.cut import slit
from zesty_pivot.core.moves.join import SHUT, shut
from zesty_pivot.core.moves.swing import swing
from zesty_pivot.core.piece import Dart, Pattern, Piece, Place, Run, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.sides import Sided
from zesty_pivot.core.piece.spot import Spot, resolve, spot_words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record, replace

# A place nearer than this (mm, along the seam) to an open mouth means that dart: two mouths this close cannot
# be cut apart with scissors. Common practice, no source.
MERGE_WITHIN = 1.0

OPENING = "*"  # the new mouth's name while it opens; file ids cannot clash with it for long, it is renamed at once


@record
class DartMove:
    """A dart of a piece to be closed by a share of its angle, by what a mouth (mm) needs, or until so much of its own mouth
    (`stays_mm`) is left, and opened at a spot. `made` is the id of the new dart when a share goes; without it one is found."""

    on: str
    dart: str
    to: Spot
    share: float = 1.0
    mouth_mm: float | None = None
    made: str | None = None
    stays_mm: float | None = None


def move_dart(move: DartMove, pattern: Pattern, context: Context) -> Outcome:
    """The pattern with the dart moved; a dart that is there already takes it in. Raises StepError, PlaceError or GeometryError
    when it cannot be."""
    piece = pattern.piece(move.on)
    dart = piece.dart(move.dart)
    place, target = goal(move.to, piece, dart.pivot, context)
    if target == move.dart:
        # On another block the same recipe may well move it: no fault, but it is said.
        return Outcome(
            pattern, (Note(f"the {dart_words(piece, move.dart)} dart is there already, nothing was moved", move.on),)
        )
    angle = angle_moved(move, piece, place, target, context)
    whole = piece.angle(move.dart) - angle <= SHUT
    if target is None:
        moved = _opened(move, piece, place, angle, whole)
    else:
        moved = swing(piece, move.dart, target, angle)
        moved = _taken_in(shut(moved, move.dart), target, dart) if whole else moved
    return Outcome(pattern.with_piece(moved), _notes(move, piece, moved))


def walked(moves: Iterable[DartMove], pattern: Pattern, context: Context) -> Iterator[tuple[Pattern, DartMove, Outcome]]:
    """Each move with the pattern before it and what comes of it. Raises as `move_dart` does."""
    for move in moves:
        outcome = move_dart(move, pattern, context)
        yield pattern, move, outcome
        pattern = outcome.pattern


def move_darts(moves: Iterable[DartMove], pattern: Pattern, context: Context) -> Outcome:
    """The pattern after all moves, one after the other, with what they have to say. Raises as `move_dart` does."""
    made = Outcome(pattern)
    for _before, _move, outcome in walked(moves, pattern, context):
        made = made.then(outcome)
    return made


def angle_moved(move: DartMove, piece: Piece, place: Place, target: str | None, context: Context) -> float:
    """The angle (radians) that goes: a share of the dart, or what the asked mouth needs. Raises StepError."""
    held = piece.angle(move.dart)
    if move.stays_mm is not None:
        return held - _angle_left(move, piece, held, move.stays_mm, context.scope.unit)
    if move.mouth_mm is None:
        if move.share == 0.0:
            raise StepError("a share of 0% moves nothing", where=move.on, advice="Enter a share greater than 0%.")
        return held * move.share
    legs = legs_at(piece, piece.dart(move.dart).pivot, place, target)
    return min(
        held,
        mouth_angle(
            move.on, dart_words(piece, move.dart), spot_words(move.to, piece), move.mouth_mm, held, legs, context.scope.unit
        ),
    )


def _angle_left(move: DartMove, piece: Piece, held: float, stays: float, unit: Unit) -> float:
    """The angle (radians) that a dart keeps for its mouth to stay `stays` mm wide. Raises StepError when it is no wider now."""
    legs = Legs(*piece.legs(move.dart))
    wide = legs.mouth(held)
    if not 0.0 < stays < wide - 1e-6:
        what = f"{format_length(stays, unit)} of the {dart_words(piece, move.dart)} dart cannot stay: its mouth is"
        advice = f"Enter more than 0 and less than {format_length(wide, unit)}."
        raise StepError(f"{what} {format_length(wide, unit)}", where=move.on, advice=advice)
    return legs.angle(stays)


@record
class Legs:
    """Both legs (mm) of a dart at a place, and the angle (radians) that is open there already."""

    one: float
    two: float
    there: float = 0.0

    def mouth(self, angle: float) -> float:
        """The mouth (mm) that an angle (radians) opens between the legs, by the law of cosines in half angles."""
        return math.hypot(self.one - self.two, 2.0 * math.sqrt(self.one * self.two) * math.sin(angle / 2.0))

    def angle(self, mouth: float) -> float:
        """The angle (radians) whose mouth is so wide (mm): 2 asin(mouth / 2 r) for equal legs; none for one narrower than the
        legs differ."""
        chord = math.sqrt(max(0.0, mouth * mouth - (self.one - self.two) ** 2))
        return 2.0 * math.asin(min(1.0, chord / (2.0 * math.sqrt(self.one * self.two))))


def mouth_angle(on: str, dart: str, to: str, mouth: float, held: float, legs: Legs, unit: Unit) -> float:
    """The angle (radians) that must come to a place for its mouth to be `mouth` mm: what it takes less what is open there.
    `held` is what the dart has to give.

    Raises StepError when the mouth is wider than the dart can open it, or no wider than it is.
    """
    most, least = legs.mouth(min(held + legs.there, math.pi)), legs.mouth(legs.there)
    if not least < mouth <= most + 1e-9:
        raise StepError(
            f"the {dart} dart cannot open a mouth of {format_length(mouth, unit)} at {to}",
            where=on,
            advice=f"It can be up to {format_length(most, unit)}"
            + (f", and over {format_length(least, unit)}." if least else "."),
        )
    return legs.angle(mouth) - legs.there


def legs_at(piece: Piece, pivot: str, place: Place, target: str | None) -> Legs:
    """The legs of a dart that opens at a place, or of the one that is there already."""
    if target is not None:
        return Legs(*piece.legs(target), piece.angle(target))
    leg = math.dist(places.point(piece, place), piece.pivot(pivot))
    return Legs(leg, leg)


def goal(spot: Spot, piece: Piece, pivot: str, context: Context) -> tuple[Place, str | None]:
    """Where a spot lies on a piece, and the dart that opens there if one does. Raises PlaceError or FormulaError."""
    place = resolve(spot, piece, context.block.drafted(piece), context.scope, pivot)
    return place, places.mouth_at(piece, place) or _near_mouth(piece, place)


def centre_opened(piece: Piece) -> bool:
    """Whether a dart opens inside the centre line, so that it can no longer lie on the fold."""
    return any(
        run.mouth is not None
        and piece.role(run.edge) == "centre"
        and piece.role(piece.runs[piece.after(index)].edge) == "centre"
        for index, run in enumerate(piece.runs)
    )


def led_to_pivot(piece: Piece, dart: str) -> tuple[Note, ...]:
    """What there is to say when a dart that stops short of its pivot is moved: it is led to it first."""
    held = piece.dart(dart)
    if held.extended_mm <= 0.0:
        return ()
    named, pin = dart_words(piece, dart), words(held.pivot)
    text = f"the {named} dart stopped short of the {pin} and was extended to it; it is sewn as far from it"
    return (Note(text, piece.name, held.extended_mm),)


def _opened(move: DartMove, piece: Piece, place: Place, angle: float, whole: bool) -> Piece:
    """The piece with a new mouth at the place. A dart that goes whole keeps its id."""
    pivot = piece.dart(move.dart).pivot
    swung = swing(slit(piece, place, pivot, OPENING), move.dart, OPENING, angle)
    if whole:
        return _renamed(shut(swung, move.dart), move.dart, like=piece)
    return _renamed(swung, _new_id(move, piece, place), like=piece, giver=piece.dart(move.dart))


def _new_id(move: DartMove, piece: Piece, place: Place) -> str:
    if move.made is not None:
        if piece.has_dart(move.made):
            raise StepError(f"there is a dart {move.made!r} already", where=move.on, advice="Choose another id.")
        return move.made
    base = move.to.station or piece.runs[place.run].edge
    number, id = 2, base
    while piece.has_dart(id):
        number, id = number + 1, f"{base}-{number}"
    return id


def _notes(move: DartMove, before: Piece, after: Piece) -> tuple[Note, ...]:
    notes = led_to_pivot(before, move.dart)
    if centre_opened(after) and not centre_opened(before):
        parts = [run.path.length for run in after.runs if after.role(run.edge) == "centre"]
        keeps = format_length(max(parts), "cm")
        text = f"the dart opens on the centre: a seam is needed there, {keeps} stays on the grain"
        notes = (*notes, Note(text, move.on))
    return notes


def _near_mouth(piece: Piece, place: Place) -> str | None:
    """The dart whose mouth lies within MERGE_WITHIN of a place along the seam."""
    run = piece.runs[place.run]
    if run.mouth is not None and run.path.length - place.at < MERGE_WITHIN:
        return run.mouth
    before = piece.runs[place.run - 1]
    return before.mouth if before.mouth is not None and place.at < MERGE_WITHIN else None


def _renamed(piece: Piece, new: str, like: Piece, giver: Dart | None = None) -> Piece:
    """The dart that has opened under its id, keeping its use and its place in the list when it was there before; it is sewn
    to the point of the one that gave it something."""
    known = {dart.id: dart for dart in like.darts}
    # A point that the block brought keeps its distance from the pivot, wherever the dart or a share of it opens.
    if new in known:
        made = replace(known[new], beside=0.0)
    else:
        made = replace(piece.dart(OPENING), id=new)
        made = made if giver is None else replace(made, extended_mm=giver.extended_mm, at_tip=giver.at_tip)
    order = {dart.id: number for number, dart in enumerate(like.darts)}
    darts = sorted((made if d.id == OPENING else d for d in piece.darts), key=lambda d: order.get(d.id, len(order)))
    runs = tuple(Run(run.edge, run.path, run.source, new) if run.mouth == OPENING else run for run in piece.runs)
    side = piece.sides.of(made.pivot)  # a dart is of the side of its pivot, wherever it opens
    sides = piece.sides if side is None or new in piece.sides.known else piece.sides.joined({new: Sided(new, side)})
    return replace(piece, darts=tuple(darts), runs=runs, sides=sides)


def _taken_in(piece: Piece, host: str, guest: Dart) -> Piece:
    """What was put away in a dart stays put away in the one that takes it in."""
    if not guest.parked:
        return piece
    held = tuple(replace(d, parked=d.parked + guest.parked) if d.id == host else d for d in piece.darts)
    return replace(piece, darts=held)
