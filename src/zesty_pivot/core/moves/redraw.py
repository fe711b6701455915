"""Redraw: a stretch of seam replaced by a smooth curve, with how far it and its length moved."""

from __future__ import annotations

import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.conventions.sewing import Sewing, closing_angle, closing_point_of, sewn_point
from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.record import record, replace

# A mouth that moves by less (mm) in a round of redrawing has settled; with equal legs the first round is the last but one.
SETTLED = 1e-9
_ROUNDS = 60

SAME_ANGLE = 1e-12  # radians, the noise of float64


@record
class Redrawn:
    """A piece with one stretch redrawn; `moved_mm` is the furthest the line went, `longer_mm` its change in length, `rise_mm`
    how far its middle stands off the straight line between its ends."""

    piece: Piece
    moved_mm: float
    longer_mm: float
    rise_mm: float


def corner(piece: Piece, index: int, sewing: Sewing) -> float:
    """The corner in radians that the seam makes at the end of a run once any mouth there is sewn shut.

    Positive when the seam turns further clockwise. A smooth seam is 0.
    """
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    turn = between(first.path.end_direction, second.path.start_direction)
    if first.mouth is not None:
        turn -= closing_angle(piece, first.mouth, sewing)
    return (turn + np.pi) % (2.0 * np.pi) - np.pi


def jog(piece: Piece, index: int, sewing: Sewing) -> float:
    """The step in mm between the two sides of a joint or of a mouth sewn shut (the difference of the sewn legs)."""
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    if first.mouth is not None:
        point = sewn_point(piece, first.mouth, sewing)
        return abs(math.dist(first.path.end, point) - math.dist(second.path.start, point))
    return float(np.hypot(*(second.path.start - first.path.end)))


def blend(piece: Piece, index: int, reach: float, sewing: Sewing) -> Redrawn:
    """The seam at the end of a run made smooth over `reach` mm to either side (at most half of either run).

    The mouth there, if any, is thought sewn shut along its legs; a cubic leaves and meets the old line along its tangents, its
    handles two thirds of the way, as a quadratic towards the corner would; it is parted where the shut legs lie, so both legs
    end equal. Source of the construction: common practice, no source (a French curve laid to the fold).

    Where the mouth's ends move along the sewn legs, the angle at the pivot changes a little; `added` of the piece tells it.

    Raises GeometryError when the runs belong to different edges.
    """
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    if first.edge != second.edge:
        raise GeometryError(
            f"no dart opens between {first.edge} and {second.edge}, so there is nothing to blend", where=piece.name
        )
    back, ahead = reaches(piece, index, reach)
    kept, tail = first.path.split_at(first.path.length - back)
    head, rest = second.path.split_at(ahead)
    u_start = first.source.at(1.0 - back / first.path.length)
    u_stop = second.source.at(ahead / second.path.length)
    before = Run(first.edge, kept, replace(first.source, u1=u_start))
    after = Run(second.edge, rest, replace(second.source, u0=u_stop), second.mouth)
    following = piece.after(index)
    others = [run for at, run in enumerate(piece.runs) if at not in (index, following)]
    at = index if following else index - 1

    def with_runs(new: tuple[Run, ...]) -> Piece:
        return replace(piece, runs=(*others[:at], *new, *others[at:]))

    if first.mouth is None:
        curve = _curve(kept, rest, (back + ahead) / 3.0)
        laid = head
        made = with_runs((before, Run(first.edge, curve, replace(first.source, u0=u_start, u1=u_stop)), after))
    else:
        across = _across(piece, first.mouth, (kept, rest), (back + ahead) / 3.0, sewing)
        curve, laid = across.curve, head.moved(across.shutting)
        left = Run(first.edge, across.left, replace(first.source, u0=u_start), first.mouth)
        right = Run(second.edge, across.right, replace(second.source, u1=u_stop))
        made = _accounted(piece, with_runs((before, left, right, after)), first.mouth)
    rise = math.dist(curve.cubics[0].T @ np.array([0.125, 0.375, 0.375, 0.125]), (curve.start + curve.end) / 2.0)
    return Redrawn(made, _furthest(curve, tail, laid), curve.length - tail.length - head.length, rise)


def reaches(piece: Piece, index: int, reach: float) -> tuple[float, float]:
    """How far in mm a blend at the end of a run goes back and ahead: `reach`, at most half of either run."""
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    return min(reach, first.path.length / 2.0), min(reach, second.path.length / 2.0)


@record
class _Across:
    """A seam drawn across a shut mouth: the whole curve as it lies with the dart shut, its two sides as they lie open, and the
    motion that shuts the far side."""

    curve: Path
    left: Path
    right: Path
    shutting: Motion


def _across(piece: Piece, dart: str, sides: tuple[Path, Path], handle: float, sewing: Sewing) -> _Across:
    """The curve from one side of a mouth to the other, shut along the legs that the dart will have.

    The legs run from the mouth's ends to the sewn point, and the sewn point lies on the bisector of the mouth: where the curve
    moves the ends, the legs turn a little. So the mouth is looked for that the curve gives itself, in a few rounds.
    """
    mouth = piece.mouth(dart)
    for _ in range(_ROUNDS):
        point = closing_point_of(piece, dart, mouth, sewing)
        angle = between(mouth[0] - point, mouth[1] - point)
        shutting = Motion.turn(point, -angle)
        curve = _curve(sides[0], sides[1].moved(shutting), handle)
        left, right = _parted(piece, dart, curve, point, mouth[0])
        right = right.moved(shutting.undone)
        moved = max(math.dist(left.end, mouth[0]), math.dist(right.start, mouth[1]))
        mouth = (left.end, right.start)
        if moved <= SETTLED:
            return _Across(curve, left, right, shutting)
    raise GeometryError(f"the seam does not settle across the mouth of {dart!r}", where=piece.name, advice="Blend over less.")


def _accounted(before: Piece, after: Piece, dart: str) -> Piece:
    """The piece with what a redrawn mouth changed of its dart's angle at the pivot in its account."""
    more = after.angle(dart) - before.angle(dart)
    if abs(more) <= SAME_ANGLE:
        return after
    return replace(after, added=(*after.added, (after.dart(dart).pivot, more)))


def _curve(kept: Path, rest: Path, handle: float) -> Path:
    start, stop = kept.end, rest.start
    inner = (start + kept.end_direction * handle, stop - rest.start_direction * handle)
    return Path(np.array([[start, inner[0], inner[1], stop]]))


def _parted(piece: Piece, dart: str, curve: Path, point: Vector, end: Vector) -> tuple[Path, Path]:
    """The curve's two sides of the shut legs' line, from the closing point through the mouth's end."""
    leg = end - point
    hits = [hit for hit in with_line(curve.cubics, point, leg / np.hypot(*leg)) if hit[2] > JOIN_TOL]
    if len(hits) != 1:
        raise GeometryError(f"the blend misses the legs of {dart!r}", where=piece.name, advice="Blend over less.")
    return curve.split_at(curve.distance_of(hits[0][0], hits[0][1]))


def _furthest(curve: Path, tail: Path, head: Path) -> float:
    """The furthest distance in mm between the new curve and the old line, to the flatness of drawing."""
    old: NDArray[np.float64] = np.concatenate([tail.outline, head.outline])
    return float(shapely.LineString(curve.outline).hausdorff_distance(shapely.LineString(old)))
