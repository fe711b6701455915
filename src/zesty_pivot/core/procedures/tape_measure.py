"""A measuring tape laid on a pattern: straight, along the seam, level, straight down, or square to the grain."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Literal

import numpy as np

from zesty_pivot.core.conventions.sewing import Sewing, sewn_point
from zesty_pivot.core.errors import PlaceError, StepError, one_of
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import OPEN_USES, Pattern, Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.worn_edge import WORN, WornEdge, WornPart, runs_of, worn_edges
from zesty_pivot.core.quantity import length_mm
from zesty_pivot.core.record import record

if TYPE_CHECKING:
    from zesty_pivot.core.piece.tape_end import TapeEnd

Laying = Literal["seam", "straight", "level", "down", "grain"]
Darts = Literal["shut", "open"]

# How a tape is laid, as it is said.
LAYINGS: dict[Laying, str] = {
    "seam": "along the seam", "straight": "straight", "level": "level", "down": "straight down", "grain": "square to the grain",
}  # fmt: skip

_ON_LEG = 1e-9  # of the tape's length: an end that lies on a leg does not cross it


@record
class TapePoint:
    """An end of a tape on a piece: the point (mm), and where it lies on the outline (a run and how far along it, mm): twice at
    the joint of two runs, nowhere inside the piece."""

    piece: Piece
    at: Vector
    places: tuple[tuple[int, float], ...]


@record
class Reading:
    """What a tape shows in mm, and the lines it lies along by the name of their piece, as the piece lies with darts open."""

    mm: float
    lines: tuple[tuple[str, Path], ...]


def lay_tape(pattern: Pattern, on: str, ends: tuple[TapeEnd, TapeEnd], way: Laying, darts: Darts, context: Context) -> Reading:
    """What a tape shows between two ends; `on` is the piece of an end that names none.

    Along the seam it goes the shorter way round, over shoulder and side to the next piece where the ends lie on one edge as it
    is worn. With darts `shut` a straight tape crosses them as they are sewn, and along the seam mouths count nothing.

    Raises PlaceError, FormulaError or StepError when an end is not there or the tape cannot lie so.
    """
    first, second = (point_of(pattern, end, on, context) for end in ends)
    if way == "seam":
        return _along(pattern, first, second, darts)
    if first.piece is not second.piece:
        what = f"a tape that is laid {LAYINGS[way]} stays on one piece"
        raise StepError(what, where=words(first.piece.name), advice="Lay it along the seam, or end it on the same piece.")
    mate = _with_darts_shut(first, second, context.sewing) if darts == "shut" else second.at
    apart = mate - first.at
    mm = {
        "straight": math.hypot(*apart), "level": abs(apart[0]), "down": abs(apart[1]), "grain": _off_grain(first.piece, apart),
    }[way]  # fmt: skip
    if math.dist(first.at, second.at) <= JOIN_TOL:
        return Reading(float(mm), ())
    return Reading(float(mm), ((first.piece.name, Path.straight(first.at, second.at)),))


def point_of(pattern: Pattern, end: TapeEnd, on: str, context: Context) -> TapePoint:
    """Where an end lies. Raises PlaceError or FormulaError when it is not there."""
    piece = pattern.piece(end.on or on)
    if end.dart is not None:
        return _dart_point(piece, end, context.sewing)
    if end.landmark is not None:
        corner = _landmark(piece, end.landmark)
        away = [length_mm(size, context.scope) for size in (end.across, end.down)]
        at = corner + np.array(away)
        return TapePoint(piece, at, _on_outline(piece, at) if not any(away) else ())
    block = context.block.drafted(piece)
    pivots = [dart.pivot for dart in piece.darts] or list(piece.landmarks)
    spot = Spot.model_validate(end.model_dump(by_alias=True, include=set(Spot.model_fields)))
    place = resolve(spot, piece, block, context.scope, pivots[0] if pivots else "")
    return TapePoint(piece, places.point(piece, place), _both(piece, place.run, place.at))


def _landmark(piece: Piece, name: str) -> Vector:
    corners = [piece.ends[role][0] for _id, role in piece.roles if role in piece.ends]
    if name in piece.landmarks:
        return piece.pivot(name)
    if name in corners:
        return piece.corner(name)
    what, advice = one_of("landmark", name, (*piece.landmarks, *corners))
    raise PlaceError(what, where=piece.name, advice=advice)


def _dart_point(piece: Piece, end: TapeEnd, sewing: Sewing) -> TapePoint:
    dart = piece.dart(end.dart or "")
    if end.part == "pivot":
        return TapePoint(piece, piece.pivot(dart.pivot), ())
    if end.part == "sewn":
        return TapePoint(piece, sewn_point(piece, dart.id, sewing), ())
    index = piece.mouth_run(dart.id)
    run = piece.runs[index]
    if end.part == "first":
        return TapePoint(piece, run.path.end, ((index, run.path.length),))
    after = piece.after(index)
    return TapePoint(piece, piece.runs[after].path.start, ((after, 0.0),))


def _both(piece: Piece, run: int, at: float) -> tuple[tuple[int, float], ...]:
    """A place of the outline; at the end of a run also as the start of the next one."""
    if at >= piece.runs[run].path.length - JOIN_TOL:
        return ((run, piece.runs[run].path.length), (piece.after(run), 0.0))
    return ((run, at),)


def _on_outline(piece: Piece, at: Vector) -> tuple[tuple[int, float], ...]:
    """Where a corner of a piece lies on its outline; nowhere where it lies inside."""
    for index, run in enumerate(piece.runs):
        if math.dist(run.path.end, at) <= JOIN_TOL:
            return _both(piece, index, run.path.length)
    return ()


def _off_grain(piece: Piece, apart: Vector) -> float:
    if piece.grain is None:
        raise StepError("the piece has no grain line", where=words(piece.name), advice="Lay the tape level instead.")
    along = np.subtract(piece.grain[1], piece.grain[0])
    return abs(float(along[0] * apart[1] - along[1] * apart[0])) / math.hypot(*along)


def _with_darts_shut(first: TapePoint, second: TapePoint, sewing: Sewing) -> Vector:
    """The second end as it lies once the darts that the tape crosses are shut: each turns what lies beyond it about its sewn
    point, from the leg that is met second to the leg that is met first."""
    piece, away = first.piece, second.at - first.at
    crossed: list[tuple[float, Vector, float]] = []
    for dart in piece.darts:
        if dart.use in OPEN_USES:
            continue
        pin = sewn_point(piece, dart.id, sewing)
        legs = [end - pin for end in piece.mouth(dart.id)]
        hits = [_ray_hit(first.at, away, pin, leg) for leg in legs]
        if hits[0] is None or hits[1] is None:
            continue
        near, far = (legs[0], legs[1]) if hits[0] < hits[1] else (legs[1], legs[0])
        turn = math.atan2(float(far[0] * near[1] - far[1] * near[0]), float(far @ near))
        crossed.append((min(hits[0], hits[1]), pin, turn))
    at = second.at
    for _far, pin, turn in sorted(crossed, key=lambda one: one[0], reverse=True):
        cos, sin = math.cos(turn), math.sin(turn)
        at = pin + np.array([[cos, -sin], [sin, cos]]) @ (at - pin)
    return at


def _ray_hit(start: Vector, away: Vector, pin: Vector, leg: Vector) -> float | None:
    """Where (as a share of `away`) a tape crosses a leg, drawn on beyond its mouth; None where it does not."""
    cross = float(away[0] * leg[1] - away[1] * leg[0])
    if abs(cross) <= JOIN_TOL**2:
        return None
    to_pin = pin - start
    share = float(to_pin[0] * leg[1] - to_pin[1] * leg[0]) / cross
    along = float(to_pin[0] * away[1] - to_pin[1] * away[0]) / cross
    return share if _ON_LEG < share < 1.0 - _ON_LEG and along > 0.0 else None


# Along the seam.


def _along(pattern: Pattern, first: TapePoint, second: TapePoint, darts: Darts) -> Reading:
    if not first.places or not second.places:
        inside = first if not first.places else second
        raise StepError(
            "a tape along the seam begins and ends on an edge",
            where=words(inside.piece.name),
            advice="Lay it straight, or choose a place on an edge.",
        )
    found = [*_worn(pattern, first, second)]
    if first.piece is second.piece:
        found += [_round(first.piece, one, two) for one in first.places for two in second.places]
    if not found:
        what = f"no edge leads from the {words(first.piece.name)} to the {words(second.piece.name)} there"
        raise StepError(what, advice="Choose two places of one edge as it is worn, such as the neckline of front and back.")
    stretches = min(found, key=lambda found: sum(stop - start for _piece, _run, start, stop in found))
    mm = sum(stop - start for _piece, _run, start, stop in stretches)
    if darts == "open":
        mm += _mouths(stretches)
    lines = [
        (piece.name, piece.runs[run].path.between(start, stop))
        for piece, run, start, stop in stretches
        if stop - start > JOIN_TOL
    ]
    return Reading(mm, tuple(lines))


Stretch = tuple[Piece, int, float, float]  # a piece, a run of it, and from where to where along it (mm)


def _round(piece: Piece, one: tuple[int, float], two: tuple[int, float]) -> list[Stretch]:
    """The stretches of a piece's own outline between two places, the shorter way round."""
    lengths = [run.path.length for run in piece.runs]
    starts = np.concatenate([[0.0], np.cumsum(lengths)])
    a, b = sorted(float(starts[run]) + at for run, at in (one, two))
    total = float(starts[-1])
    spans = [(a, b)] if b - a <= total / 2.0 else [(b, total), (0.0, a)]
    return [
        (piece, run, max(0.0, low - float(starts[run])), min(lengths[run], high - float(starts[run])))
        for low, high in spans
        for run in range(len(lengths))
        if float(starts[run]) < high and float(starts[run + 1]) > low
    ]


