"""A place said the way the trade says it, and how it is found on any block."""

import math
from typing import Annotated, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from zesty_pivot.core.errors import PlaceError, one_of
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.called import called
from zesty_pivot.core.piece.edge import Origin
from zesty_pivot.core.piece.names import LANDMARKS, LEVELS, words
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place
from zesty_pivot.core.piece.sides import Side
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Along, Model, NamesDart, with_darts
from zesty_pivot.core.quantity.formula import Scope, distance_mm, is_share, share_of
from zesty_pivot.core.record import replace

StationName = Literal[
    "centre_waist", "centre_bust", "centre_neck", "mid_neck", "neck_point", "mid_shoulder", "shoulder_tip",
    "mid_armhole", "side_bust", "french", "side_waist", "waist",
]  # fmt: skip


class Spot(Model):
    """A place: a station, a share or length along an edge, a level on an edge, or where a dart is.

    Shares and lengths run along the sewn seam, open mouths skipped, from the edge's first landmark in
    loop order or from the end named by `from`.
    """

    station: StationName | None = None
    dart: Annotated[str | None, NamesDart()] = Field(default=None, description="where this dart opens now")
    edge: str | None = None
    at: Along | None = Field(default=None, description="share or length along the edge")
    from_: str | None = Field(default=None, alias="from", description="the end to measure from")
    side: Literal["left", "right"] | None = Field(
        default=None, description="of an unfolded piece, as worn; the pivot's when not given"
    )
    level: Literal["chest", "bust", "under_bust", "waist", "hip"] | None = None
    as_far_as: Annotated[str | None, NamesDart()] = Field(
        default=None, max_length=60, description="on the edge as far from the centre as this landmark, or as this dart opens"
    )

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        fault = self.fault()
        if fault:
            raise ValueError(fault)
        return self

    def fault(self) -> str:
        """What is wrong with how it says a place, if anything is."""
        ways = [self.station is not None, self.dart is not None, self.edge is not None]
        if sum(ways) != 1:
            return "a place is one of: a station, a dart, or an edge"
        if self.edge is not None and sum(way is not None for way in (self.at, self.level, self.as_far_as)) != 1:
            return "a place on an edge needs one of 'at', 'level' and 'as_far_as'"
        if self.edge is None and any(way is not None for way in (self.at, self.level, self.from_, self.as_far_as)):
            return "'at', 'from', 'level' and 'as_far_as' go with an edge"
        return ""

    def words(self) -> str:
        """The place as it is read aloud."""
        if self.side is not None:
            return f"{self.side} {self.model_copy(update={'side': None}).words()}"
        if self.station is not None:
            return STATION_WORDS[self.station]
        if self.dart is not None:
            return f"the {words(self.dart)} dart"
        edge = words(self.edge or "")
        if self.level is not None:
            return f"{edge} at the {words(self.level)} line"
        if self.as_far_as is not None:
            centre = "as far from the centre as the"
            return f"{edge}, {centre} {words(self.as_far_as)}{'' if self.as_far_as in LANDMARKS else ' dart'}"
        start = f" from the {words(self.from_)}" if self.from_ else ""
        return f"{edge}, {self.said_at}{start}"

    @property
    def said_at(self) -> str:
        """How far along its edge, as people write it: a share in percent, a length as it was given."""
        if self.at is None:
            return ""
        return f"{100.0 * self.at:.4g}%" if isinstance(self.at, float | int) and is_share(self.at) else str(self.at)


def spot_words(spot: Spot, piece: Piece) -> str:
    """A place as it is read aloud, a dart called by where it opens now."""
    return with_darts(spot, lambda id: called(piece, id) if piece.has_dart(id) else id).words()


def _known(**fields: str) -> Spot:
    """A place that needs no validating: what validates is built when the first is read from a file."""
    return Spot.model_construct(**fields)  # type: ignore[arg-type]


