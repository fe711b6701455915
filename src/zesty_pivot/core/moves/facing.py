"""Trace a facing: the strip of a piece along an edge, a shade less at its end so that it rolls inside."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np
import shapely

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.piece import Piece, Run, Source
from zesty_pivot.core.piece.dart import Dart
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import cloth, outline
from zesty_pivot.core.piece.sides import Sides
from zesty_pivot.core.record import record

GRAIN_INSIDE = 12.0  # mm from the edges

INNER = "facing_edge"  # the role of the edge that lies loose inside


@record
class FacingEdge:
    """One edge of a facing in loop order: its name and role, its line, and the dart that opens at its end, if one does."""

    edge: str
    role: str
    path: Path
    mouth: str | None = None


def shortened(path: Path, by: float, *, at_start: bool) -> Path:
    """A line a shade shorter at one end. Raises GeometryError when nothing would be left."""
    if by <= JOIN_TOL:
        return path
    if by >= path.length - 1.0:
        raise GeometryError("the edge is shorter than the turn of cloth", advice="Allow less turn of cloth.")
    return path.split_at(by)[1] if at_start else path.split_at(path.length - by)[0]


def chained(paths: Sequence[Path], role: str = "edge") -> Path:
    """Stretches of an edge with this role as one line; a step where a dart was shut is led over within a pencil's breadth.

    Raises GeometryError where a mouth is open between them.
    """
    cubics = [paths[0].cubics]
    for path in paths[1:]:
        gap = math.dist(cubics[-1][-1, 3], path.start)
        if gap > 2.0:
            what = f"the {words(role)} is open: a dart opens in it, or it has a step"
            raise GeometryError(what, advice=f"Move the dart away, or true the {words(role)}, first.")
        ahead = path.cubics.copy()
        if gap > 0.0:
            ahead[0, 0] = cubics[-1][-1, 3]
        cubics.append(ahead)
    return Path(np.concatenate(cubics))


def traced_facing(
    piece: Piece, name: str, sides: Sequence[FacingEdge], fold: str | None, darts: tuple[Dart, ...], landmarks: tuple[str, ...]
) -> Piece:
    """A facing with these edges, clockwise from the centre. Raises GeometryError when it leaves the piece or crosses itself."""
    gaps = [math.dist(one.path.end, two.path.start) for one, two in itertools.pairwise([*sides, sides[0]]) if one.mouth is None]
    if max(gaps) > 1e-3:
        raise GeometryError("the facing does not close", where=piece.name, advice="Choose another depth.")
    paths = [side.path for side in sides]
    for number, one in enumerate(sides):  # ends that meet within rounding do not pass each other
        if one.mouth is None:
            after = (number + 1) % len(sides)
            cubics = paths[after].cubics.copy()
            cubics[0, 0] = paths[number].end
            paths[after] = Path(cubics)
    drawn = zip(sides, paths, strict=True)
    runs = tuple(Run(side.edge, path, Source(f"{name}.{side.edge}", 0.0, 1.0), side.mouth) for side, path in drawn)
    roles = tuple({side.edge: side.role for side in sides}.items())
    marks = {key: at for key, at in piece.landmarks.items() if key in landmarks}
    known = {edge: piece.sides.known[edge] for edge, _role in roles if edge in piece.sides.known}
    made = Piece(name, fold, runs, roles, darts, marks, piece.levels, body=piece.body, sides=Sides(known))
    ring = outline(made)
    region = shapely.Polygon(ring)
    if not region.is_valid or region.area < 100.0:
        raise GeometryError("the facing crosses itself", where=piece.name, advice="Choose another depth.")
    if not cloth(piece).buffer(0.5).covers(region):
        raise GeometryError(
            f"the facing leaves the {words(piece.name)}", where=piece.name, advice="Choose a shallower or an all-in-one facing."
        )
    return made


def grain_of(piece: Piece) -> tuple[tuple[float, float], tuple[float, float]]:
    """An upright grain line inside a facing: at its widest place up and down. Facings lie as the piece does."""
    whole = cloth(piece)
    inner = whole.buffer(-GRAIN_INSIDE)
    region = whole if inner.is_empty else inner
    low_x, low_y, high_x, high_y = region.bounds
    best: tuple[float, float, float, float] = (0.0, low_x, low_y, high_y)
    for share in np.linspace(0.06, 0.94, 23):
        x = low_x + float(share) * (high_x - low_x)
        parts = shapely.get_parts(shapely.intersection(region, shapely.LineString([(x, low_y - 1.0), (x, high_y + 1.0)])))
        for part in parts:
            if part.geom_type == "LineString" and part.length > best[0]:
                _x0, y0, _x1, y1 = part.bounds
                best = (float(part.length), x, float(y0), float(y1))
    _long, x, y0, y1 = best
    return (x, y0 + 0.12 * (y1 - y0)), (x, y1 - 0.12 * (y1 - y0))


def inner_curve(start: Vector, out: Vector, stop: Vector, into: Vector, hug: float) -> Path:
    """The loose edge from the centre outwards, near the corner of its box so that it stays deep all along."""
    det = out[0] * into[1] - out[1] * into[0]
    gap = stop - start
    if abs(det) > 1e-9:
        s = (gap[0] * into[1] - gap[1] * into[0]) / det
        t = (gap[0] * out[1] - gap[1] * out[0]) / det
        if s > 1.0 and t > 1.0:
            met = start + out * s
            return Path(np.array([[start, start + (met - start) * hug, stop + (met - stop) * hug, stop]]))
    size = math.hypot(*gap)
    return Path(np.array([[start, start + out * size * 0.4, stop + unit(into) * size * 0.2, stop]]))