def _worn(pattern: Pattern, first: TapePoint, second: TapePoint) -> Iterator[list[Stretch]]:
    """The ways along edges as they are worn that lead from one place to another."""
    names = tuple(dict.fromkeys(piece.of or piece.name for piece in pattern.pieces))
    roles = {_role(first.piece, run) for run, _at in first.places} & {_role(second.piece, run) for run, _at in second.places}
    for role in roles & WORN.keys():
        for edge in worn_edges(pattern, role, names):
            here, there = (list(_positions(pattern, edge, end)) for end in (first, second))
            ways = [span for a in here for b in there for span in _spans(edge, a, b)]
            if ways:
                yield _stretches(pattern, edge, min(ways, key=lambda spans: sum(high - low for low, high in spans)))


def _role(piece: Piece, run: int) -> str:
    return piece.role(piece.runs[run].edge)


def _positions(pattern: Pattern, edge: WornEdge, end: TapePoint) -> Iterator[float]:
    """How far (mm) along a worn edge a place lies: once on every half that it is worn on."""
    begin = 0.0
    for part in edge.parts:
        piece = pattern.piece(part.ref.piece)
        mine = {id(run) for run in runs_of(piece, part)}
        for index, at in end.places if piece is end.piece else ():
            if id(piece.runs[index]) in mine and piece.runs[index].edge == part.ref.edge:
                along = at + sum(run.path.length for run in piece.runs[:index] if id(run) in mine)
                yield begin + (along if part.forward else part.mm - along)
        begin += part.mm


