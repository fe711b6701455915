"""Darts out of the way while an edge is drawn or a seam is moved, and back when it is done."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import field

from shapely import LineString, Point, get_coordinates, intersection

from zesty_pivot.core.conventions.sewing import sewn_point
from zesty_pivot.core.errors import PlaceError, StepError, ZestyError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Dart, Hold, Origin, Parked, Pattern, Piece, Place, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import UPPER, words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, led_to_pivot, move_dart
from zesty_pivot.core.procedures.parking import bring_home, park
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

ABOVE = (*UPPER, "centre")  # where a dart is in the way of a neckline

# Where darts wait while an edge is drawn, the first that has a clear way.
AWAY = ("waist", "side_bust", "french", "side_waist")

CUT = ("style_line", "waist", "hem")  # edges of panels where they may wait as well

# A dart that is sewn over less than this (mm) inside the neckline is eased or pressed away. Common practice, no source.
LEAST_SEWN = 15.0

ON_PAPER = 150.0  # mm that a way is drawn on beyond its old place to an edge raised above it

EASED_OVER = 20.0  # mm to either side. Common practice, no source.

Taking = Callable[[Pattern, str, str, Spot, Context], Outcome]


@record
class Cleared:
    """A pattern with some darts of a piece put away, which, and what there is to say about it."""

    pattern: Pattern
    darts: tuple[str, ...]
    notes: tuple[Note, ...] = field(default=())


def cleared(
    pattern: Pattern, name: str, context: Context, leave: Iterable[str] = (), stations: Sequence[str] = AWAY,
    roles: Sequence[str] = ABOVE,
) -> Cleared:  # fmt: skip
    """The pattern with no dart of a piece open in edges of these roles, except those round pivots to `leave`; they wait, each
    remembering its place, at the first of the stations with a clear way. Raises StepError."""
    away: list[str] = []
    notes: list[Note] = []
    left = set(leave)
    spots = [station_of(station) for station in stations]
    while True:
        piece = pattern.piece(name)
        waiting = [dart.id for dart in piece.darts if _is_in(piece, dart, roles) and dart.pivot not in left]
        if not waiting:
            return Cleared(pattern, tuple(away), tuple(notes))
        # One may be in the way of another.
        found = ((dart, _put_away(pattern, name, dart, spots, roles, context)) for dart in waiting)
        dart, made = next(((dart, made) for dart, made in found if made is not None), (waiting[0], None))
        if made is None:
            edge = words(piece.dart_edge(dart))
            what = f"the {dart_words(piece, dart)} dart opens in the {edge} and cannot wait elsewhere"
            raise StepError(what, where=name, advice="Move it to another seam first.")
        notes += led_to_pivot(piece, dart)
        pattern = made
        away.append(dart)


def _is_in(piece: Piece, dart: Dart, roles: Sequence[str]) -> bool:
    return piece.role(piece.dart_edge(dart.id)) in roles


def _put_away(
    pattern: Pattern, name: str, dart: str, spots: Sequence[Spot], roles: Sequence[str], context: Context
) -> Pattern | None:  # fmt: skip
    def is_clear(piece: Piece) -> bool:
        return not (piece.has_dart(dart) and _is_in(piece, piece.dart(dart), roles))

    made = first_way(pattern, name, dart, [*spots, *on_cut_edges(pattern.piece(name))], context, is_clear, park)
    return None if made is None else made.pattern


def on_cut_edges(piece: Piece) -> list[Spot]:
    """Places of the edges that a piece was cut along, and of its lower edge, where darts may wait."""
    return [Spot(edge=edge, at=at) for edge, role in piece.roles if role in CUT for at in ("50%", "75%", "25%")]


def station_of(name: str, side: str | None = None) -> Spot:
    """A station as a spot. Raises pydantic's ValidationError for a name that is none."""
    return Spot.model_validate({"station": name, "side": side} if side else {"station": name})


def whole(pattern: Pattern, name: str, dart: str, to: Spot, context: Context) -> Outcome:
    """The pattern with a dart moved whole, for good. Raises as `move_dart` does."""
    return move_dart(DartMove(name, dart, to), pattern, context)


def first_way(
    pattern: Pattern, name: str, dart: str, spots: Iterable[Spot], context: Context,
    fits: Callable[[Piece], bool] = lambda _piece: True, way: Taking = whole,
) -> Outcome | None:  # fmt: skip
    """What comes of a dart taken to the first of the spots where it can go and the piece then `fits`; None for no such spot."""
    for spot in spots:
        try:
            made = way(pattern, name, dart, spot, context)
        except ZestyError:
            continue
        if fits(made.pattern.piece(name)):
            return made
    return None


