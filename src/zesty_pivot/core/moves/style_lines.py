"""Free style lines: curves from place to place, hearts and keyholes at the centre, lines parallel to an edge."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from typing import Literal

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path, between, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece.region import cloth

StyleShape = Literal["line", "heart", "keyhole"]

# A parallel line is led through a point this often (mm); between them it is off by less than a hundredth.
_EVERY = 12.0

_SMOOTH = math.radians(0.5)  # a turn under this between two stretches is no corner

_HAIR = 0.2  # mm
_BESIDE = 0.02  # mm inside a dart that a line must come to cross it


def bowed(start: Vector, stop: Vector, bow: float, peak: float) -> Path:
    """A line that stands off by `bow` mm (to the right of its way when positive) at a share `peak` of the way: two cubics,
    smooth where they meet, or a straight line."""
    way = stop - start
    size = math.hypot(way[0], way[1])
    if size <= JOIN_TOL * 10.0:
        raise GeometryError("the line begins where it ends", advice="Choose two places.")
    if bow == 0.0:
        return Path.straight(start, stop)
    along, aside = way / size, np.array([-way[1], way[0]]) / size
    top = start + way * peak + aside * bow
    first, second = along * size * peak, along * size * (1.0 - peak)
    return Path(np.array([
        [start, start + first / 3.0 + aside * bow * 0.6, top - first * 0.45, top],
        [top, top + second * 0.45, stop - second / 3.0 + aside * bow * 0.6, stop],
    ]))  # fmt: skip


def at_centre(shape: StyleShape, start: Vector, stop: Vector, width: float) -> Path:
    """Half of a heart (two lobes above, a point below) or of a keyhole (a point above, round below) from one place of the
    centre to another, `width` mm out. Proportions: our own choice."""
    down = stop - start
    height = math.hypot(down[0], down[1])
    along = down / height
    out = np.array([along[1], -along[0]])

    def at(across: float, below: float) -> Vector:
        return start + out * width * across + along * height * below

    if shape == "heart":
        points = [[at(0, 0), at(0.1, -0.22), at(1, -0.28), at(1, 0.24)], [at(1, 0.24), at(1, 0.58), at(0.32, 0.78), at(0, 1)]]
    else:
        points = [[at(0, 0), at(0.18, 0.28), at(1, 0.36), at(1, 0.66)], [at(1, 0.66), at(1, 0.9), at(0.55, 1), at(0, 1)]]
    return Path(np.array(points))


def parallel(paths: Sequence[Path], width: float, start: Vector, stop: Vector) -> Path:
    """A line `width` mm inside an edge (to the right of its way round the piece), from one point to another on the seams beside
    it; the first and the last stretch lead over to these."""
    starts = np.cumsum([0.0, *(path.length for path in paths)])
    total = float(starts[-1])
    if total <= 2.0 * _EVERY:
        raise GeometryError("the edge is too short for a line beside it", advice="Choose a longer edge.")
    corners = _corners(paths, starts, width)
    led = [(at, _end_at(paths, starts, at) + aside) for at, _reach, aside in corners]
    rim = shapely.MultiLineString([path.outline for path in paths])
    for distance in np.linspace(0.0, total, int(total / _EVERY) + 1)[1:-1]:
        if any(abs(distance - at) < reach for at, reach, _aside in corners):
            continue
        index = min(int(np.searchsorted(starts, distance, side="right")) - 1, len(paths) - 1)
        within = float(distance - starts[index])
        along = paths[index].direction_at(within)
        point = paths[index].point_at(within) + np.array([-along[1], along[0]]) * width
        # In a hollow that is narrower than the band, and past an end that slants inwards, it is led through nothing.
        is_near = rim.distance(shapely.Point(point)) < width - _HAIR / 4.0
        is_past = min(float((point - start) @ along), float((stop - point) @ along)) < _EVERY / 2.0
        if not (is_near or is_past):
            led.append((float(distance), point))
    return _through([start, *(point for _at, point in sorted(led, key=lambda one: one[0])), stop])


def _end_at(paths: Sequence[Path], starts: NDArray[np.float64], at: float) -> Vector:
    """Where the stretch ends that ends so far along the edge."""
    return paths[int(np.argmin(np.abs(starts[1:] - at)))].end


def _through(points: Sequence[Vector]) -> Path:
    """A smooth line through points: a natural cubic spline over the chords, one cubic from each to the next."""
    line = np.array(points)
    size = np.hypot(*np.diff(line, axis=0).T)
    # Its slopes: the second derivative is the same on both sides of every point, and nothing at both ends.
    count, rows = len(points), np.zeros((len(points), len(points)))
    right = np.zeros((count, 2))
    for k in range(1, count - 1):
        before, after = 1.0 / size[k - 1], 1.0 / size[k]
        rows[k, k - 1 : k + 2] = before, 2.0 * (before + after), after
        right[k] = 3.0 * ((line[k] - line[k - 1]) * before**2 + (line[k + 1] - line[k]) * after**2)
    rows[0, :2], right[0] = (2.0, 1.0), 3.0 * (line[1] - line[0]) / size[0]
    rows[-1, -2:], right[-1] = (1.0, 2.0), 3.0 * (line[-1] - line[-2]) / size[-1]
    ways = np.linalg.solve(rows, right)
    thirds = size[:, None] / 3.0
    return Path(np.stack([line[:-1], line[:-1] + ways[:-1] * thirds, line[1:] - ways[1:] * thirds, line[1:]], axis=1))


def _corners(paths: Sequence[Path], starts: NDArray[np.float64], width: float) -> list[tuple[float, float, Vector]]:
    """The corners between stretches: where they are, how far (mm) the line beside them is drawn in one go, and the way to where
    the lines beside both stretches meet."""
    found: list[tuple[float, float, Vector]] = []
    for number, (one, two) in enumerate(itertools.pairwise(paths), start=1):
        turn = between(one.end_direction, two.start_direction)
        if abs(turn) > _SMOOTH:
            along = unit(one.end_direction + two.start_direction)
            aside = np.array([-along[1], along[0]]) * (width / math.cos(turn / 2.0))
            found.append((float(starts[number]), width * math.tan(abs(turn) / 2.0) + _EVERY / 2.0, aside))
    return found


def crossed(piece: Piece, line: Path) -> list[str]:
    """The open darts that a line crosses."""
    inner = shapely.LineString(_drawn_in(line.outline))
    return [dart.id for dart in piece.darts if inner.intersects(_wedge(piece, dart.id))]


def _wedge(piece: Piece, dart: str) -> shapely.Polygon:
    """A dart as an area, a hair smaller: a line that runs along a leg, or to the pivot, does not cross it."""
    return shapely.Polygon([*piece.mouth(dart), piece.pivot(piece.dart(dart).pivot)]).buffer(-_BESIDE)


def refuse_unclear(piece: Piece, line: Path, beside: shapely.Geometry | None = None) -> None:
    """Raises GeometryError when a line leaves the piece (and what may be drawn on `beside`), or crosses a dart or fish-eye."""
    drawn = shapely.LineString(line.outline)
    inner = shapely.LineString(_drawn_in(line.outline))
    for eye in piece.fisheyes:
        if drawn.intersects(shapely.Polygon(eye.outline)):
            what = f"the line crosses the fish-eye dart {eye.id!r}"
            raise GeometryError(what, where=piece.name, advice="Take that dart into the line, or pass it.")
    for dart in piece.darts:
        if inner.intersects(_wedge(piece, dart.id)):
            name = "a dart that is put aside" if dart.id.startswith("*") else f"the {dart_words(piece, dart.id)} dart"
            raise GeometryError(f"the line crosses {name}", where=piece.name, advice="Take it into the line, or move it away.")
    if not stays_inside(piece, line, beside):
        raise GeometryError("the line leaves the piece", where=piece.name, advice="Bow it less, or end it elsewhere.")


def stays_inside(piece: Piece, line: Path, beside: shapely.Geometry | None = None) -> bool:
    """Whether a line from place to place keeps to the piece, and what may be drawn on `beside` it."""
    paper = cloth(piece) if beside is None else cloth(piece).union(beside)
    inner = shapely.LineString(_drawn_in(line.outline))
    return bool(paper.buffer(0.02, quad_segs=1, join_style="bevel").covers(inner))


def _drawn_in(points: NDArray[np.float64]) -> NDArray[np.float64]:
    """A polyline without a hair's breadth at its ends, which lie on the outline."""
    drawn = points.copy()
    for end, inwards in ((0, 1), (-1, -2)):
        way = points[inwards] - points[end]
        size = math.hypot(way[0], way[1])
        drawn[end] += way * min(0.5, _HAIR / max(size, _HAIR))
    return drawn
