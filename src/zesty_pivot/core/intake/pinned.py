"""Corners that a person put where the outline has none, and darts that a person says are none."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import between
from zesty_pivot.core.intake.corners import Corner, CorneredOutline
from zesty_pivot.core.intake.inside import distance_of
from zesty_pivot.core.intake.parts import Parts, Span
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import replace

TAKEN = 6.0  # mm: a corner this near to where a person points is meant
ENDS = 0.5  # mm from the end of a stretch where it is not parted
SAME_POINT = 5.0  # mm


def with_corners(shape: CorneredOutline, places: Sequence[Array]) -> CorneredOutline:
    """A shape with a corner at each of the places: one that is there within reach, or the stretch is parted there."""
    corners, stretches = list(shape.corners), list(shape.stretches)
    for at in places:
        if min(math.dist(corner.at, at) for corner in corners) <= TAKEN:
            continue
        found = [(distance_of(path, at), index) for index, path in enumerate(stretches)]
        offs = [math.dist(stretches[index].point_at(where), at) for where, index in found]
        index = int(np.argmin(offs))
        where, path = found[index][0], stretches[index]
        if not ENDS < where < path.length - ENDS:
            continue
        one, two = path.split_at(where)
        stretches[index : index + 1] = [one, two]
        corners.insert(index + 1, Corner(two.start, between(one.end_direction, two.start_direction)))
    return replace(shape, corners=tuple(corners), stretches=tuple(stretches))


def without_darts(parts: Parts, points: Sequence[Array]) -> Parts:
    """The parts with some darts taken as what the outline does there: their legs are edges of it."""
    spans, corners = [], []
    for corner, span in zip(parts.corners, parts.spans, strict=True):
        runs, darts = [span.runs[0]], []
        for dart, run in zip(span.darts, span.runs[1:], strict=True):
            if any(math.dist(dart.point, at) <= SAME_POINT for at in points):
                runs[-1] = Path.chain([runs[-1], dart.legs[0], dart.legs[1].reversed(), run])
            else:
                darts.append(dart)
                runs.append(run)
        corners.append(corner)
        spans.append(Span(tuple(runs), tuple(darts)))
    return Parts(tuple(corners), tuple(spans), parts.notches)