def _spans(edge: WornEdge, a: float, b: float) -> list[list[tuple[float, float]]]:
    low, high = min(a, b), max(a, b)
    return [[(low, high)], *([[(high, edge.mm), (0.0, low)]] if edge.is_round else [])]


def _stretches(pattern: Pattern, edge: WornEdge, spans: Sequence[tuple[float, float]]) -> list[Stretch]:
    found: list[Stretch] = []
    for low, high in spans:
        begin = 0.0
        for part in edge.parts:
            inside = max(low, begin) - begin, min(high, begin + part.mm) - begin
            if inside[1] > inside[0]:
                found += _of_part(pattern.piece(part.ref.piece), part, *inside)
            begin += part.mm
    return found


def _of_part(piece: Piece, part: WornPart, low: float, high: float) -> Iterator[Stretch]:
    if not part.forward:
        low, high = part.mm - high, part.mm - low
    begin, mine = 0.0, {id(run) for run in runs_of(piece, part)}
    for index, run in enumerate(piece.runs):
        if id(run) in mine:
            size = run.path.length
            if begin < high and begin + size > low:
                yield piece, index, max(0.0, low - begin), min(size, high - begin)
            begin += size


def _mouths(stretches: Sequence[Stretch]) -> float:
    """The mouths (mm) between the runs that a tape goes along."""
    total = 0.0
    for piece, run, _start, stop in stretches:
        mouth = piece.runs[run].mouth
        goes_on = any(other is piece and next_run == piece.after(run) for other, next_run, _a, _b in stretches)
        if mouth is not None and goes_on and stop >= piece.runs[run].path.length - JOIN_TOL:
            total += piece.intake(mouth)
    return total
