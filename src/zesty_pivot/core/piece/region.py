"""Which part of a piece an arc of its ring carries along, and what a ray from a pivot meets."""

from __future__ import annotations

import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece.fisheye import FishEye
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place, settled


@kept_with
def all_cubics(piece: Piece) -> tuple[NDArray[np.float64], NDArray[np.int64], NDArray[np.int64]]:
    """Every cubic of the outline (n, 4, 2), with the index of its run and of its segment in that run."""
    counts = [len(run.path.cubics) for run in piece.runs]
    runs = np.repeat(np.arange(len(counts)), counts)
    segments = np.array([segment for count in counts for segment in range(count)])
    return np.concatenate([run.path.cubics for run in piece.runs]), runs, segments


def arc(piece: Piece, first: int, last: int) -> tuple[int, ...]:
    """The run indices from `first` round the ring to `last`, both included."""
    count = (last - first) % len(piece.runs) + 1
    return tuple((first + step) % len(piece.runs) for step in range(count))


def polygon(piece: Piece, indices: tuple[int, ...], closing: tuple[Vector, ...]) -> NDArray[np.float64]:
    """The closed polyline (m, 2) of an arc of runs, its mouths cut to their pivots, back over `closing` points."""
    parts: list[NDArray[np.float64]] = []
    for index in indices:
        run = piece.runs[index]
        parts.append(run.path.outline)
        if run.mouth is not None and index != indices[-1]:
            parts.append(piece.pivot(piece.dart(run.mouth).pivot)[None])
    parts.extend(point[None] for point in closing)
    return np.concatenate(parts)


def contains(ring: NDArray[np.float64], point: Vector) -> bool:
    """Whether a point lies inside a closed polyline (m, 2), by the winding of the rays to it."""
    x, y = (ring - point).T
    after = np.append(np.arange(1, len(ring)), 0)
    beyond, below = x[after], y[after]
    return bool(abs(np.arctan2(x * below - y * beyond, x * beyond + y * below).sum()) > math.pi)


def first_hit(piece: Piece, pin: Vector, direction: Vector) -> Place | None:
    """The first place of the ring that a ray from a point meets, or None when it leaves through a mouth."""
    best: tuple[float, int, float] | None = None
    cubics, runs, segments = all_cubics(piece)
    for index, t, distance in with_line(cubics, pin, direction, (0.0, math.inf)):
        if distance > JOIN_TOL and (best is None or distance < best[0]):
            best = (distance, index, t)
    if best is None:
        return None
    run = int(runs[best[1]])
    return settled(piece, run, piece.runs[run].path.distance_of(int(segments[best[1]]), best[2]))


# Tips of darts are drawn back this little (mm) where an outline is asked whether it crosses itself: darts
# that share a pivot touch there, which is no crossing.
_TIP_BACK = 1e-3

_HAIR = 0.01  # mm that a slash may lie outside: both its ends are on the outline, which is drawn with straight lines


def outline(piece: Piece) -> NDArray[np.float64]:
    """The outline as a closed polyline (m, 2) mm with each dart cut out to just short of its pivot."""
    points: list[NDArray[np.float64]] = []
    for run in piece.runs:
        points.append(run.path.outline)
        if run.mouth is not None:
            pin = piece.pivot(piece.dart(run.mouth).pivot)
            out = np.mean(piece.mouth(run.mouth), axis=0) - pin
            size = math.hypot(out[0], out[1])
            points.append((pin + out * (_TIP_BACK / size) if size > 0.0 else pin)[None])
    return np.concatenate(points)


@kept_with
def crosses_itself(piece: Piece) -> bool:
    """Whether the outline, darts cut out, crosses or touches itself."""
    return not shapely.LinearRing(_apart(outline(piece))).is_simple


def _apart(ring: NDArray[np.float64]) -> NDArray[np.float64]:
    """A closed polyline without the points that stand where the next one does, but for noise."""
    steps = np.abs(np.diff(ring, axis=0, append=ring[:1])).max(axis=1)
    kept: NDArray[np.float64] = ring[steps > JOIN_TOL]
    return kept


