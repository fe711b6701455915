"""Free style lines: curves from place to place, hearts and keyholes at the centre, lines parallel to an edge."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.shaping import Knot, displaced
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece.region import cloth

StyleShape = Literal["line", "heart", "keyhole"]

# A parallel line is led through a point this often (mm); between them it is off by less than a hundredth.
_EVERY = 12.0

_HAIR = 0.2  # mm


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
    knots: list[Knot] = [(0.0, start - paths[0].start)]
    for distance in np.linspace(0.0, total, int(total / _EVERY) + 1)[1:-1]:
        index = min(int(np.searchsorted(starts, distance, side="right")) - 1, len(paths) - 1)
        along = paths[index].direction_at(float(distance - starts[index]))
        knots.append((float(distance), np.array([-along[1], along[0]]) * width))
    knots.append((total, stop - paths[-1].end))
    return Path.chain(displaced(paths, knots))


def refuse_unclear(piece: Piece, line: Path) -> None:
    """Raises GeometryError when a line leaves the piece, or crosses a dart or fish-eye."""
    drawn = shapely.LineString(line.outline)
    inner = shapely.LineString(_drawn_in(line.outline))
    for eye in piece.fisheyes:
        if drawn.intersects(shapely.Polygon(eye.outline)):
            what = f"the line crosses the fish-eye dart {eye.id!r}"
            raise GeometryError(what, where=piece.name, advice="Take that dart into the line, or pass it.")
    for dart in piece.darts:
        pin = piece.pivot(dart.pivot)
        short = 0.5 if drawn.distance(shapely.Point(pin)) < 0.01 else 0.0  # mm: darts that lead to the line end on it
        legs = [[end, pin + (end - pin) * (short / max(math.dist(end, pin), 1.0))] for end in piece.mouth(dart.id)]
        if inner.intersects(shapely.MultiLineString(legs)):
            name = "a dart that is put aside" if dart.id.startswith("*") else f"the {dart_words(piece, dart.id)} dart"
            raise GeometryError(f"the line crosses {name}", where=piece.name, advice="Take it into the line, or move it away.")
    if not cloth(piece).buffer(0.02, quad_segs=1, join_style="bevel").covers(inner):
        raise GeometryError("the line leaves the piece", where=piece.name, advice="Bow it less, or end it elsewhere.")


def _drawn_in(points: NDArray[np.float64]) -> NDArray[np.float64]:
    """A polyline without a hair's breadth at its ends, which lie on the outline."""
    drawn = points.copy()
    for end, inwards in ((0, 1), (-1, -2)):
        way = points[inwards] - points[end]
        size = math.hypot(way[0], way[1])
        drawn[end] += way * min(0.5, _HAIR / max(size, _HAIR))
    return drawn
