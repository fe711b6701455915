"""A hip-length piece cut in two at the waist: its fish-eye darts become a dart above and a dart below, open in the seam."""

from __future__ import annotations

import math

import numpy as np
import shapely

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.piece import Dart, Pattern, Piece, Shape
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.fisheye import FishEye
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.into_panels import free_line
from zesty_pivot.core.procedures.line_cutting import Cutting, sewn_parts
from zesty_pivot.core.record import replace

POINTS = ("bust_point", "waist_tip", "blade_point")  # of the body, that a fish-eye may stand under
STANDS_UNDER = 80.0  # mm below such a point at most. Our own choice


def cut_at_waist(pattern: Pattern, on: str, made: str, context: Context) -> Outcome:
    """The pattern with a piece cut along its waist line; the part below is called `made`. Each half of a fish-eye is as it was
    sewn: its legs run from the waist to its own point.

    Raises StepError where there is no waist line within the piece.
    """
    piece = pattern.piece(on)
    start, stop = _ends(piece, context)
    line = Path.straight(places.point(piece, start), *_corners(piece, places.point(piece, start)), places.point(piece, stop))
    bare = replace(piece, fisheyes=())
    refuse_unclear(bare, line)
    edge = free_line(piece, "waist")

    def named(one: Piece, two: Piece, _line: Path) -> tuple[Piece, Piece]:
        above = min((one, two), key=_height)
        return above, two if above is one else one

    asked = Cutting(on, made, lambda _piece: (start, stop), lambda _piece, _start, _stop: line, named)
    upper, lower = named(*across(bare, start, stop, line, edge, STYLE_LINE, (on, made)), line)
    for eye in piece.fisheyes:
        upper, lower = _opened(upper, edge, eye, eye.top), _opened(lower, edge, eye, eye.bottom)
    # Above it is the waist of a bodice like any other.
    roles = tuple((id, "waist" if id == edge else role) for id, role in upper.roles)
    upper = replace(upper, roles=roles, taken=(*upper.taken, *_taken_in(piece)))
    shares = _notched(line, piece)
    after, *_parts, note = sewn_parts(pattern, asked, bare, (upper, lower), (line, edge), context, shares=shares)
    darts = ", ".join(f"the {words(eye.id)} dart" for eye in piece.fisheyes)
    notes = (Note(f"{darts} is parted there: it opens in the seam above and below", on),) if darts else ()
    return Outcome(after, (note, *notes))


def _taken_in(piece: Piece) -> list[tuple[str, float]]:
    """What the fish-eyes take in, by level: girths go by the block's levels."""
    waist = piece.levels["waist"]
    found = [(name, eye.width(y - waist)) for name, y in piece.levels.items() for eye in piece.fisheyes]
    return [(name, mm) for name, mm in found if mm > 0.0]


def _ends(piece: Piece, context: Context) -> tuple[places.Place, places.Place]:
    roles = dict(piece.roles).values()
    if not piece.is_hip_length or "waist" not in piece.levels or not {"centre", "side_seam"} <= set(roles):
        what = f"the {words(piece.name)} has no waist line to cut along"
        raise StepError(what, where=piece.name, advice="Choose a half of hip length with centre and side seam.")
    drafted = context.block.drafted(piece)
    found = [
        resolve(Spot(edge=next(id for id, its in piece.roles if its == role), level="waist"), piece, drafted, context.scope, "")
        for role in ("centre", "side_seam")
    ]
    return found[0], found[1]


def _height(piece: Piece) -> float:
    return float(np.mean([run.path.start[1] for run in piece.runs]))


def _corners(piece: Piece, start: Vector) -> list[Vector]:
    """The corners of the fish-eyes at the waist, from the beginning of the line on."""
    found = [at for eye in piece.fisheyes for at in (np.array(eye.left), np.array(eye.right))]
    return sorted(found, key=lambda at: math.dist(at, start))


def _notched(line: Path, piece: Piece) -> tuple[float, ...]:
    """Shares of the line for its notches: in the middle of its first and its last stretch."""
    ends = [0.0, *(math.dist(line.start, at) / line.length for at in _corners(piece, line.start)), 1.0]
    return tuple(dict.fromkeys(((ends[0] + ends[1]) / 2.0, (ends[-2] + ends[-1]) / 2.0)))


def _opened(part: Piece, edge: str, eye: FishEye, tip: tuple[float, float]) -> Piece:
    """A part with its half of a fish-eye as a dart that opens in the cut."""
    runs = list(part.runs)
    index = next(k for k, run in enumerate(runs) if run.edge == edge and _passes(run.path, eye))
    run = runs[index]
    line = shapely.LineString(run.path.outline)  # of straight stretches, so it is the line itself
    near, far = sorted(float(line.project(shapely.Point(at))) for at in (eye.left, eye.right))
    first, last = run.source.parted(near / run.path.length)[0], run.source.parted(far / run.path.length)[1]
    runs[index : index + 1] = [
        replace(run, path=run.path.between(0.0, near), source=first, mouth=eye.id),
        replace(run, path=run.path.between(far, run.path.length), source=last),
    ]
    pivot, short = _pivot(part, eye, tip)
    dart = Dart(eye.id, pivot, extended_mm=short, shape=Shape(bow_mm=eye.bow_mm), at_tip=short == 0.0)
    landmarks = part.landmarks if pivot in part.landmarks else {**part.landmarks, pivot: tip}
    made = replace(part, runs=well_begun(tuple(runs), dict(part.roles)), darts=(*part.darts, dart), landmarks=landmarks)
    return replace(made, added=(*made.added, (pivot, made.angle(eye.id))))


def _passes(path: Path, eye: FishEye) -> bool:
    line = shapely.LineString(path.outline)
    return all(line.distance(shapely.Point(at)) <= JOIN_TOL for at in (eye.left, eye.right))


def _pivot(part: Piece, eye: FishEye, tip: tuple[float, float]) -> tuple[str, float]:
    """What a half of a fish-eye is turned about: the point of the body that it stands under, with how far (mm) below it the
    dart is sewn; else its own point."""
    for name in POINTS:
        if name in part.landmarks:
            x, y = part.landmarks[name]
            if abs(x - tip[0]) < JOIN_TOL and 0.0 <= tip[1] - y <= STANDS_UNDER:
                return name, tip[1] - y
    name = f"{eye.id}_point" if tip == eye.top else f"{eye.id}_low_point"
    while name in part.landmarks:
        name = f"{name}_2"
    return name, 0.0
