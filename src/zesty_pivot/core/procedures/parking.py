"""Darts put away where they are in nobody's way, each remembering where on the cloth it came from; and brought back."""

from __future__ import annotations

from collections.abc import Collection, Mapping

from zesty_pivot.core.errors import PlaceError, StepError, one_of
from zesty_pivot.core.piece import Dart, Parked, Pattern, Piece, Place, called, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, spot_words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, goal, move_dart, move_darts
from zesty_pivot.core.record import replace

_SLACK = 1e-9  # radians: what is parked may be this much more than what is there, the noise of float64


def park(pattern: Pattern, on: str, dart: str, to: Spot, context: Context) -> Outcome:
    """The pattern with a dart put away whole. Raises StepError for one that lies there already, else as `move_dart` does."""
    piece = pattern.piece(on)
    host = goal(to, piece, piece.dart(dart).pivot, context)[1]
    if host == dart:
        what = f"the {dart_words(piece, dart)} dart lies at {spot_words(to, piece)} already"
        raise StepError(what, where=on, advice="Park it elsewhere, or leave it out.")
    outcome = move_dart(DartMove(on, dart, to), pattern, context)
    # What was put away in the dart before goes with it, and comes back with it.
    entry = parked(piece, dart)
    already = piece.dart(host).parked if host is not None else ()
    held = _remembering(outcome.pattern.piece(on), host or dart, (*already, entry))
    return replace(outcome, pattern=outcome.pattern.with_piece(held))


def home_mark(name: str) -> str:
    """The name of the mark where a parked dart came from; it was called so there."""
    return f"home of the {words(name)} dart"


def parked(piece: Piece, dart: str) -> Parked:
    """What has to be remembered of a dart that is put away."""
    index = piece.mouth_run(dart)
    home = places.origin_of(piece, Place(index, piece.runs[index].path.length))
    held = piece.dart(dart)
    return Parked(
        dart, home, piece.angle(dart), held.use, held.hold, held.extended_mm, held.beside, called(piece, dart), held.parked,
        held.at_tip,
    )  # fmt: skip


def moves_home(
    piece: Piece, darts: Collection[str] = (), homes: Mapping[str, Spot] | None = None
) -> tuple[DartMove, ...]:  # fmt: skip
    """The moves that take parked darts (all, when none is named) back: to their places on the cloth, or to `homes`. Raises
    StepError when nothing is parked or something of it has gone."""
    found: list[DartMove] = []
    for host in piece.darts:
        left = piece.angle(host.id)
        for entry in _entries(piece, host, darts):
            if entry.angle > left + _SLACK:
                what = f"part of the {words(entry.called)} dart has been moved since it was parked"
                raise StepError(what, where=piece.name, advice="Bring it back before that step, or move it by a share.")
            to = (homes or {}).get(entry.id) or _home(piece, entry)
            if left - entry.angle <= _SLACK:
                found.append(DartMove(piece.name, host.id, to))
            else:
                found.append(DartMove(piece.name, host.id, to, entry.angle / left, made=entry.id))
            left -= entry.angle
    if not found:
        known = _known(piece)
        advice = f"Bring back {' or '.join(known)}." if known else "Park a dart first."
        what = "no such dart is parked" if darts else "nothing is parked"
        raise StepError(what, where=piece.name, advice=advice)
    return tuple(found)


def bring_home(
    pattern: Pattern, on: str, darts: Collection[str], context: Context, homes: Mapping[str, Spot] | None = None
) -> Outcome:  # fmt: skip
    """The pattern with parked darts back, with the use that they had. Raises as `moves_home` and `move_dart` do."""
    before = pattern.piece(on)
    back = {entry.id: entry for host in before.darts for entry in _entries(before, host, darts)}
    outcome = move_darts(moves_home(before, darts, homes), pattern, context)

    def home(dart: Dart) -> Dart:
        rest = tuple(entry for entry in dart.parked if entry.id not in back)
        entry = back.get(dart.id)
        if entry is None:
            return replace(dart, parked=rest)
        beside = 0.0 if dart.id in (homes or {}) else entry.beside
        inner = (*rest, *entry.parked)
        made = replace(dart, parked=inner, use=entry.use, hold=entry.hold)
        return replace(made, extended_mm=entry.extended_mm, beside=beside, at_tip=entry.at_tip)

    piece = outcome.pattern.piece(on)
    return replace(outcome, pattern=outcome.pattern.with_piece(replace(piece, darts=tuple(home(d) for d in piece.darts))))


def _known(piece: Piece) -> list[str]:
    return [entry.id for host in piece.darts for entry in host.parked]


def _entries(piece: Piece, host: Dart, darts: Collection[str]) -> list[Parked]:
    """What comes back out of a dart: guests first, the dart itself last."""
    known = _known(piece)
    for name in darts:
        if known and name not in known:
            what, advice = one_of("parked dart", name, known)
            raise StepError(what, where=piece.name, advice=advice)
    chosen = [entry for entry in host.parked if not darts or entry.id in darts]
    return sorted(chosen, key=lambda entry: entry.id == host.id)


def _home(piece: Piece, entry: Parked) -> Spot:
    try:
        place = places.by_origin(piece, entry.home)
    except PlaceError as fault:
        what = f"the place that the {words(entry.called)} dart came from has been cut away"
        raise StepError(what, where=piece.name, advice="Move it to another place instead.") from fault
    return Spot(edge=piece.runs[place.run].edge, at=f"{places.sewn_distance(piece, place)!r} mm")


def _remembering(piece: Piece, host: str, entries: tuple[Parked, ...]) -> Piece:
    return replace(piece, darts=tuple(replace(d, parked=entries) if d.id == host else d for d in piece.darts))
