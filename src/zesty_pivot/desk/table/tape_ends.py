"""Where a tape can be put: the places that draw it to them, and how any other place is said. No Qt."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from zesty_pivot.core.conventions.sewing import Sewing, sewn_point
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern, Piece, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import ALL_STATIONS, Spot, resolve
from zesty_pivot.core.piece.tape_end import DART_PARTS
from zesty_pivot.core.quantity import Scope, Unit
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.lying import Layout
from zesty_pivot.desk.table.things import STEP, Thing, edge_of, notches_of, said_length, spot_of

LEVELLED = ("centre", "side_seam")  # the edges on which construction lines are marked


@record
class End:
    """A place for a tape's end: the piece, how the step says it, how it is read aloud, and the point (mm of the piece)."""

    piece: str
    value: dict[str, Any]
    title: str
    at: tuple[float, float]


def _end(piece: Piece, value: dict[str, Any], title: str, at: Any) -> End:
    return End(piece.name, value, title, (float(at[0]), float(at[1])))


def snaps(pattern: Pattern, block: Pattern, sewing: Sewing, unit: Unit) -> list[End]:
    """Every place of the body's pieces that draws a tape to it: corners, bust points and other landmarks, the legs and sewn
    points of darts, notches, stations, and where construction lines meet centre and side."""
    found: list[End] = []
    for piece in pattern.pieces:
        mine = [*_corners(piece), *_darts(piece, sewing), *_notches(piece, block.drafted(piece), unit)]
        mine += [*_stations(piece, block.drafted(piece)), *_levels(piece, block.drafted(piece))]
        taken: list[tuple[float, float]] = []
        for end in mine:  # what is said first is how a place is called
            if all(math.dist(end.at, other) > 0.5 for other in taken):
                taken.append(end.at)
                found.append(end)
    return found


def _corners(piece: Piece) -> Iterator[End]:
    for name, at in piece.landmarks.items():
        yield _end(piece, {"landmark": name}, words(name), at)
    for id, role in piece.roles:
        if role in piece.ends and not piece.is_unfolded:
            name = piece.ends[role][0]
            yield _end(piece, {"landmark": name}, words(name), piece.edge(id).runs[0].path.start)
        else:
            start = {"edge": id, "at": "0%"}
            yield _end(piece, start, f"beginning of the {words(id)}", piece.edge(id).runs[0].path.start)


def _darts(piece: Piece, sewing: Sewing) -> Iterator[End]:
    for dart in piece.darts:
        name = dart_words(piece, dart.id)
        for part, at in zip(("first", "second"), piece.mouth(dart.id), strict=True):
            yield _end(piece, {"dart": dart.id, "part": part}, DART_PARTS[part].format(name), at)
        if dart.use is Use.DART:
            point = sewn_point(piece, dart.id, sewing)
            yield _end(piece, {"dart": dart.id, "part": "sewn"}, DART_PARTS["sewn"].format(name), point)


def _notches(piece: Piece, block: Piece, unit: Unit) -> Iterator[End]:
    for id, _role in piece.roles:
        for name, along in notches_of(piece, id):
            try:
                at = places.point(piece, places.along(piece, id, along))
            except ZestyError:
                continue
            if name.endswith(":balance") and abs(along / piece.edge(id).sewn_length - 0.5) <= 1e-6:
                value: dict[str, Any] = {"edge": id, "at": "50%"}
            else:
                value = spot_of(piece, block, id, along, unit, 0.0).model_dump(by_alias=True, exclude_none=True)
            yield _end(piece, value, f"notch of the {words(id)}", at)


def _stations(piece: Piece, block: Piece) -> Iterator[End]:
    pivots = [dart.pivot for dart in piece.darts] or list(piece.landmarks)
    for name in ALL_STATIONS:
        spot = Spot(station=name)
        try:
            place = resolve(spot, piece, block, Scope(), pivots[0] if pivots else "")
        except ZestyError:
            continue
        yield _end(piece, {"station": name}, spot.words(), places.point(piece, place))


def _levels(piece: Piece, block: Piece) -> Iterator[End]:
    for id, role in piece.roles:
        for level in block.levels if role in LEVELLED else ():
            spot = Spot.model_validate({"edge": id, "level": level})
            try:
                place = resolve(spot, piece, block, Scope(), "")
            except ZestyError:
                continue
            yield _end(piece, {"edge": id, "level": level}, spot.words(), places.point(piece, place))


def nearest(ends: list[End], layout: Layout, at: tuple[float, float], within: float) -> End | None:
    """The place nearest to a point of the table (mm), within so far."""
    best, found = within, None
    for end in ends:
        lying = layout.get(end.piece)
        if lying is None:
            continue
        away = math.dist(lying.on_table(end.at), at)
        if away <= best:
            best, found = away, end
    return found


def free_end(pattern: Pattern, block: Pattern, thing: Thing, unit: Unit) -> End | None:
    """Any place that is pointed at: along its edge from the nearer end, or so far from the nearest landmark inside a piece, to
    a millimetre or an eighth of an inch. None on a part that no tape is laid on."""
    if not pattern.has(thing.piece):
        return None
    piece = pattern.piece(thing.piece)
    if thing.kind in ("edge", "notch"):
        edge = edge_of(thing)
        spot = spot_of(piece, block.drafted(piece), edge, thing.along, unit, 0.0)
        value = spot.model_dump(by_alias=True, exclude_none=True)
        place = resolve(spot, piece, block.drafted(piece), Scope(unit), "")
        return _end(piece, value, spot.words(), places.point(piece, place))
    corners = [end for end in _corners(piece) if "landmark" in end.value]
    if not corners:
        return None
    near = min(corners, key=lambda end: math.dist(end.at, thing.at))
    across, down = (_signed(thing.at[k] - near.at[k], unit) for k in (0, 1))
    value = {**near.value, **{key: said for key, (said, _mm) in (("across", across), ("down", down)) if said}}
    at = (near.at[0] + across[1], near.at[1] + down[1])
    away = " and ".join(said for said, _mm in (across, down) if said)
    return _end(piece, value, f"{away} from the {near.title}" if away else near.title, at)


def _signed(mm: float, unit: Unit) -> tuple[str, float]:
    """A length to a millimetre or an eighth of an inch, as it is said and in mm; nothing for one of none."""
    rounded = round(mm / STEP[unit]) * STEP[unit]
    if not rounded:
        return "", 0.0
    said = said_length(abs(rounded), unit)
    return (f"-{said}" if rounded < 0.0 and unit != "in" else f"-({said})" if rounded < 0.0 else said), rounded