STATIONS: dict[str, Spot] = {
    "centre_waist": _known(edge="centre", at="0%"),
    "centre_bust": _known(edge="centre", level="bust"),
    "centre_neck": _known(edge="neckline", at="0%"),
    "mid_neck": _known(edge="neckline", at="50%"),
    "neck_point": _known(edge="shoulder", at="0%"),
    "mid_shoulder": _known(edge="shoulder", at="50%"),
    "shoulder_tip": _known(edge="armhole", at="0%"),
    "mid_armhole": _known(edge="armhole", at="50%"),
    # A little below the underarm, and low on the side near the waist, as shares so that they suit
    # every size: about 4 cm and 16 cm down a side seam of 19 cm. Common practice, no source.
    "side_bust": _known(edge="side_seam", at="20%"),
    "french": _known(edge="side_seam", at="85%"),
    "side_waist": _known(edge="waist", at="0%"),
}  # fmt: skip

STATION_WORDS: dict[str, str] = {
    "centre_waist": "centre at the waist",
    "centre_bust": "centre at the bust line",
    "centre_neck": "centre at the neck",
    "mid_neck": "mid neck",
    "neck_point": "neck point",
    "mid_shoulder": "mid shoulder",
    "shoulder_tip": "shoulder tip",
    "mid_armhole": "mid armhole",
    "side_bust": "side at the bust",
    "french": "French dart position",
    "side_waist": "side at the waist",
    "waist": "waist",
}

ALL_STATIONS = tuple(STATION_WORDS)
_AT_STATIONS = {name: _known(station=name) for name in ALL_STATIONS}


def station_spot(name: str, block: Piece) -> Spot:
    """A station (other than `waist`) as a place of a block's piece. On a hip-length piece the waist is a level, and shares of
    the side seam are of its part above the waist.

    Raises PlaceError when such a piece has no waist line.
    """
    known = STATIONS[name]
    if not block.is_hip_length:
        return known
    if name in ("centre_waist", "side_waist"):
        return Spot(edge="centre" if name == "centre_waist" else "side_seam", level="waist")
    if known.edge != "side_seam":
        return known
    origin = places.origin_of(block, by_level(block, block, "side_seam", "waist"))
    return known.model_copy(update={"at": share_of(known.at or 0.0) * origin.u})


def resolve(spot: Spot, piece: Piece, block: Piece, scope: Scope, pivot: str) -> Place:
    """Where a spot lies on a piece now. `block` is the same piece of the untouched block, `pivot` the
    pivot the step works round (it decides where `waist` lies when the block has no waist dart).

    Raises PlaceError or FormulaError with the place and what to do.
    """
    side = side_of_spot(spot, piece, pivot)
    if spot.station == "waist":
        return _waist(piece, block, pivot, side)
    if spot.station is not None:
        return resolve(station_spot(spot.station, block).model_copy(update={"side": spot.side}), piece, block, scope, pivot)
    if spot.dart is not None:
        run = piece.mouth_run(piece.dart(spot.dart).id)
        return Place(run, piece.runs[run].path.length)
    named = spot.edge or ""
    own = piece.sides.of(named)
    side, plain = own or side, piece.sides.name(named)
    edge = piece.edge(piece.sides.id(plain, side))
    if spot.level is not None:
        return by_level(piece, block, plain, spot.level, side)
    if spot.as_far_as is not None:
        return _as_far(piece, edge.id, spot.as_far_as)
    total = edge.sewn_length
    at = spot.at if spot.at is not None else "0%"
    distance = distance_mm(at, total, with_edges(scope, piece, edge.id) if isinstance(at, str) and not is_share(at) else scope)
    # The right half of an unfolded piece is walked the other way round than the half that it mirrors.
    is_turned = side is Side.RIGHT and not (own is not None and spot.from_ is None)
    from_end = _from_the_end(spot, piece, edge.role) != is_turned
    return places.along(piece, edge.id, total - distance if from_end else distance)


def with_edges(scope: Scope, piece: Piece, edge: str) -> Scope:
    """The measurements, and the lengths (mm) of the piece's edges beside them: `armhole/2` is half the armhole, `edge` the edge
    that the place is on. Of an unfolded piece those of the edge's own side."""
    side = piece.sides.of(edge)
    found: dict[str, float] = {"edge": piece.edge(edge).sewn_length} if edge in dict(piece.roles) else {}
    for id, role in piece.roles:
        if role in ("armhole", "neckline", "side_seam") and piece.sides.of(id) in (side, None):
            found[role] = found.get(role, 0.0) + piece.edge(id).sewn_length
    return Scope(scope.unit, {**found, **scope.measures})