def brought_back(
    pattern: Pattern, clean: Piece, name: str, away: tuple[str, ...], edges: Sequence[Path], context: Context, *, eased: bool
) -> tuple[Pattern, list[Note]]:  # fmt: skip
    """The darts that waited, back at their places; those whose way to their place meets the new edge open in it now, and are
    eased there where too little would be left to sew. `clean` is the piece before it was cut, `edges` the new edges on it.

    Raises StepError, PlaceError or GeometryError when one cannot come back.
    """
    piece = pattern.piece(name)
    rehomed: list[str] = []

    def led(entry: Parked, pin: Vector) -> Parked:
        """What is put away, and what was put away in it, with the new edge as its home where its way home meets that."""
        inner = tuple(led(one, pin) for one in entry.parked)
        met = _met(clean, entry.home, pin, edges, above=_is_cut_away(piece, entry.home))
        if met is None:
            return replace(entry, parked=inner)
        rehomed.append(entry.id)
        return replace(entry, parked=inner, home=places.origin_of(piece, _place_on(piece, met)))

    hosts = [replace(host, parked=tuple(led(entry, piece.pivot(host.pivot)) for entry in host.parked)) for host in piece.darts]
    pattern = pattern.with_piece(replace(piece, darts=tuple(hosts)))
    known = {entry.id for host in hosts for entry in host.parked}
    back = tuple(dart for dart in away if dart in known)
    for dart in reversed(back):  # one may have been in the way of another
        pattern = bring_home(pattern, name, (dart,), context).pattern
    notes = []
    for dart in back:
        if dart in rehomed:
            pattern, note = ending_in_it(pattern, name, dart, context, eased=eased)
            notes.append(note)
    return pattern, notes


def _is_cut_away(piece: Piece, at: Origin) -> bool:
    try:
        places.by_origin(piece, at)
    except PlaceError:
        return True
    return False


def _met(clean: Piece, at: Origin, pin: Vector, new: Sequence[Path], *, above: bool) -> Vector | None:
    """Where the way from a pivot to a dart's place meets a new edge, nearest to the pivot; None where it does not. `above` when
    the new edge may run beyond the place, on paper that was taped on: there the way is drawn on."""
    try:
        home = places.point(clean, places.by_origin(clean, at))
    except PlaceError:
        return None
    found = []
    for reach in (1e-6, ON_PAPER / max(math.dist(home, pin), 1.0)) if above else (1e-6,):
        way = LineString([pin, home + (home - pin) * reach])
        found = [point for path in new for point in get_coordinates(intersection(way, LineString(path.outline)))]
        if found:
            break
    return min(found, key=lambda point: math.dist(point, pin), default=None)


def _place_on(piece: Piece, point: Vector) -> Place:
    """The place of the ring nearest to a point that lies on it within the flatness of a polyline."""
    best = (math.inf, Place(0, 0.0))
    for index, run in enumerate(piece.runs):
        line = LineString(run.path.outline)
        share = line.project(Point(point), normalized=True)
        at = share * run.path.length
        off = math.dist(run.path.point_at(at), point)
        if off < best[0]:
            best = (off, places.settled(piece, index, at))
    return best[1]


def ending_in_it(pattern: Pattern, name: str, dart: str, context: Context, *, eased: bool) -> tuple[Pattern, Note]:
    """The pattern with a dart that opens in a new edge now: sewn, or eased where its sewn line would be too short; and what
    there is to say."""
    piece = pattern.piece(name)
    point = sewn_point(piece, dart, context.sewing)
    sewn = min(math.dist(end, point) for end in piece.mouth(dart))
    text = format_length(sewn, context.scope.unit)
    if eased and sewn < LEAST_SEWN and piece.dart(dart).use is Use.DART:
        hold = Hold(EASED_OVER, EASED_OVER)
        darts = tuple(replace(d, use=Use.EASE, hold=hold) if d.id == dart else d for d in piece.darts)
        note = Note(
            f"the {words(name)}'s {dart_words(piece, dart)} dart would be only {text} long: it is eased in or pressed away",
            name,
            sewn,
        )
        return pattern.with_piece(replace(piece, darts=darts)), note
    return pattern, Note(
        f"the {words(name)}'s {dart_words(piece, dart)} dart now opens on the new edge and is sewn over {text}", name, sewn
    )
