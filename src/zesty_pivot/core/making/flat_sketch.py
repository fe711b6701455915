"""A flat sketch of a style: front and back with their darts and seams closed, drawn from the pattern itself.

Each half of the body is sewn and laid flat with the least distortion. What it shows is the shape and the lines of the style,
not how it hangs: a frill hangs no wider than its seam.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.conventions.sewing import PLAIN, Sewing
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece import Body, EdgeRef, Pattern, Piece, Use
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.fullness import Taking
from zesty_pivot.core.piece.place import by_origin, point
from zesty_pivot.core.procedures.yoke_joining import JoinAsked, apart
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sewn.laid import laid_flat, seams_among
from zesty_pivot.core.sewn.seam_plan import SewnLine

STEP = 14.0  # mm between two points of the mesh
FOLDED_MM, GATHERED_MM = 60.0, 18.0  # how far a pleat, and a line of gathers, is drawn from its seam
TURNED_OVER, STRETCHED = 0.02, 0.06  # shares of the cloth that may be turned over, and more or less of it, in a flat sketch
CORNER = 0.6  # radians: a line that turns more between two of its points has a corner there
GATHERS = (-0.35, -0.15, 0.0, 0.15, 0.35)  # radians either side, the lines that stand for gathers

Points = NDArray[np.float64]


@record(eq=False)
class SketchStroke:
    """A line of the sketch, and what it is: `outline`, `seam`, `dart`, `fold` (a pleat, a tuck), `gathers`, `opening`."""

    kind: str
    path: Path


@record(eq=False)
class SketchView:
    """Front or back as it is seen by somebody who looks at it, mm from CF or CB and y down; both sides of the body. `area` is
    the cloth."""

    body: Body
    strokes: tuple[SketchStroke, ...]
    area: shapely.Geometry

    @property
    def box(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom, mm."""
        points = np.concatenate([stroke.path.outline for stroke in self.strokes])
        (left, top), (right, bottom) = points.min(axis=0), points.max(axis=0)
        return float(left), float(top), float(right), float(bottom)


@kept_with
def flat_sketch(pattern: Pattern, sewing: Sewing = PLAIN) -> tuple[SketchView, ...]:
    """Front and back, those of them that there are and that can be laid flat: a twist, which is sewn to itself, cannot."""
    views = []
    yokes = tuple(join for join in pattern.joins if isinstance(join.asked, JoinAsked))
    parted, _joins = apart(replace(pattern, joins=yokes))  # a yoke over the shoulder belongs to front and back
    for body in (Body.FRONT, Body.BACK):
        pieces = tuple(piece for piece in parted.pieces if piece.body is body)
        if pieces and (view := _View(parted, pieces, sewing)).is_flat:
            views.append(SketchView(body, tuple(view.strokes()), view.area()))
    return tuple(views)


