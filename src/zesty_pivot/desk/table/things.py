"""What lies on the table to be pointed at: edges, darts, notches and pieces; which of them is under a place."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Literal

from PyQt6.QtCore import QPointF

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.balance import balance_point, notch_distances
from zesty_pivot.core.piece import Pattern, Piece, Side
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import ALL_STATIONS, Spot, resolve
from zesty_pivot.core.quantity import MM_PER, Scope, Unit, inch_fraction
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.lying import FLAT, Layout
from zesty_pivot.desk.table.outline import outline_of
from zesty_pivot.desk.table.shapes import shapes_of

Kind = Literal["edge", "dart", "notch", "piece"]
STEP = {"mm": 1.0, "cm": 1.0, "in": 25.4 / 8.0}  # mm: a place is named to so much, as people measure


@record
class Thing:
    """Something on the table. `id` is an edge, a dart or a notch; `along` is how far (mm, sewn) along its edge the place is
    that was pointed at, and `at` the same place on the piece once sewn (mm)."""

    kind: Kind
    piece: str
    id: str = ""
    along: float = 0.0
    at: tuple[float, float] = (0.0, 0.0)

    @property
    def key(self) -> tuple[str, str, str]:
        """What it is, wherever on it was pointed."""
        return self.kind, self.piece, self.id


def thing_at(pattern: Pattern, layout: Layout, at: tuple[float, float], within: float) -> Thing | None:
    """What lies under a place of the table (mm): an edge or a notch within so far (mm), else a dart, else a piece."""
    found: list[tuple[float, Piece, Thing]] = []
    inside: Thing | None = None
    for piece in pattern.with_extras:
        here = layout.get(piece.name, FLAT).on_piece(at)
        if not _is_near(piece, here, within):
            continue
        outline = outline_of(piece)
        near = outline.nearest(here)
        if near.away <= within:
            place = outline.place(near)
            if place is not None:
                found.append((near.away, piece, _on_edge(piece, place.run, place.at, within)))
            continue
        dart = outline.dart_at(here, within)
        if dart is not None:
            inside = Thing("dart", piece.name, dart, at=here)
        elif inside is None and _holds(piece, here):
            inside = Thing("piece", piece.name, at=here)
    return min(found, key=lambda one: one[0])[2] if found else inside


def _is_near(piece: Piece, at: tuple[float, float], within: float) -> bool:
    box = shapes_of(piece).box
    return box.left() - within <= at[0] <= box.right() + within and box.top() - within <= at[1] <= box.bottom() + within


def _holds(piece: Piece, at: tuple[float, float]) -> bool:
    return shapes_of(piece).fill.contains(QPointF(*at))


def _on_edge(piece: Piece, run: int, at: float, within: float) -> Thing:
    place = places.Place(run, at)
    edge, along, point = piece.runs[run].edge, places.sewn_distance(piece, place), places.point(piece, place)
    for id, far in notches_of(piece, edge):
        if abs(far - along) <= within:
            where = places.point(piece, places.along(piece, edge, far))
            return Thing("notch", piece.name, id, far, (float(where[0]), float(where[1])))
    return Thing("edge", piece.name, edge, along, (float(point[0]), float(point[1])))


def notches_of(piece: Piece, edge: str) -> Iterator[tuple[str, float]]:
    """The notches of an edge, `edge:name`, with how far (mm) along it they are: its balance notch, and those of panels."""
    balance = balance_point(piece, edge)
    if balance is not None and piece.runs[balance.run].edge == edge:
        yield f"{edge}:balance", places.sewn_distance(piece, balance)
    for id, far in notch_distances(piece, edge, from_end=False).items():
        yield f"{edge}:{id}", far


def edge_of(thing: Thing) -> str:
    """The edge that an edge or a notch is on."""
    return thing.id.partition(":")[0] if thing.kind == "notch" else thing.id


def in_order(pattern: Pattern) -> list[Thing]:
    """Everything that Tab walks through: the edges of each piece round from the neck, the darts that open on each behind it."""
    found: list[Thing] = []
    for piece in pattern.with_extras:
        for id, _role in piece.roles:
            middle = piece.edge(id).sewn_length / 2.0
            found.append(_edge_thing(piece, id, middle))
            found += [Thing("dart", piece.name, dart.id, at=_middle(piece, dart.id)) for dart in piece.darts
                      if piece.dart_edge(dart.id) == id]  # fmt: skip
    return found


def thing_of(pattern: Pattern, piece: str, place: str) -> Thing | None:
    """What is meant by a place as findings name it: an edge or a dart of a piece (`waist:3`, `shoulder`), else the piece."""
    pieces = [one for one in pattern.with_extras if one.name == piece] or list(pattern.come_from(piece))
    named = place.replace(".", ":").split(":")
    for one in pieces:
        for name in (place, *named):
            if one.has_dart(name):
                return Thing("dart", one.name, name, at=_middle(one, name))
            edge = next((id for id, role in one.roles if name in (id, role)), None)
            if edge is not None:
                return _edge_thing(one, edge, one.edge(edge).sewn_length / 2.0)
    return Thing("piece", pieces[0].name, at=(0.0, 0.0)) if pieces else None


def moved_along(pattern: Pattern, thing: Thing, by: float) -> Thing:
    """A place on an edge further along it by mm, no further than its ends."""
    piece = next(piece for piece in pattern.with_extras if piece.name == thing.piece)
    edge = edge_of(thing)
    return _edge_thing(piece, edge, min(max(thing.along + by, 0.0), piece.edge(edge).sewn_length))


def _edge_thing(piece: Piece, edge: str, along: float) -> Thing:
    point = places.point(piece, places.along(piece, edge, along))
    return Thing("edge", piece.name, edge, along, (float(point[0]), float(point[1])))


def _middle(piece: Piece, dart: str) -> tuple[float, float]:
    first, second = piece.mouth(dart)
    return float(first[0] + second[0]) / 2.0, float(first[1] + second[1]) / 2.0


def spot_of(piece: Piece, block: Piece, edge: str, along: float, unit: Unit, snap: float) -> Spot:
    """How a place so far (mm) along an edge is said: the station that lies within `snap` (mm), else so far from the nearer end
    of the edge, to a millimetre or an eighth of an inch."""
    place = places.along(piece, edge, along)
    for name in ALL_STATIONS:
        known = _station(piece, block, name, edge)
        if known is not None and abs(known - along) <= snap:
            return Spot(station=name, side=_side(piece, edge))
    total, role = piece.edge(edge).sewn_length, piece.role(edge)
    ends = piece.ends.get(role)
    is_far = along > total / 2.0
    if ends is None or piece.sides.of(edge) is Side.RIGHT:
        share = 100.0 * places.sewn_distance(piece, place) / total
        return Spot(edge=edge, at=f"{share:.1f}%")
    away = total - along if is_far else along
    said = said_length(away, unit, total)
    return Spot.model_validate({"edge": edge, "from": ends[1] if is_far else ends[0], "at": said})


def said_length(mm: float, unit: Unit, most: float = math.inf) -> str:
    """A length as people say one that they point at: to a millimetre, or to an eighth of an inch; not over `most`."""
    step = STEP[unit]
    rounded = round(mm / step) * step
    while rounded > most:
        rounded -= step
    if unit == "in":
        return f"{inch_fraction(rounded)} in"
    return f"{max(rounded, 0.0) / MM_PER[unit]:.4g} {unit}"


def _side(piece: Piece, edge: str) -> str | None:
    side = piece.sides.of(edge) if piece.is_unfolded else None
    return None if side is None else side.value


def _station(piece: Piece, block: Piece, name: str, edge: str) -> float | None:
    """How far (mm) along an edge a station lies; None where it lies on another."""
    pivots = [dart.pivot for dart in piece.darts] or list(piece.landmarks)
    try:
        spot = Spot(station=name, side=_side(piece, edge))
        place = resolve(spot, piece, block, Scope(), pivots[0] if pivots else "")
    except ZestyError:
        return None
    if piece.runs[place.run].edge == edge:
        return places.sewn_distance(piece, place)
    after = piece.runs[piece.after(place.run)]
    is_start = after.edge == edge and piece.edge(edge).runs[0] is after
    return 0.0 if is_start and places.is_joint(piece, place) else None
