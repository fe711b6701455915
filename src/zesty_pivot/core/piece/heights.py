"""What lies at a height of a piece: where a line crosses it, and how much cloth there is across."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping

import numpy as np
import shapely

from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece.piece import Piece, corner_of
from zesty_pivot.core.piece.place import Place, settled
from zesty_pivot.core.piece.region import all_cubics, cloth
from zesty_pivot.core.record import record

_ACROSS = np.array([1.0, 0.0])


BUST_GIRTH = "bust_girth"  # a level of drafted blocks: where the piece is as wide as the bust asks for


def girth_key(levels: Mapping[str, float], name: str) -> str | None:
    """The level at which a girth is measured on a piece, or None. A back is drafted as wide as the bust asks for at its chest
    line, as the bust line belongs to the front; a child's block has a chest line only. Source: common practice, no source."""
    keys = (BUST_GIRTH, "bust", "chest") if name == "bust" else (name,)
    return next((key for key in keys if key in levels), None)


def girth_level(levels: Mapping[str, float], name: str) -> float | None:
    """Its height, mm."""
    key = girth_key(levels, name)
    return None if key is None else levels[key]


def crossings(paths: Iterable[Path], y: float) -> list[tuple[float, float]]:
    """Where a line of several stretches, one after the other, crosses a height y (mm): the distance along it from its
    beginning and x, both in mm, in the order of the stretches."""
    found: list[tuple[float, float]] = []
    start, level = 0.0, np.array([0.0, y])
    for path in paths:
        found += [(start + path.distance_of(segment, t), x) for segment, t, x in with_line(path.cubics, level, _ACROSS)]
        start += path.length
    return found


def edges_at(piece: Piece, role: str, y: float) -> list[tuple[Place, float]]:
    """Where the edges of a role cross a height y (mm), in loop order, each with its x in mm."""
    return [
        (settled(piece, index, along), x)
        for index, run in enumerate(piece.runs)
        if piece.role(run.edge) == role
        for along, x in crossings((run.path,), y)
    ]


@record
class LevelWalk:
    """A level as it runs over the closed piece, from the centre to where it leaves the outline: the points that it goes by on
    the open paper (k, 2, 2: beginning and end of each stretch, mm), its length in mm, and the place where it ends."""

    stretches: tuple[tuple[Vector, Vector], ...]
    length: float
    end: Place


@kept_with  # the block's is asked for again and again
def level_walk(piece: Piece, y: float) -> LevelWalk | None:
    """A level at a height y (mm) of the centre, walked over the piece with its darts shut; None where it does not begin.

    Where it runs into an open dart it goes on level from its partner point, as far from the pivot on the other leg: what a dart
    takes is no cloth at any level that it crosses. One that comes to the pivot and points into the dart goes on along a leg.
    Source: common practice, no source (a dart pinned shut, and a tape laid across).
    """
    begun = _at_centre(piece, y)
    found: list[tuple[Vector, Vector]] = []
    if begun is None:
        opened = _in_mouth(piece, y)
        if opened is None:
            return None
        end, pin, heading = opened
        found.append((end, pin))
        begun = pin + heading * STEP_ON, heading
    at, heading = begun
    for _ in range(2 * len(piece.darts) + 2):
        leg = _next_leg(piece, at, heading)
        out = _next_edge(piece, at, heading)
        if leg is not None and (out is None or leg.away < out[0]):
            found.append((at, at + heading * leg.away))
            if leg.runs_in(heading):
                found.append((leg.beyond, leg.outwards))
                return LevelWalk(tuple(found), _length(found), _place_of(piece, leg.dart))
            at = leg.beyond + heading * STEP_ON
            continue
        if out is None:
            return None
        away, place = out
        found.append((at, at + heading * away))
        return LevelWalk(tuple(found), _length(found), place)
    return None


def cloth_at(piece: Piece, y: float) -> float:
    """The cloth (mm) across a piece at a height y, its darts shut: from the centre to the outline; of a piece without a centre
    there all that lies at that height. Where an outer part is swung down by a dart above, so that the level runs out at the
    armhole, it is measured to the underarm."""
    walk = level_walk(piece, y)
    if walk is None:
        return _plain_cloth(piece, y)
    (start, out), underarm = walk.stretches[-1], corner_of(piece, "underarm")
    if underarm is None or piece.role(piece.runs[walk.end.run].edge) != "armhole":
        return walk.length
    return walk.length - math.dist(start, out) + math.dist(start, underarm)


def cloth_to(piece: Piece, y: float, end: Vector) -> float:
    """The cloth (mm) across a half at a height y from its centre to a point of its outline at that height, (2,) mm: straight
    across, less what lies in open darts."""
    starts = [x for run in piece.runs if piece.role(run.edge) == "centre" for _along, x in crossings((run.path,), y)]
    width = abs(float(end[0]) - (starts[0] if starts else 0.0))
    for dart in piece.darts:
        pin, mouth = piece.pivot(dart.pivot), piece.mouth(dart.id)
        if all((y - pin[1]) * (y - lip[1]) < 0.0 for lip in mouth):
            at = [pin[0] + (lip[0] - pin[0]) * (y - pin[1]) / (lip[1] - pin[1]) for lip in mouth]
            width -= abs(float(at[0] - at[1]))
    return width