class _View:
    """Front or back, sewn and flat."""

    def __init__(self, pattern: Pattern, pieces: tuple[Piece, ...], sewing: Sewing) -> None:
        self._pattern = pattern
        laid = laid_flat(pieces, seams_among(pattern.seams, pieces), sewing, STEP)
        self._seams, self._is_whole, self._plan, self._mesh, self._flat = (
            laid.seams,
            laid.is_whole,
            laid.plan,
            laid.mesh,
            laid.flat,
        )
        self._given = {piece.name: piece for piece in laid.pieces}  # with what is let in

    @property
    def is_flat(self) -> bool:
        """Whether the cloth lies flat as it is sewn: hardly any of it turned over, its area what it was."""
        rest, flat = (_areas(points[self._mesh.triangles]) for points in (self._mesh.places, self._flat))
        over = float(rest[flat <= 0.0].sum() / rest.sum())
        return over < TURNED_OVER and abs(float(flat.sum() / rest.sum()) - 1.0) < STRETCHED

    def area(self) -> shapely.Geometry:
        """The cloth that is seen."""
        shapes = shapely.polygons(self._flat[self._mesh.triangles])
        one = shapely.union_all(shapely.make_valid(shapes), grid_size=1e-3)
        over = shapely.transform(one, lambda points: points * (-1.0, 1.0))
        if self._is_whole:
            return over if self._plan.pieces[0].body is Body.BACK else one
        return shapely.union_all([one, over]).buffer(0.01)

    def _of(self, piece: str, kind: str, id: str) -> Iterator[SewnLine]:
        return (line for line in self._plan.lines if (line.piece, line.kind, line.id) == (piece, kind, id))

    def strokes(self) -> Iterator[SketchStroke]:
        """Everything that is drawn, both sides of the body."""
        for piece in self._plan.pieces:
            for stroke in self._of_piece(piece):
                if not self._is_whole or piece.body is not Body.BACK:
                    yield stroke
                if not self._is_whole or piece.body is Body.BACK:  # a whole back is drawn as it is seen from inside
                    yield SketchStroke(stroke.kind, stroke.path.moved(_OVER))

    def _of_piece(self, piece: Piece) -> Iterator[SketchStroke]:
        first = {part for seam in self._seams for part in seam.a.parts}
        second = {part for seam in self._seams for part in seam.b.parts}
        for line in self._plan.lines:
            if line.piece != piece.name:
                continue
            points = self._flat[list(line.points)]
            if line.kind == "edge":
                ref = EdgeRef(line.piece, line.id)
                if ref in second and ref not in first:
                    continue  # its partner draws it
                if piece.role(line.id) == "centre" and not self._is_whole:
                    if not lies_on_fold(piece):
                        yield _stroke("seam", points)
                    continue
                yield _stroke("seam" if ref in first else "outline", points)
            elif line.kind == "fisheye":
                yield _stroke("dart", points)
            else:
                yield from self._dart(piece, line.id, points)
        yield from self._let_in(self._given[piece.name])
        yield from self._openings(piece)

    def _dart(self, piece: Piece, dart: str, points: Points) -> Iterator[SketchStroke]:
        use = piece.dart(dart).use
        if use is Use.EASE:
            return
        if use is Use.GATHERS:
            yield from _fan(points[0], points[min(len(points) - 1, 2)])
        elif use in (Use.PLEAT, Use.TUCK):
            yield _stroke("fold", _as_far_as(points, piece.dart(dart).hold.stitched_mm or FOLDED_MM))
        else:
            yield _stroke("dart", points)

    def _let_in(self, piece: Piece) -> Iterator[SketchStroke]:
        for full in piece.fullness:
            for line in full.lines:
                start, stop = (point(piece, by_origin(piece, end)) for end in (line.start, line.stop))
                size = float(np.hypot(*(stop - start)))
                ends = [(start, stop)] if full.held[0] else []
                ends += [(stop, start)] if full.held[1] else []
                for near, far in ends:
                    if full.taking is Taking.GATHERS:
                        yield from _fan(*self._carried(piece, np.array([near, near + (far - near) * min(1.0, 28.0 / size)])))
                        continue
                    long = size if full.stitched_mm is None else max(full.stitched_mm, min(FOLDED_MM, size / 2.0))
                    ways = np.linspace(0.0, min(1.0, long / size), 8)[:, None]
                    yield _stroke("fold", self._carried(piece, near + (far - near) * ways))

    def _carried(self, piece: Piece, points: Points) -> Points:
        """Points of a piece where they lie once it is sewn and flat: by the triangle that they are in, or nearest to."""
        number = next(n for n, one in enumerate(self._plan.pieces) if one.name == piece.name)
        mine = self._mesh.triangles[self._mesh.pieces == number]
        rest, flat = self._mesh.places[mine], self._flat[mine]
        inverse = np.linalg.inv(np.stack([rest[:, 1] - rest[:, 0], rest[:, 2] - rest[:, 0]], axis=2))
        found = []
        for at in points:
            a, b = np.einsum("tij,tj->ti", inverse, at - rest[:, 0]).T
            shares = np.stack([1.0 - a - b, a, b], axis=1)
            best = int(shares.min(axis=1).argmax())
            found.append(shares[best] @ flat[best])
        return np.array(found)

    def _openings(self, piece: Piece) -> Iterator[SketchStroke]:
        for opening in self._pattern.openings:
            if opening.piece != piece.name:
                continue
            for line in self._of(piece.name, "edge", next((e for e, role in piece.roles if role == "centre"), "")):
                points = self._flat[list(line.points)]
                points = points if points[0][1] <= points[-1][1] else points[::-1]
                yield _stroke("opening", _as_far_as(points, opening.length_mm))
                break


def _areas(corners: Points) -> Points:
    one, other = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    return np.asarray((one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]) / 2.0)


_OVER = Motion.reflect(np.zeros(2), np.array([0.0, 1.0]))


def _stroke(kind: str, points: Points) -> SketchStroke:
    """A smooth line through points, with a corner wherever they turn sharply."""
    points = points[np.concatenate([[True], np.hypot(*np.diff(points, axis=0).T) > JOIN_TOL])]
    if len(points) < 3:
        return SketchStroke(kind, Path.polyline(points if len(points) == 2 else np.repeat(points, 2, axis=0)[:2]))
    steps = np.diff(points, axis=0)
    sizes = np.hypot(*steps.T)[:, None]
    ways = steps / sizes
    turns = np.abs(np.arctan2(ways[:-1, 0] * ways[1:, 1] - ways[:-1, 1] * ways[1:, 0], (ways[:-1] * ways[1:]).sum(axis=1)))
    mean = (ways[:-1] * sizes[1:] + ways[1:] * sizes[:-1]) / (sizes[:-1] + sizes[1:])
    leaving, arriving = ways.copy(), ways.copy()
    smooth = turns < CORNER
    leaving[1:][smooth], arriving[:-1][smooth] = mean[smooth], mean[smooth]
    cubics = np.stack(
        [points[:-1], points[:-1] + leaving * sizes / 3.0, points[1:] - arriving * sizes / 3.0, points[1:]], axis=1
    )
    return SketchStroke(kind, Path(cubics))


def _as_far_as(points: Points, mm: float) -> Points:
    """A line from its start on, no longer than so many mm."""
    steps = np.hypot(*np.diff(points, axis=0).T)
    along = np.concatenate([[0.0], np.cumsum(steps)])
    if along[-1] <= mm:
        return points
    end = np.array([np.interp(mm, along, points[:, axis]) for axis in range(2)])
    return np.concatenate([points[along < mm], end[None]])


def _fan(start: Points, towards: Points) -> Iterator[SketchStroke]:
    """Short lines from beside a place of a seam, apart like a fan."""
    way = (towards - start) / max(float(np.hypot(*(towards - start))), 1e-9)
    across = np.array([-way[1], way[0]])
    for lean in GATHERS:
        begin = start + across * lean * 30.0
        yield _stroke("gathers", np.array([begin, begin + (way + across * lean * 0.6) * GATHERED_MM]))
