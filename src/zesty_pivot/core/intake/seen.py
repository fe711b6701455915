"""A piece laid as a block lies: the centre upright at x = 0, the neck point on the top line, seen from the right side."""

from __future__ import annotations

import itertools
import math

import numpy as np
import shapely

from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import between, unit
from zesty_pivot.core.geometry.fit import straight
from zesty_pivot.core.intake.parts import CutDart, Parts, Span
from zesty_pivot.core.intake.roles import LANDMARKS, ROLES, OutlineReading
from zesty_pivot.core.intake.traced import Array, TracedPiece
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record

KINK = math.radians(1.0)  # a turn in the centre line beyond this is a contour; a ruler shows half a degree
OFF_GRAIN = math.radians(12.0)  # a grain line that leans farther from the centre does not say where up is
LEAST_STRAIGHT = 0.15  # of the centre line's length that a straight part of it is long, to say where up is


@record(eq=False)
class Seen:
    """One way to read a traced piece, laid as a block. `motion` lays the paper on it; `parts` is the outline as laid, its
    corners in the order of the outline; `reading` numbers the six of the block, in the order of LANDMARKS."""

    traced: TracedPiece
    parts: Parts
    reading: OutlineReading
    motion: Motion
    error: float

    @cached_property
    def edges(self) -> dict[str, Span]:
        """The edges by role, in loop order."""
        six = self.reading.corners
        return {role: self.parts.between(one, two) for role, one, two in zip(ROLES, six, (*six[1:], six[0]), strict=True)}

    @cached_property
    def corners(self) -> dict[str, Array]:
        """The six corners' places by landmark, mm."""
        return {name: self.parts.corners[index].at for name, index in zip(LANDMARKS, self.reading.corners, strict=True)}

    @cached_property
    def darts(self) -> dict[str, tuple[CutDart, ...]]:
        """The darts by the role of the edge that they open on."""
        return {role: span.darts for role, span in self.edges.items() if span.darts}

    @property
    def neck_width(self) -> float:
        """From the centre to the neck point, mm."""
        return float(self.corners["neck_point"][0] - self.corners["centre_neck"][0])

    @property
    def neck_depth(self) -> float:
        """From the neck point down to the centre neck, mm."""
        return float(self.corners["centre_neck"][1] - self.corners["neck_point"][1])

    @property
    def height(self) -> float:
        """The length of the centre, mm."""
        return float(self.corners["centre_waist"][1] - self.corners["centre_neck"][1])

    def below_underarm(self, at: Array) -> float:
        """How far a place lies below the underarm, mm."""
        return float(at[1] - self.corners["underarm"][1])

    @cached_property
    def is_contoured(self) -> bool:
        """Whether the centre turns on its way: a seam that is taken in at the waist."""
        runs = self.edges["centre"].runs
        return len(runs) == 1 and not self.is_centre_straight and _most_turn(runs[0], self.error) > KINK

    @cached_property
    def is_centre_straight(self) -> bool:
        """Whether the centre is one straight line, which may lie on a fold."""
        runs = self.edges["centre"].runs
        if len(runs) > 1:
            return False
        points = runs[0].flatten(0.05)
        chord = points[-1] - points[0]
        off = np.abs((points - points[0]) @ np.array([-chord[1], chord[0]])) / max(float(np.hypot(*chord)), 1e-9)
        return float(off.max()) <= max(0.5, 2.0 * self.error)


def laid(traced: TracedPiece, parts: Parts, reading: OutlineReading, error: float) -> Seen:
    """A reading of a piece, laid as a block lies. `parts` are those of the paper, unmirrored."""
    motion = Motion.shift(np.zeros(2))
    if reading.is_mirrored:
        motion = Motion.reflect(np.zeros(2), np.array([0.0, 1.0]))
        parts = parts.mirrored()
    seen = Seen(traced, parts, reading, motion, error)
    up = _up(seen)
    turn = Motion.turn(np.zeros(2), between(up, np.array([0.0, -1.0])))
    turned = Seen(traced, parts.moved(turn), reading, motion.then(turn), error)
    shift = Motion.shift(np.array([-turned.corners["centre_neck"][0], -turned.corners["neck_point"][1]]))
    return Seen(traced, turned.parts.moved(shift), reading, turned.motion.then(shift), error)


def _up(seen: Seen) -> Array:
    """The direction up along the centre: the grain line's where it runs along it; of a centre that turns, that of its part
    at the neck, which a contour leaves upright; of one with a dart, that of its longest part."""
    runs = seen.edges["centre"].runs
    whole = unit(runs[-1].end - runs[0].start)
    if seen.traced.grain is not None:
        first, last = (seen.motion(np.array(point)) for point in seen.traced.grain)
        for way in (unit(last - first), unit(first - last)):
            if abs(between(whole, way)) <= OFF_GRAIN and seen.is_contoured:
                return way
    if len(runs) > 1:
        longest = max(reversed(runs), key=lambda run: round(run.length / (0.25 * max(one.length for one in runs))))
        return unit(longest.end - longest.start)
    if not seen.is_contoured:
        return whole
    parts = _straight_parts(runs[0], seen.error)
    at_neck = [way for size, way in reversed(parts) if size >= LEAST_STRAIGHT * runs[0].length]
    return at_neck[0] if at_neck else whole


def _most_turn(path: Path, error: float) -> float:
    ways = [way for _size, way in _straight_parts(path, error)]
    return max((abs(between(one, two)) for one in ways for two in ways), default=0.0)


def _straight_parts(path: Path, error: float) -> list[tuple[float, Array]]:
    """The straight stretches of a line, in order: length and direction, each the line nearest to its points. What strays
    less than the line is known closely is no bend."""
    points = shapely.get_coordinates(shapely.segmentize(shapely.LineString(path.flatten(0.05)), 4.0))
    bends = shapely.get_coordinates(shapely.simplify(shapely.LineString(points), max(0.6, 1.5 * error)))
    at = [int(np.argmin(np.hypot(*(points - bend).T))) for bend in bends]
    found: list[tuple[float, Array]] = []
    for first, last in itertools.pairwise(at):
        part = points[first : last + 1]
        if len(part) >= 2 and math.dist(part[0], part[-1]) > 0.03 * path.length:
            found.append((math.dist(part[0], part[-1]), straight(part)[1]))
    return found