@kept_with  # immutable as the piece is, and asked for by grain, slashes, facings and girths
def cloth(piece: Piece) -> shapely.Polygon | shapely.MultiPolygon:
    """The area of a piece with its darts cut out; of one whose outline crosses itself all that it goes round.

    Points a hair apart make a polygon invalid, and Shapely's buffer of nothing then lost the whole piece; so they go first.
    """
    area = shapely.Polygon(_apart(outline(piece)))
    if not area.is_valid:
        parts = shapely.get_parts(shapely.make_valid(area))
        area = shapely.union_all([part for part in parts if part.geom_type in ("Polygon", "MultiPolygon")])
    return area


def crosses(piece: Piece, start: Vector, stop: Vector) -> str | None:
    """What a straight slash between two points of the piece would cross: an edge or dart in words, or None.

    Ends that touch are no crossing; legs that share the slash's own pivot are not crossed by it.
    """
    span = stop - start
    size = math.hypot(span[0], span[1])
    if size <= JOIN_TOL:
        return None
    direction = span / size
    cubics, runs, _segments = all_cubics(piece)
    for index, _t, distance in with_line(cubics, start, direction, (0.0, size)):
        if JOIN_TOL * 10 < distance < size - JOIN_TOL * 10:
            return f"the {words(piece.runs[int(runs[index])].edge)}"
    for eye in piece.fisheyes:
        if shapely.LineString([start, stop]).intersects(shapely.Polygon(eye.outline)):
            return f"the fish-eye dart {eye.id!r}"
    for dart in piece.darts:
        pin = piece.pivot(dart.pivot)
        if np.array_equal(pin, stop):
            continue  # two lines from one pin meet there and nowhere else
        for end in piece.mouth(dart.id):
            if _segments_cross(start, stop, pin, end):
                return f"the dart {dart.id!r}"
    return None


def fisheye_fault(piece: Piece, eye: FishEye) -> str | None:
    """Why a fish-eye dart cannot be where it is, in words; None when it lies clear inside the piece."""
    top, right, bottom, left = eye.corners
    if not (top[1] < min(left[1], right[1]) and max(left[1], right[1]) < bottom[1]):
        return "its points do not lie above and below its waist"
    if eye.intake <= JOIN_TOL:
        return "it takes in nothing"
    region, mine = cloth(piece), shapely.Polygon(eye.outline)
    if not mine.is_valid or not region.contains_properly(mine):
        return "it leaves the piece or crosses a dart"
    for other in piece.fisheyes:
        if other.id != eye.id and shapely.Polygon(other.outline).intersects(mine):
            return f"it crosses the fish-eye {words(other.id)} dart"
    return None


def slash_fault(piece: Piece, start: Vector, stop: Vector) -> str | None:
    """Why a straight slash from one place of the outline to another cannot be cut, in words; None when its way is clear. One
    that crosses nothing may still lie outside, below a hollow edge or across an open mouth."""
    crossed = crosses(piece, start, stop)
    if crossed is not None:
        return f"the slash crosses {crossed}"
    ring = outline(piece)
    within = all(contains(ring, start + (stop - start) * share) for share in (0.25, 0.5, 0.75))
    outside = shapely.LineString([start, stop]).difference(cloth(piece).buffer(_HAIR, quad_segs=1)).length
    return None if within and outside <= _HAIR else "the slash leaves the piece"


def _segments_cross(a: Vector, b: Vector, c: Vector, d: Vector) -> bool:
    """Whether two straight segments cross inside both, touching ends left out."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = a.tolist(), b.tolist(), c.tolist(), d.tolist()
    first_x, first_y, second_x, second_y = bx - ax, by - ay, dx - cx, dy - cy
    area = first_x * second_y - first_y * second_x
    if abs(area) < 1e-12:
        return False
    s = ((cx - ax) * second_y - (cy - ay) * second_x) / area
    t = ((cx - ax) * first_y - (cy - ay) * first_x) / area
    near_first = JOIN_TOL / math.hypot(first_x, first_y)
    near_second = JOIN_TOL / math.hypot(second_x, second_y)
    return bool(near_first < s < 1.0 - near_first and near_second < t < 1.0 - near_second)