def side_of_spot(spot: Spot, piece: Piece, pivot: str) -> Side | None:
    """The side of an unfolded piece that a spot is on: its own, else the pivot's, else the left; None for a half."""
    if not piece.is_unfolded:
        return None
    return Side(spot.side) if spot.side is not None else piece.sides.of(pivot) or Side.LEFT


def _from_the_end(spot: Spot, piece: Piece, role: str) -> bool:
    if spot.from_ is None:
        return False
    ends = piece.ends.get(role, ("start", "end"))
    if spot.from_ not in ends:
        what, advice = one_of(f"end of the {role}", spot.from_, ends)
        raise PlaceError(what, where=piece.name, advice=advice)
    return spot.from_ == ends[1]


def by_level(piece: Piece, block: Piece, edge: str, level: str, side: Side | None = None) -> Place:
    """Where a construction line of the block meets an edge; the place keeps with the cloth when it swings. `side` is that
    of an unfolded piece.

    Raises PlaceError when the block has no such level or the line misses the edge.
    """
    if level not in block.levels:
        what, advice = one_of("level", level, (name for name in LEVELS if name in block.levels))
        raise PlaceError(what, where=piece.name, advice=advice)
    found = _on_block(block, edge, np.array([0.0, block.levels[level]]), np.array([1.0, 0.0]))
    if found is None:
        raise PlaceError(f"the {level} line does not meet the {edge}", where=piece.name, advice="Choose another edge.")
    return _on_cloth(piece, found, side)


def _as_far(piece: Piece, edge: str, what: str) -> Place:
    """The place of an edge that lies as far from the centre line as a landmark, or as the end nearer to the centre of a dart's
    mouth: the leg of a dart that opens at such a place lies there, so two equal mouths have their axes equally far out.

    Raises PlaceError when the piece has no such point, or no straight centre, or the edge is not so wide.
    """
    on, along = _centre_line(piece)
    normal = np.array([-along[1], along[0]])
    if piece.has_dart(what):
        points = [*piece.mouth(what)]
    elif what in piece.landmarks:
        points = [piece.pivot(what)]
    else:
        what_, advice = one_of("landmark or dart", what, (*piece.landmarks, *(dart.id for dart in piece.darts)))
        raise PlaceError(what_, where=piece.name, advice=advice)
    far = min((float((point - on) @ normal) for point in points), key=abs)
    for index, run in enumerate(piece.runs):
        if run.edge == edge:
            for segment, t, _away in with_line(run.path.cubics, on + normal * far, along):
                return places.settled(piece, index, run.path.distance_of(segment, t))
    for index, run in enumerate(piece.runs):  # in the mouth of a dart that opens there
        after = piece.runs[piece.after(index)]
        if run.mouth is not None and run.edge == after.edge == edge:
            sides = [float((point - on) @ normal) - far for point in (run.path.end, after.path.start)]
            if sides[0] * sides[1] <= 0.0:
                return Place(index, run.path.length)
    ends = [abs(float((point - on) @ normal)) for run in piece.edge(edge).runs for point in (run.path.start, run.path.end)]
    named = f"{words(what)}{'' if what in piece.landmarks else ' dart'}"
    least, most, there = (format_length(mm, "cm") for mm in (min(ends), max(ends), abs(far)))
    reach = f"It lies {least} to {most} from it, that {there}."
    raise PlaceError(f"the {words(edge)} is nowhere as far from the centre as the {named}", where=piece.name, advice=reach)


def far_from_centre(piece: Piece, place: Place) -> float:
    """How far (mm) a place lies from the centre line."""
    on, along = _centre_line(piece)
    way = places.point(piece, place) - on
    return abs(float(along[0] * way[1] - along[1] * way[0]))


