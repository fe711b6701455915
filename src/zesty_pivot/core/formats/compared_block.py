"""A block that came in, laid on what it came from: how far its outline lies from the lines of the file, and where most."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.record import record

EVERY = 2.0  # mm between the places that are looked at


@record
class Farthest:
    """The largest distance (mm) of a piece's outline from the paper, and the place of it on the piece, mm."""

    mm: float
    at: tuple[float, float]


def farthest(piece: Piece, lines: Iterable[Path], motion: Motion) -> Farthest:
    """How far a piece lies from lines on paper. `motion` lays the paper on the piece."""
    paper = shapely.MultiLineString([motion(path.flatten(0.01)) for path in lines])
    places = np.concatenate([_along(run.path) for run in piece.runs])
    distances = shapely.distance(shapely.points(places), paper)
    worst = int(np.argmax(distances))
    x, y = places[worst]
    return Farthest(float(distances[worst]), (float(x), float(y)))


def _along(path: Path) -> NDArray[np.float64]:
    points: Sequence[NDArray[np.float64]] = path.flatten(0.01)  # type: ignore[assignment]
    line = shapely.segmentize(shapely.LineString(points), EVERY)
    found: NDArray[np.float64] = shapely.get_coordinates(line)
    return found
