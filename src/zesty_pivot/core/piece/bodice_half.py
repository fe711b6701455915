"""The upper half of a piece with its darts put away, as a neckline is drawn on it."""

from __future__ import annotations

import bisect
import itertools
import math
from collections.abc import Callable, Mapping

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.piece import Piece, Place, Run
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record

# The block that the trade's starting values are for, in inches: half neck width and natural depth a twelfth of a bust of 36, a
# shoulder of 15, bust points 10 1/2 below the neck point. Common practice, no source.
NECK, HALF_SHOULDER, BUST = 3.0, 7.5, 10.5

OFF = 0.01  # mm that a point may lie off the outline it was found on


@record
class SewnEdge:
    """An edge without open mouths: its stretches in order, with distances (mm) along them as they are sewn. Where a dart with
    unequal legs was shut there is a step between two of them."""

    paths: tuple[Path, ...]

    @cached_property
    def starts(self) -> tuple[float, ...]:
        """Where each stretch begins."""
        return tuple(itertools.accumulate((path.length for path in self.paths), initial=0.0))

    @property
    def length(self) -> float:
        """The sewn length."""
        return self.starts[-1]

    @property
    def start(self) -> Vector:
        """The first point."""
        return self.paths[0].start

    @property
    def end(self) -> Vector:
        """The last point."""
        return self.paths[-1].end

    def _at(self, distance: float) -> tuple[Path, float]:
        index = max(0, min(bisect.bisect_left(self.starts, distance) - 1, len(self.paths) - 1))
        return self.paths[index], distance - self.starts[index]

    def point_at(self, distance: float) -> Vector:
        """The point at a distance, clamped to the ends."""
        path, at = self._at(distance)
        return path.point_at(at)

    def direction_at(self, distance: float) -> Vector:
        """The unit tangent at a distance."""
        path, at = self._at(distance)
        return path.direction_at(at)

    def crossing(self, on: Vector, towards: Vector) -> list[float]:
        """The distances at which an endless line is met; in a step, the joint."""
        found = [
            start + path.distance_of(segment, t)
            for path, start in zip(self.paths, self.starts, strict=False)
            for segment, t, _s in with_line(path.cubics, on, towards)
        ]
        if not found:
            normal = np.array([-towards[1], towards[0]])
            for number, (one, two) in enumerate(itertools.pairwise(self.paths), start=1):
                if float((one.end - on) @ normal) * float((two.start - on) @ normal) <= 0.0:
                    found.append(self.starts[number])
        return found


@record
class ShoulderLine(SewnEdge):
    """The shoulder of a `piece`, asked for by how far (mm) a place is from the centre."""

    piece: str
    unit: Unit

    def along(self, x: float) -> float:
        """How far along the shoulder (mm from the neck point) it is so far (mm) from the centre. Raises PlaceError."""
        hits = self.crossing(np.array([x, 0.0]), np.array([0.0, 1.0]))
        if not hits and abs(x - float(self.start[0])) < 1e-6:
            return 0.0
        if not hits:
            low, high = format_length(float(self.start[0]), self.unit), format_length(float(self.end[0]), self.unit)
            raise PlaceError(
                f"a half width of {format_length(x, self.unit)} is off the shoulder", where=self.piece,
                advice=f"Give {low} to less than {high}.",
            )  # fmt: skip
        return hits[0]

    def at(self, x: float) -> Vector:
        """The point of the shoulder so far (mm) from the centre."""
        return self.point_at(self.along(x))

    def into(self, x: float, angle: float = math.pi / 2.0) -> Vector:
        """The direction from a point of the shoulder into the piece, at an angle (radians) to the way to the tip."""
        out = self.direction_at(self.along(x))
        return out * math.cos(angle) + np.array([-out[1], out[0]]) * math.sin(angle)

    def angle_of(self, x: float, into: Vector) -> float:
        """The angle (radians) at the shoulder between the way to the tip and a direction into the piece."""
        out = self.direction_at(self.along(x))
        return math.atan2(float(out[0] * into[1] - out[1] * into[0]), float(out @ into))


@record
class TradeProportions:
    """A half's neck and shoulder (mm from the centre), natural neck and bust line (mm deep) beside those of the block that the
    trade's starting values are for."""

    neck: float
    tip: float
    natural: float
    bust: float

    def wide(self, inches: float) -> float:
        """A half width (mm) that lies on this block's shoulder where so many inches lie on the trade's."""
        return self.neck + (inches - NECK) / (HALF_SHOULDER - NECK) * (self.tip - self.neck)

    def deep(self, inches: float) -> float:
        """A depth (mm) that lies between this block's natural neck and bust line where so many inches lie on the trade's."""
        return self.natural + (inches - NECK) / (BUST - NECK) * (self.bust - self.natural)

    def scaled(self, inches: float) -> float:
        """A length (mm) in proportion to this block's natural neck width."""
        return inches * self.neck / NECK


