"""A piece's outline and darts as flat lines, to find what lies under a place of the table. No Qt."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Origin, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.shapes import shapes_of

Point = tuple[float, float]


@record
class Near:
    """The place of an outline that is nearest to a point: how far away (mm), the run of the paper and how far along it (mm)."""

    away: float
    run: int
    at: float


@record
class Outline:
    """The lines of a piece as it lies on the paper: `starts` and `stops` (n, 2) mm of short straight parts, the run of each,
    how far along that (mm) it begins and how long it is; the triangles of its darts by id."""

    piece: Piece
    paper: Piece
    starts: NDArray[np.float64]
    stops: NDArray[np.float64]
    runs: NDArray[np.int64]
    along: NDArray[np.float64]
    sizes: NDArray[np.float64]
    darts: tuple[tuple[str, NDArray[np.float64]], ...]

    def nearest(self, at: Point) -> Near:
        """The place of the outline that is nearest to a point of the paper (mm)."""
        way = self.stops - self.starts
        to = np.asarray(at) - self.starts
        share = np.clip(np.einsum("ij,ij->i", to, way) / np.maximum(np.einsum("ij,ij->i", way, way), 1e-18), 0.0, 1.0)
        gap = to - share[:, None] * way
        away = np.einsum("ij,ij->i", gap, gap)
        best = int(away.argmin())
        return Near(float(np.sqrt(away[best])), int(self.runs[best]), float(self.along[best] + share[best] * self.sizes[best]))

    def place(self, near: Near) -> Place | None:
        """The same place of the piece once sewn, found by the cloth; None where the cloth does not go on: on a bridge over a
        mouth, a pleat's underlay."""
        size = self.paper.runs[near.run].path.length
        run = self.paper.runs[near.run]
        origin = Origin(run.source.edge, run.source.at(min(near.at, size) / size), run.source.is_mirrored)
        try:
            return places.by_origin(self.piece, origin)
        except PlaceError:
            return None

    def dart_at(self, at: Point, within: float) -> str | None:
        """The dart between whose legs a point lies, or by whose leg it lies within so far (mm)."""
        point = np.asarray(at)
        for id, corners in self.darts:
            first, pin, second = corners
            if _inside(point, corners) or min(_off(point, first, pin), _off(point, pin, second)) <= within:
                return id
        return None


def _inside(point: NDArray[np.float64], corners: NDArray[np.float64]) -> bool:
    ways = np.roll(corners, -1, axis=0) - corners
    to = point - corners
    turns = ways[:, 0] * to[:, 1] - ways[:, 1] * to[:, 0]
    return bool((turns >= 0.0).all() or (turns <= 0.0).all())


def _off(point: NDArray[np.float64], start: NDArray[np.float64], stop: NDArray[np.float64]) -> float:
    way, to = stop - start, point - start
    share = min(1.0, max(0.0, float(to @ way) / max(float(way @ way), 1e-18)))
    return float(np.hypot(*(to - share * way)))


_KEPT: Kept[Outline] = Kept()


def outline_of(piece: Piece) -> Outline:
    """The outline of a piece; the same piece gives the same one."""
    return _KEPT.get((piece,), (), lambda: _made(piece))


def _made(piece: Piece) -> Outline:
    paper = shapes_of(piece).paper
    starts, stops, runs, along, sizes = [], [], [], [], []
    for index, run in enumerate(paper.runs):
        points = run.path.outline
        parts = np.hypot(*np.diff(points, axis=0).T)
        begin = np.concatenate([[0.0], np.cumsum(parts)[:-1]])
        scale = run.path.length / max(float(parts.sum()), 1e-12)  # the flat parts are a little shorter than the curve
        starts.append(points[:-1])
        stops.append(points[1:])
        runs.append(np.full(len(parts), index))
        along.append(begin * scale)
        sizes.append(parts * scale)
    darts = tuple(
        (dart.id, np.array([paper.mouth(dart.id)[0], paper.pivot(dart.pivot), paper.mouth(dart.id)[1]])) for dart in paper.darts
    )
    flat = [np.concatenate(part) for part in (starts, stops, runs, along, sizes)]
    return Outline(piece, paper, flat[0], flat[1], flat[2], flat[3], flat[4], darts)