def _centre_line(piece: Piece) -> tuple[np.ndarray, np.ndarray]:
    """A point of the centre and its direction: the longest straight run of it."""
    runs = [run.path for run in piece.runs if piece.role(run.edge) == "centre"]
    if not runs:
        raise PlaceError("the piece has no centre", where=piece.name, advice="Say the place along the edge.")
    path = max(runs, key=lambda path: path.length)
    return path.start, path.end_direction


def _on_cloth(piece: Piece, found: Origin, side: Side | None) -> Place:
    return places.by_origin(piece, replace(found, is_mirrored=side is Side.RIGHT))


def below(piece: Piece, block: Piece, pivot: str) -> Place:
    """The waist (of a hip-length piece the hem) below a pivot: the block's waist dart, or straight down on the block.

    Raises PlaceError when nothing lies below it.
    """
    if not block.is_hip_length:
        return _waist(piece, block, pivot, None)
    found = _on_block(block, "hem", block.pivot(pivot), np.array([0.0, 1.0]))
    if found is None:
        raise PlaceError(f"no hem lies below the {words(pivot)}", where=piece.name, advice="Choose another place.")
    return _on_cloth(piece, found, None)


def _waist(piece: Piece, block: Piece, pivot: str, side: Side | None) -> Place:
    if block.is_hip_length:
        what = "a hip-length piece has no waist seam to open"
        raise PlaceError(what, where=piece.name, advice="Choose a place on the hem, or another edge.")
    pivot = piece.sides.name(pivot)
    for dart in block.darts:
        if dart.pivot == pivot and block.dart_edge(dart.id) == "waist":
            run = block.mouth_run(dart.id)
            return _on_cloth(piece, places.origin_of(block, Place(run, block.runs[run].path.length)), side)
    pin = np.array(block.landmarks.get(pivot, (math.nan, math.nan)))
    found = _on_block(block, "waist", pin, np.array([0.0, 1.0])) if np.isfinite(pin).all() else None
    if found is None:
        raise PlaceError(f"no waist lies below the {words(pivot)}", where=piece.name, advice="Choose another place.")
    return _on_cloth(piece, found, side)


def _on_block(block: Piece, edge: str, on: np.ndarray, towards: np.ndarray) -> Origin | None:
    """The place of the cloth where an endless line meets an edge of the block; in an open mouth, the mouth."""
    block.edge(edge)
    for index, run in enumerate(block.runs):
        if run.edge != edge:
            continue
        for segment, t, _distance_along in with_line(run.path.cubics, on, towards):
            return places.origin_of(block, places.settled(block, index, run.path.distance_of(segment, t)))
    for index, run in enumerate(block.runs):
        if run.edge == edge and run.mouth is not None:
            first, second = block.mouth(run.mouth)
            normal = np.array([-towards[1], towards[0]])
            if float((first - on) @ normal) * float((second - on) @ normal) <= 0.0:
                return places.origin_of(block, Place(index, run.path.length))
    return None


def describe(piece: Piece, block: Piece, place: Place, pivot: str) -> str:
    """A place in words: the station's name when it is one (within half a millimetre), else edge and share."""
    for name in ALL_STATIONS:
        if is_station(piece, block, place, name, pivot):
            return name
    run = piece.runs[place.run]
    total = piece.edge(run.edge).sewn_length
    return f"{words(run.edge)} {round(100.0 * places.sewn_distance(piece, place) / total)} %"


def is_station(piece: Piece, block: Piece, place: Place, name: str, pivot: str) -> bool:
    """Whether a place is a station, within half a millimetre along the sewn seam."""
    edge = piece.runs[place.run].edge
    known = STATIONS.get(name)
    # One within its edge is on no other; one at a corner lies at the end of the edge before as well.
    if known is not None and known.at not in (None, "0%") and known.edge not in (piece.sides.name(edge), piece.role(edge)):
        return False
    try:
        station = resolve(_AT_STATIONS[name], piece, block, Scope(), pivot)
    except PlaceError:
        return False
    if station.run == place.run:
        return abs(station.at - place.at) <= 0.5
    same_edge = piece.runs[station.run].edge == edge
    return same_edge and abs(places.sewn_distance(piece, station) - places.sewn_distance(piece, place)) <= 0.5