@kept_with
def _plain_cloth(piece: Piece, y: float) -> float:
    region = cloth(piece)
    low, _y0, high, _y1 = region.bounds
    return float(shapely.intersection(region, shapely.LineString([(low - 1.0, y), (high + 1.0, y)])).length)


STEP_ON = 1e-7  # mm past a leg that a level goes on from, so that it does not meet it again
AT_PIVOT = 1e-6  # mm from a pivot that a level meets it exactly: files keep six decimals


@record
class _Leg:
    """Where a level meets a dart: how far away, and where it goes on; or its pivot, and the end of the leg along which it goes
    on."""

    dart: str
    away: float
    beyond: Vector
    outwards: Vector
    inside: Vector  # from there across the open dart

    def runs_in(self, heading: Vector) -> bool:
        """Whether a level would run on in the open dart, not on the cloth: it goes along the leg instead."""
        leg = self.outwards - self.beyond
        sides = [float(leg[0] * way[1] - leg[1] * way[0]) for way in (heading, self.inside)]
        return sides[0] * sides[1] > 0.0


def _length(stretches: list[tuple[Vector, Vector]]) -> float:
    return sum(math.dist(one, two) for one, two in stretches)


def _place_of(piece: Piece, dart: str) -> Place:
    run = piece.mouth_run(dart)
    return Place(run, piece.runs[run].path.length)


def _in_mouth(piece: Piece, y: float) -> tuple[Vector, Vector, Vector] | None:
    """Where a level begins in the open mouth of a dart on the centre: it runs along the nearer leg, and on from the pivot."""
    for dart in piece.darts:
        first, second = piece.mouth(dart.id)
        if piece.role(piece.dart_edge(dart.id)) == "centre" and min(first[1], second[1]) < y < max(first[1], second[1]):
            end = min((first, second), key=lambda end: abs(end[1] - y))
            pin = piece.pivot(dart.pivot)
            return end, pin, _ACROSS if pin[0] > end[0] else -_ACROSS
    return None


def _at_centre(piece: Piece, y: float) -> tuple[Vector, Vector] | None:
    """Where the centre is at a height, and the direction into the piece, square to the centre there."""
    for run in piece.runs:
        if piece.role(run.edge) != "centre":
            continue
        for segment, t, x in with_line(run.path.cubics, np.array([0.0, y]), _ACROSS):
            along = run.path.direction_at(run.path.distance_of(segment, t))
            inwards = np.array([-along[1], along[0]])  # the piece lies to the right of the way round it
            straight = _ACROSS if float(inwards @ _ACROSS) > 0.0 else -_ACROSS
            return np.array([x, y]) + straight * STEP_ON, straight
    return None


def _next_edge(piece: Piece, at: Vector, heading: Vector) -> tuple[float, Place] | None:
    """How far ahead the outline is, and where."""
    cubics, runs, segments = all_cubics(piece)
    best: tuple[float, Place] | None = None
    for index, t, away in with_line(cubics, at, heading, (0.0, math.inf)):
        if away > STEP_ON and (best is None or away < best[0]):
            run = int(runs[index])
            best = away, settled(piece, run, piece.runs[run].path.distance_of(int(segments[index]), t))
    return best


def _next_leg(piece: Piece, at: Vector, heading: Vector) -> _Leg | None:
    """The nearest leg of an open dart ahead."""
    found: list[_Leg] = []
    for dart in piece.darts:
        pin, (first, second) = piece.pivot(dart.pivot), piece.mouth(dart.id)
        off = float(heading[0] * (pin - at)[1] - heading[1] * (pin - at)[0])
        to_pin = float((pin - at) @ heading)
        if abs(off) <= AT_PIVOT and to_pin > STEP_ON:
            ways = [unit(end - pin) for end in (first, second)]
            sides = [float(heading[0] * way[1] - heading[1] * way[0]) for way in ways]
            if sides[0] * sides[1] < 0.0 and min(float(heading @ way) for way in ways) > 0.0:  # it points into the dart
                nearer = first if float(heading @ ways[0]) > float(heading @ ways[1]) else second
                found.append(_Leg(dart.id, to_pin, pin, nearer, (first + second) / 2.0 - pin))
            continue
        for end, other in ((first, second), (second, first)):
            hit = _meets(at, heading, pin, end)
            if hit is None:
                continue
            away, far = hit
            beyond = pin + unit(other - pin) * far
            found.append(_Leg(dart.id, away, beyond, other, end - other))
    return min(found, key=lambda leg: leg.away, default=None)


def _meets(at: Vector, heading: Vector, pin: Vector, end: Vector) -> tuple[float, float] | None:
    """How far ahead (mm) a ray meets the leg from a pivot to a mouth's end, and how far from the pivot (mm)."""
    leg, gap = end - pin, pin - at
    across = float(heading[0] * leg[1] - heading[1] * leg[0])
    if abs(across) < 1e-12:
        return None
    away = float(gap[0] * leg[1] - gap[1] * leg[0]) / across
    share = float(gap[0] * heading[1] - gap[1] * heading[0]) / across
    return (away, share * math.hypot(leg[0], leg[1])) if away > STEP_ON and 0.0 < share <= 1.0 else None