@record
class BodiceHalf:
    """A half `piece` with no dart open above, and its block's piece as it was `drafted`, whose levels count. x is measured from
    the centre, y down from the top line, depths from the height of the neck point."""

    piece: Piece
    drafted: Piece
    is_back: bool
    unit: Unit = "cm"
    more: Piece | None = None  # the side panel, where the piece is in panels, laid to the centre panel

    @cached_property
    def centre(self) -> SewnEdge:
        """The centre line, from below up to the neck."""
        return self._whole("centre")

    @cached_property
    def shoulder(self) -> ShoulderLine:
        """The shoulder from the neck point to the tip."""
        return ShoulderLine(self._whole("shoulder").paths, self.piece.name, self.unit)

    @cached_property
    def armhole(self) -> SewnEdge:
        """The armhole from the shoulder tip to the underarm."""
        return self._whole("armhole")

    @cached_property
    def side(self) -> SewnEdge:
        """The side seam from the underarm down."""
        return self._whole("side_seam")

    @cached_property
    def lower(self) -> SewnEdge:
        """The waist or hem, from the side to the centre."""
        return self._whole("waist", "hem")

    def _whole(self, *roles: str) -> SewnEdge:
        role = roles[0]
        pieces = [self.piece] if self.more is None else [self.piece, self.more]
        if role in ("waist", "hem"):
            pieces.reverse()
        paths = tuple(run.path for piece in pieces for run in piece.runs if piece.role(run.edge) in roles)
        if not paths:
            what = f"the piece has no {words(role)}"
            raise PlaceError(what, where=self.piece.name, advice="Choose a half with neckline and shoulder.")
        return SewnEdge(paths)

    @property
    def levels(self) -> Mapping[str, float]:
        """The block's construction lines, y in mm."""
        return self.drafted.levels

    @property
    def top(self) -> float:
        """The height of the neck point, y."""
        if any(role == "shoulder" for _edge, role in self.piece.roles):
            return float(self.shoulder.start[1])
        return float(self.drafted.corner("neck_point")[1])

    @property
    def neck_x(self) -> float:
        """How far the neck point is from the centre."""
        return float(self.shoulder.start[0])

    @property
    def tip_x(self) -> float:
        """How far the shoulder tip is from the centre."""
        return float(self.shoulder.end[0])

    @property
    def natural(self) -> float:
        """The depth of the neckline at the centre as it is."""
        return float(self.centre.end[1]) - self.top

    @property
    def lowest(self) -> float:
        """The depth of the lower end of the centre."""
        return float(self.centre.start[1]) - self.top

    def level(self, name: str) -> float:
        """The depth of a construction line. Raises PlaceError when the block has none of that name."""
        if name not in self.levels:
            what = f"the block has no {words(name)} line"
            raise PlaceError(what, where=self.piece.name, advice="Choose another place to measure from.")
        return self.levels[name] - self.top

    @cached_property
    def bust(self) -> float:
        """The depth of the bust line; by the trade's proportion on a block without one."""
        return self.level("bust") if "bust" in self.levels else self.natural * BUST / NECK

    @cached_property
    def chest(self) -> float:
        """The depth of the chest line, where the hollow of the chest ends."""
        return self.level("chest") if "chest" in self.levels else self.bust * 0.8

    @property
    def trade(self) -> TradeProportions:
        """This half beside the block that the trade's starting values are for."""
        return TradeProportions(self.neck_x, self.tip_x, self.natural, self.bust)

    @cached_property
    def nape(self) -> Vector:
        """The upper end of the centre."""
        return self.centre.end

    def start(self, depth: float) -> Vector:
        """The point of the centre at a depth."""
        hits = self.centre.crossing(np.array([0.0, self.top + depth]), np.array([1.0, 0.0]))
        if not hits:
            low, high = format_length(self.natural, self.unit), format_length(self.lowest, self.unit)
            raise PlaceError(
                f"a depth of {format_length(depth, self.unit)} does not meet the centre", where=self.piece.name,
                advice=f"Enter {low} to {high}.",
            )  # fmt: skip
        return self.centre.point_at(hits[0])

    def square(self, depth: float) -> Vector:
        """The direction outwards, square to the centre at a depth."""
        near = self.centre.crossing(np.array([0.0, self.top + depth]), np.array([1.0, 0.0]))
        at = near[0] if near else self.centre.length
        up = self.centre.direction_at(at)
        return np.array([-up[1], up[0]])

    def pin(self) -> Vector:
        """The bust point or shoulder blade; in proportion where the piece has none."""
        for name in ("bust_point", "blade_point"):
            if name in self.piece.landmarks:
                return self.piece.pivot(name)
        return np.array([self.neck_x * 1.2, self.top + self.bust])

    def place(self, point: Vector, role: str) -> Place:
        """Where a point of an edge lies on the ring. Raises PlaceError when it lies off it."""
        found = nearest_place(self.piece, point, lambda run: self.piece.role(run.edge) == role)
        if found is None:
            raise PlaceError(f"a point off the {words(role)}", where=self.piece.name, advice="Choose another place.")
        return found


def nearest_place(piece: Piece, point: Vector, among: Callable[[Run], bool]) -> Place | None:
    """Where a point of the outline lies on the ring, on one of the runs `among` which it may be; None for one beside it."""
    best: tuple[float, Place] | None = None
    for index, run in enumerate(piece.runs):
        if not among(run):
            continue
        at = _nearest(run.path, point)
        off = math.dist(run.path.point_at(at), point)
        if best is None or off < best[0] - 1e-9:
            best = (off, places.settled(piece, index, at))
    return best[1] if best is not None and best[0] <= OFF else None


def _nearest(path: Path, point: Vector) -> float:
    """The arc length (mm) of the place of a path nearest to a point on it."""
    best, at = math.inf, 0.0
    done = 0.0
    for segment, cubic in enumerate(path.cubics):
        size = float(path.lengths[segment])
        for end, distance in ((cubic[0], done), (cubic[3], done + size)):
            off = math.dist(end, point)
            if off < best:
                best, at = off, distance
        done += size
    if best < 1e-7:
        return at
    for normal in (np.array([1.0, 0.0]), np.array([0.0, 1.0]), unit(np.array([1.0, 1.0])), unit(np.array([1.0, -1.0]))):
        for segment, t, _s in with_line(path.cubics, point, normal):
            distance = path.distance_of(segment, t)
            off = math.dist(path.point_at(distance), point)
            if off < best:
                best, at = off, distance
        if best < 1e-7:
            break
    return at
