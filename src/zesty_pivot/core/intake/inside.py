"""What is drawn inside an outline: darts as legs, which are cut into it, and fish-eyes."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np
import shapely

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path, bezier
from zesty_pivot.core.geometry.angles import between, lines_cross, unit
from zesty_pivot.core.intake.corners import shaped
from zesty_pivot.core.intake.loops import join
from zesty_pivot.core.intake.traced import Array, Point, TracedPiece
from zesty_pivot.core.record import record, replace

# All our own choices.
BESIDE = 6.0  # mm from the outline that a leg may end, or run on beyond it
MEET, NEARLY = 0.3, 8.0  # mm: legs that end as near to each other meet; or do where their lines cross, as near to both ends
MOST_HOLES, MOST_NOTCHES = 30, 40  # of a piece; what has more is no pattern
SHARP = math.radians(85.0)  # a line that turns by more is two legs
WIDEST = math.radians(95.0)
UNEQUAL = 0.72  # of the longer leg that the shorter one is long, at least
LEAST = 20.0  # mm: shorter lines are marks
THIN = 2.0  # mm, about the width of a fish-eye at its widest that is none
HOLE_WIDEST, HOLE_UNEQUAL, HOLE_LEAST, HOLE_MOUTH = math.radians(40.0), 0.06, 50.0, 6.0


@record(eq=False)
class Eye:
    """A fish-eye as it is drawn: its points above and below and its widest places, in no order but round about, mm; the points
    first and third."""

    corners: tuple[Array, Array, Array, Array]


@record(eq=False)
class Inside:
    """A piece with the darts drawn in it cut into its outline; its fish-eyes; and the drawn points of darts that were told
    only by notches and a drill hole."""

    piece: TracedPiece
    eyes: tuple[Eye, ...]
    by_hole: tuple[Point, ...] = ()


@record(eq=False)
class _DrawnLeg:
    outer: Array
    inner: Array
    path: Path  # from outer to inner


def opened(piece: TracedPiece) -> Inside:
    """Cuts the darts that are drawn inside a piece into its outline, and finds its fish-eyes."""
    joined = join(piece.inner)
    eyes = [eye for loop in joined.loops if (eye := _eye(loop)) is not None]
    legs = _legs([*joined.rest, *(loop for loop in joined.loops if _eye(loop) is None)], piece)
    outline, used = piece.outline, []
    for one, two in _pairs(legs):
        cut = _cut(outline, one, two)
        if cut is not None:
            outline = cut
            used += [one, two]
    left = tuple(path for path in joined.rest if not any(path is leg.path or _same(path, leg.path) for leg in used))
    opened_piece = replace(piece, outline=outline, inner=left) if used else piece
    return _by_holes(opened_piece, tuple(eyes))


def _same(one: Path, two: Path) -> bool:
    return bool(np.allclose(one.start, two.start)) or bool(np.allclose(one.end, two.start))


def _eye(loop: Path) -> Eye | None:
    """A closed line with two sharp ends and two wide places between them."""
    shape = shaped(loop)
    corners = list(shape.corners)
    line = loop.outline
    if float(np.abs((line[:-1, 0] * line[1:, 1] - line[1:, 0] * line[:-1, 1]).sum())) / loop.length < THIN:
        return None  # a line that was drawn twice
    if len(corners) == 2:  # with curved legs the widest places are no corners
        (a, b), points = (corners[0].at, corners[1].at), loop.flatten(0.05)
        across = np.array([-(b - a)[1], (b - a)[0]])
        off = (points - a) @ across
        right, left = points[int(off.argmin())], points[int(off.argmax())]
        return Eye((a, right, b, left)) if math.dist(a, b) > LEAST else None
    if len(corners) != 4:
        return None
    places = [corner.at for corner in corners]
    first = 0 if math.dist(places[0], places[2]) >= math.dist(places[1], places[3]) else 1
    ordered = places[first:] + places[:first]
    if math.dist(ordered[0], ordered[2]) < LEAST:
        return None
    return Eye((ordered[0], ordered[1], ordered[2], ordered[3]))


def _legs(paths: Sequence[Path], piece: TracedPiece) -> list[_DrawnLeg]:
    """The lines inside that run from near the outline inwards, those that turn sharply as two."""
    edge = piece.region.exterior
    found = []
    for path in itertools.chain.from_iterable(map(_parted, paths)):
        if path.length < LEAST:
            continue
        ends = [edge.distance(shapely.Point(end)) for end in (path.start, path.end)]
        inside = [piece.region.contains(shapely.Point(end)) for end in (path.start, path.end)]
        if min(ends) > BESIDE + piece.allowance:
            continue
        way = path if (not inside[0], -ends[0]) >= (not inside[1], -ends[1]) else path.reversed()
        found.append(_DrawnLeg(way.start, way.end, way))
    return found


def _parted(path: Path) -> list[Path]:
    """A line parted where it turns back."""
    cubics = path.cubics
    turns = [
        abs(between(Path(one[None]).end_direction, Path(two[None]).start_direction)) for one, two in itertools.pairwise(cubics)
    ]
    cuts = [index + 1 for index, turn in enumerate(turns) if turn > SHARP]
    return [Path(part) for part in np.split(cubics, cuts)]


def _pairs(legs: Sequence[_DrawnLeg]) -> list[tuple[_DrawnLeg, _DrawnLeg]]:
    """Two legs that meet inside, the narrowest first; each leg in one dart."""
    fits = []
    for one, two in itertools.combinations(range(len(legs)), 2):
        a, b = legs[one], legs[two]
        point = _meets(a, b)
        if point is None:
            continue
        angle = abs(between(a.outer - point, b.outer - point))
        sizes = math.dist(a.outer, point), math.dist(b.outer, point)
        if 0.005 < angle <= WIDEST and min(sizes) >= UNEQUAL * max(sizes):
            fits.append((angle, one, two))
    taken: set[int] = set()
    found = []
    for _angle, one, two in sorted(fits):
        if not {one, two} & taken:
            taken |= {one, two}
            found.append((legs[one], legs[two]))
    return found


def _meets(one: _DrawnLeg, two: _DrawnLeg) -> Array | None:
    """Where two legs meet: at their ends, or where their lines cross near by; None where they do not."""
    if math.dist(one.inner, two.inner) <= MEET:
        return np.asarray((one.inner + two.inner) / 2.0)
    u, v = unit(one.inner - one.outer), unit(two.inner - two.outer)
    at = lines_cross(one.outer, u, two.outer, v, least=0.02)
    if at is None or math.dist(one.inner, two.inner) > NEARLY:
        return None
    return at if max(math.dist(at, one.inner), math.dist(at, two.inner)) <= NEARLY else None


def _cut(outline: Path, one: _DrawnLeg, two: _DrawnLeg) -> Path | None:
    """The outline with a dart cut into it: what it has across the mouth (straight, or the cap) is taken out."""
    places = []
    for leg in (one, two):
        place = _met(outline, leg)
        if place is None:
            return None
        places.append(place)
    first, last = sorted(zip(places, (one, two), strict=True), key=lambda pair: pair[0])
    if last[0] - first[0] > outline.length / 2.0:  # the mouth lies across where the outline begins
        first, last = last, first
    point = _meets(one, two)
    if point is None:
        return None
    try:
        rest = _around(outline, last[0], first[0])
        return Path.chain([rest, _leg(first[1], rest.end, point), _leg(last[1], rest.start, point).reversed()])
    except GeometryError:
        return None


def _leg(leg: _DrawnLeg, outer: Array, inner: Array) -> Path:
    if len(leg.path.cubics) == 1 or leg.path.length - math.dist(leg.outer, leg.inner) < 0.02:
        return Path.straight(outer, inner)
    cubics = leg.path.cubics.copy()
    cubics[0, :2] += outer - cubics[0, 0]
    cubics[-1, 2:] += inner - cubics[-1, 3]
    return Path(cubics)


def _around(outline: Path, start: float, end: float) -> Path:
    """The way along a closed outline from one distance to another, over its beginning where it must."""
    if start < end:
        return outline.between(start, end)
    parts = []
    if outline.length - start > 1e-4:
        parts.append(outline.split_at(start)[1] if start > 1e-4 else outline)
    if end > 1e-4:
        parts.append(outline.split_at(end)[0])
    return Path.chain(parts)


def _met(outline: Path, leg: _DrawnLeg) -> float | None:
    """Where a leg meets the outline: the distance along it; None where it is too far off."""
    ring = shapely.LinearRing(outline.outline[:-1])
    out = unit(leg.outer - leg.inner)
    line = shapely.LineString([leg.inner + out * 0.7 * math.dist(leg.inner, leg.outer), leg.outer + out * BESIDE])
    hits = shapely.get_coordinates(shapely.intersection(line, ring))
    at = min(hits, key=lambda hit: math.dist(hit, leg.outer)) if len(hits) else leg.outer
    if not len(hits) and ring.distance(shapely.Point(at)) > BESIDE:
        return None
    return distance_of(outline, np.asarray(at))


def distance_of(outline: Path, at: Array) -> float:
    """The distance along an outline of its place nearest to a point, mm."""
    cubics, lengths = outline.cubics, outline.lengths
    before = np.concatenate([[0.0], np.cumsum(lengths)[:-1]])
    is_line = bezier.are_straight(cubics)
    best, where = math.inf, 0.0
    if is_line.any():  # an outline of a photograph has thousands
        off, share = _nearest(cubics[is_line, 0], cubics[is_line, 3], at)
        k = int(off.argmin())
        best, where = float(off[k]), float(before[is_line][k] + share[k] * lengths[is_line][k])
    for index in np.flatnonzero(~is_line).tolist():
        points = Path(cubics[index][None]).flatten(0.02)
        off, share = _nearest(points[:-1], points[1:], at)
        k = int(off.argmin())
        if off[k] < best:
            sizes = np.hypot(*np.diff(points, axis=0).T)
            along = np.concatenate([[0.0], np.cumsum(sizes)])
            best = float(off[k])
            where = float(before[index] + (along[k] + share[k] * sizes[k]) / along[-1] * lengths[index])
    return where


def _nearest(starts: Array, ends: Array, at: Array) -> tuple[Array, Array]:
    """How far a point lies from each of some straight lines, and where along them its foot is, 0 to 1."""
    steps = ends - starts
    sizes = np.maximum((steps**2).sum(axis=1), 1e-18)
    share = np.clip(((at - starts) * steps).sum(axis=1) / sizes, 0.0, 1.0)
    return np.hypot(*(starts + share[:, None] * steps - at).T), share


def _by_holes(piece: TracedPiece, eyes: tuple[Eye, ...]) -> Inside:
    """Darts that are told only by two notches and a drill hole between them: cut in up to the hole. The hole of a dart that is
    drawn already is its own."""
    outline, found = piece.outline, []
    if len(piece.holes) > MOST_HOLES or len(piece.notches) > MOST_NOTCHES:
        return Inside(piece, eyes, ())  # spots on a photograph: no dart is told by them
    around = shapely.Polygon(outline.outline[:-1]).buffer(0)
    inside, around = around.buffer(-1.0), around.buffer(1.0)
    for hole in piece.holes:
        at = np.array(hole)
        if not inside.contains(shapely.Point(at)) or any(_in_eye(at, eye) for eye in eyes):
            continue
        fits = []
        for a, b in itertools.combinations(piece.notches, 2):
            one, two = np.array(a), np.array(b)
            sizes = math.dist(one, at), math.dist(two, at)
            angle = abs(between(one - at, two - at))
            if (
                min(sizes) >= HOLE_LEAST and max(sizes) - min(sizes) <= HOLE_UNEQUAL * max(sizes)
                and angle <= HOLE_WIDEST and math.dist(one, two) >= HOLE_MOUTH
                and around.covers(shapely.LineString([at, (one + two) / 2.0]))
            ):  # fmt: skip
                fits.append((math.dist(one, two), one, two))
        if not fits:
            continue
        _mouth, one, two = min(fits, key=lambda fit: fit[0])
        legs = (_DrawnLeg(one, at, Path.straight(one, at)), _DrawnLeg(two, at, Path.straight(two, at)))
        cut = _cut(outline, *legs)
        if cut is not None:
            outline = cut
            found.append(hole)
    return Inside(replace(piece, outline=outline) if found else piece, eyes, tuple(found))


def _in_eye(at: Array, eye: Eye) -> bool:
    return bool(shapely.Polygon(np.array(eye.corners)).buffer(4.0).contains(shapely.Point(at)))
