"""What neckline steps share: darts put away while an edge is drawn and brought back, the block's frame."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from shapely import LineString, Point, get_coordinates, intersection

from zesty_pivot.core.errors import PlaceError, StepError, ZestyError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.necklines.frame import Frame
from zesty_pivot.core.piece import Dart, Hold, Pattern, Piece, Place, Use
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.steps.base import Context, Note
from zesty_pivot.core.steps.dart_park import ParkDarts
from zesty_pivot.core.steps.dart_return import ReturnDarts

UPPER = ("neckline", "shoulder", "armhole", "centre")

# Where darts wait while an edge is drawn, the first that has a clear way.
AWAY = ("waist", "side_bust", "french", "side_waist")

CUT = ("style_line", "waist", "hem")  # edges of panels where they may wait as well

# A dart that is sewn over less than this (mm) inside the neckline is eased or pressed away; sewn points lie 2 cm off the pivot.
# Common practice, no source.
LEAST_SEWN, SETBACK = 15.0, 20.0

EASED_OVER = 20.0  # mm to either side. Common practice, no source.

_FRAMES: Kept[Frame] = Kept()


@dataclass(frozen=True)
class Cleared:
    """A pattern with the upper darts of a piece put away, and which."""

    pattern: Pattern
    darts: tuple[str, ...]


def cleared(
    pattern: Pattern, name: str, context: Context, leave: Iterable[str] = (), stations: Sequence[str] = AWAY,
    roles: Sequence[str] = UPPER,
) -> Cleared:  # fmt: skip
    """The pattern with no dart of a piece open above (in edges of these roles), except those round pivots to `leave`; they wait
    at the first of the stations with a clear way. Raises StepError."""
    away: list[str] = []
    left = set(leave)
    while True:
        piece = pattern.piece(name)
        dart = next((d for d in piece.darts if _is_in(piece, d, roles) and d.pivot not in left), None)
        if dart is None:
            return Cleared(pattern, tuple(away))
        pattern = _put_away(pattern, name, dart.id, stations, roles, context)
        away.append(dart.id)


def _is_in(piece: Piece, dart: Dart, roles: Sequence[str]) -> bool:
    return piece.role(piece.dart_edge(dart.id)) in roles


def _put_away(
    pattern: Pattern, name: str, dart: str, stations: Sequence[str], roles: Sequence[str], context: Context
) -> Pattern:  # fmt: skip
    spots = [Spot.model_validate({"station": station}) for station in stations]
    spots += [Spot(edge=edge, at=at) for edge, role in pattern.piece(name).roles if role in CUT for at in ("50%", "75%", "25%")]
    for spot in spots:
        try:
            made = ParkDarts(on=name, darts=(dart,), to=spot).apply(pattern, context).pattern
        except ZestyError:
            continue
        piece = made.piece(name)
        if not (piece.has_dart(dart) and _is_in(piece, piece.dart(dart), roles)):
            return made
    what = f"the {words(dart)} dart opens above and cannot wait elsewhere"
    raise StepError(what, where=name, advice="Move it to the waist or the side first.")


def frame_of(piece: Piece, drafted: Piece, unit: Unit) -> Frame:
    """The frame of a piece without darts above."""
    return Frame(piece, drafted, (piece.of or piece.name).startswith("back"), unit)


def block_frame(context: Context, name: str) -> Frame:
    """The frame of the untouched block's piece, from which starting values come. Raises as `cleared` does."""
    drafted = context.block.piece(name)

    def work() -> Frame:
        made = cleared(context.block, name, context)
        return frame_of(made.pattern.piece(name), drafted, context.scope.unit)

    return _FRAMES.get((drafted,), (context.scope.unit,), work)


def brought_back(
    pattern: Pattern, clean: Piece, name: str, away: tuple[str, ...], edges: Sequence[Path], context: Context, *, eased: bool
) -> tuple[Pattern, list[Note]]:  # fmt: skip
    """The darts that waited, back at their places; those whose way to their place meets the new edge open in it now, and are
    eased there where too little would be left to sew. `clean` is the piece before it was cut, `edges` the new edges on it.

    Raises StepError, PlaceError or GeometryError when one cannot come back.
    """
    piece = pattern.piece(name)
    rehomed: list[str] = []
    hosts = []
    for host in piece.darts:
        entries = []
        for entry in host.parked:
            met = _met(clean, entry.edge, entry.u, piece.pivot(host.pivot), edges)
            if met is not None:
                place = _place_on(piece, met)
                source, u = places.source_of(piece, place)
                entry = replace(entry, edge=source, u=u)
                rehomed.append(entry.id)
            entries.append(entry)
        hosts.append(replace(host, parked=tuple(entries)))
    pattern = pattern.with_piece(replace(piece, darts=tuple(hosts)))
    known = {entry.id for host in hosts for entry in host.parked}
    back = tuple(dart for dart in away if dart in known)
    if back:
        pattern = ReturnDarts(on=name, darts=back).apply(pattern, context).pattern
    notes = []
    for dart in back:
        if dart in rehomed:
            pattern, note = _ending_in_it(pattern, name, dart, context.scope.unit, eased=eased)
            notes.append(note)
    return pattern, notes


def _met(clean: Piece, edge: str, u: float, pin: Vector, new: Sequence[Path]) -> Vector | None:
    """Where the way from a pivot to a dart's place meets a new edge, nearest to the pivot; None where it does not."""
    try:
        home = places.point(clean, places.by_source(clean, edge, u))
    except PlaceError:
        return None
    way = LineString([pin, home + (home - pin) * 1e-6])
    points = [point for path in new for point in get_coordinates(intersection(way, LineString(path.outline)))]
    return None if not points else min(points, key=lambda point: math.dist(point, pin))


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


def _ending_in_it(pattern: Pattern, name: str, dart: str, unit: Unit, *, eased: bool) -> tuple[Pattern, Note]:
    """A dart that opens in the new edge now: sewn, or eased where its sewn line would be too short."""
    piece = pattern.piece(name)
    sewn = max(0.0, min(piece.legs(dart)) - SETBACK)
    text = format_length(sewn, unit)
    if eased and sewn < LEAST_SEWN and piece.dart(dart).use is Use.DART:
        hold = Hold(EASED_OVER, EASED_OVER)
        darts = tuple(replace(d, use=Use.EASE, hold=hold) if d.id == dart else d for d in piece.darts)
        note = Note(
            f"the {words(name)}'s {words(dart)} dart would be sewn over {text} only: it is eased in or pressed away", name, sewn
        )
        return pattern.with_piece(replace(piece, darts=darts)), note
    return pattern, Note(
        f"the {words(name)}'s {words(dart)} dart opens in the new edge now and is sewn over {text}", name, sewn
    )
