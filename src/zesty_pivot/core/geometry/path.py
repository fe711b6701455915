"""A chain of cubic segments as a frozen value."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.motion import Motion
from zesty_pivot.core.geometry.tolerance import FLATNESS, JOIN_TOL
from zesty_pivot.core.kept import cached_property

Array = NDArray[np.float64]


class Path:
    """Connected cubics from a start to an end. Read-only; equal when their control points are equal.

    `cubics` is (n, 4, 2) in mm with n >= 1; each cubic starts where the one before ends.
    """

    def __init__(self, cubics: Array) -> None:
        """Raises GeometryError when the shape is wrong, a value is not finite, or the chain is broken."""
        values = np.array(cubics, dtype=np.float64)
        if values.ndim != 3 or values.shape[1:] != (4, 2) or len(values) == 0:
            raise GeometryError(f"a path of shape {values.shape}, not (n, 4, 2)")
        if not np.isfinite(values).all():
            raise GeometryError("a path with a point that is not a finite number")
        if len(values) > 1 and np.abs(values[1:, 0] - values[:-1, 3]).max() > JOIN_TOL:
            raise GeometryError("a path whose segments do not meet")
        values.flags.writeable = False
        self.cubics = values

    @classmethod
    def _trusted(cls, cubics: Array, lengths: Array | None = None) -> Path:
        """A path of cubics that are sound, with the lengths of its segments where they are known already."""
        path = cls.__new__(cls)
        cubics.flags.writeable = False
        path.cubics = cubics
        if lengths is not None:
            path.lengths = lengths
        return path

    def __reduce__(self) -> tuple[Callable[..., Path], tuple[object, ...]]:
        """What is copied, or sent to another process: what was worked out from it stays behind, but for its lengths."""
        return type(self)._trusted, (self.cubics, vars(self).get("lengths"))

    @classmethod
    def straight(cls, *points: Sequence[float] | Array) -> Path:
        """Straight segments through two or more points."""
        spots = [np.asarray(point, dtype=float) for point in points]
        return cls(np.stack([bezier.line(a, b) for a, b in itertools.pairwise(spots)]))

    @classmethod
    def polyline(cls, points: Array) -> Path:
        """Straight segments through the rows of an array (m, 2), m >= 2."""
        starts, ends = points[:-1], points[1:]
        thirds = np.array([0.0, 1.0, 2.0, 3.0])[None, :, None] / 3.0
        return cls(starts[:, None] + (ends - starts)[:, None] * thirds)

    @classmethod
    def chain(cls, paths: Iterable[Path]) -> Path:
        """Paths laid end to end; each must start where the one before ends."""
        return cls(np.concatenate([path.cubics for path in paths]))

    @classmethod
    def measured(cls, paths: Iterable[Path]) -> tuple[Path, ...]:
        """Paths that know their lengths, measured in one go: a tenth of a millisecond saved for each."""
        found = tuple(paths)
        fresh = [path for path in found if "lengths" not in vars(path)]
        if len(fresh) > 1:
            lengths, at = bezier.lengths(np.concatenate([path.cubics for path in fresh])), 0
            for path in fresh:
                path.lengths = lengths[at : at + len(path.cubics)]
                at += len(path.cubics)
        return found

    def __setattr__(self, name: str, value: object) -> None:
        if name in vars(self):
            raise AttributeError(f"a Path is frozen: {name} cannot be set")
        super().__setattr__(name, value)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Path) and np.array_equal(self.cubics, other.cubics)

    def __hash__(self) -> int:
        return hash(self.cubics.tobytes())

    def __repr__(self) -> str:
        return f"Path({len(self.cubics)} segments, {self.start.round(3)} to {self.end.round(3)}, {self.length:.3f} mm)"

    @property
    def start(self) -> Vector:
        """The first point, (2,) mm."""
        point: Vector = self.cubics[0, 0]
        return point

    @property
    def end(self) -> Vector:
        """The last point, (2,) mm."""
        point: Vector = self.cubics[-1, 3]
        return point

    @cached_property
    def lengths(self) -> Array:
        """Arc length of each segment, (n,) mm."""
        return bezier.lengths(self.cubics)

    @cached_property
    def length(self) -> float:
        """Arc length in mm."""
        return float(self.lengths.sum())

    def _locate(self, distance: float) -> tuple[int, float]:
        """The segment and parameter at an arc length from the start, clamped to the ends. The last answers are kept: a
        place is asked for its point, then split there."""
        if distance not in self._located:
            if len(self._located) > 16:
                self._located.clear()
            self._located[distance] = self._search(distance)
        return self._located[distance]

    @cached_property
    def _located(self) -> dict[float, tuple[int, float]]:
        return {}

    def _search(self, distance: float) -> tuple[int, float]:
        before = 0.0
        for index, size in enumerate(self.lengths):
            if distance <= before + size or index == len(self.lengths) - 1:
                return index, bezier.param_at_length(self.cubics[index], distance - before, float(size))
            before += float(size)
        raise GeometryError("a path without segments")

    def point_at(self, distance: float) -> Vector:
        """The point at an arc length (mm) from the start, clamped to the ends."""
        index, t = self._locate(distance)
        return bezier.point(self.cubics[index], t)

    def direction_at(self, distance: float) -> Vector:
        """The unit tangent at an arc length (mm) from the start, clamped to the ends."""
        index, t = self._locate(distance)
        return _direction(self.cubics[index], t)

    @cached_property
    def start_direction(self) -> Vector:
        """The unit tangent at the start."""
        return _direction(self.cubics[0], 0.0)

    @cached_property
    def end_direction(self) -> Vector:
        """The unit tangent at the end."""
        return _direction(self.cubics[-1], 1.0)

    def distance_of(self, segment: int, t: float) -> float:
        """The arc length (mm) from the start to a segment's parameter."""
        first, _rest = bezier.split(self.cubics[segment], t)
        return float(self.lengths[:segment].sum() + bezier.lengths(first[None])[0])

    def split_at(self, distance: float) -> tuple[Path, Path]:
        """The two parts at an arc length (mm) from the start.

        Raises GeometryError when a part would be shorter than JOIN_TOL.
        """
        if not JOIN_TOL <= distance <= self.length - JOIN_TOL:
            raise GeometryError(f"a split at {distance:.6f} mm of {self.length:.6f} mm leaves nothing on one side")
        index, t = self._locate(distance)
        start = distance - float(self.lengths[:index].sum())
        # Within JOIN_TOL of a joint of two segments it is split at the joint itself: both parts end at one point.
        if start <= JOIN_TOL or self.lengths[index] - start <= JOIN_TOL:
            joint = index + int(start > JOIN_TOL)
            first = Path._trusted(self.cubics[:joint], self.lengths[:joint])
            return first, Path._trusted(self.cubics[joint:], self.lengths[joint:])
        before, after = self.cubics[:index], self.cubics[index + 1 :]
        left, right = bezier.split(self.cubics[index], t)
        one = np.concatenate([before, left[None]]) if index else left[None]
        two = np.concatenate([right[None], after]) if len(after) else right[None]
        sizes = np.append(self.lengths[:index], start), np.append(self.lengths[index] - start, self.lengths[index + 1 :])
        return Path._trusted(one, sizes[0]), Path._trusted(two, sizes[1])

    def between(self, start: float, stop: float) -> Path:
        """The stretch between two arc lengths (mm) from the start, start < stop."""
        rest = self if start <= JOIN_TOL else self.split_at(start)[1]
        size = stop - max(start, 0.0) if start > JOIN_TOL else stop
        return rest if size >= rest.length - JOIN_TOL else rest.split_at(size)[0]

    def reversed(self) -> Path:
        """The same line walked from its end."""
        return Path._trusted(np.ascontiguousarray(self.cubics[::-1, ::-1]), self.lengths[::-1])

    def moved(self, motion: Motion) -> Path:
        """The path after a rigid motion. Arc lengths go with it: a motion keeps them, measuring again adds noise. They always
        do, not only where they are known already: what a style gives hangs on nothing that was worked out before.
        """
        moved = Path._trusted(motion(self.cubics), self.lengths)
        if "outline" in vars(self):
            moved.outline = motion(self.outline)
            moved.outline.flags.writeable = False
        return moved

    def flatten(self, tolerance: float = FLATNESS) -> Array:
        """A polyline (m, 2) no further than `tolerance` mm from the path."""
        return bezier.flatten(self.cubics, tolerance)

    @cached_property
    def outline(self) -> Array:
        """The polyline at the standard flatness, kept: drawing and regions ask for it often."""
        line = self.flatten()
        line.flags.writeable = False
        return line

    def box(self) -> tuple[Vector, Vector]:
        """The corners (low, high) of the polyline's bounding box, mm."""
        return self.outline.min(axis=0), self.outline.max(axis=0)


def _direction(cubic: Array, t: float) -> Vector:
    """The unit tangent of one cubic, also where control points fall together."""
    ahead = bezier.slope(cubic, t)
    if math.hypot(ahead[0], ahead[1]) > JOIN_TOL:
        return unit(ahead)
    near = 1e-4 if t < 0.5 else -1e-4
    return unit((bezier.point(cubic, t + near) - bezier.point(cubic, t)) * (1.0 if near > 0 else -1.0))
