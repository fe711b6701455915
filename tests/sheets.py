"""Written sheets read by svgelements, which had no part in writing them, and figures taken from them with own arithmetic."""

from __future__ import annotations

import io
import math

import numpy as np
import svgelements

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats.svg import piece_svg


def lines(finished: FinishedPiece) -> dict[str, list[svgelements.Path]]:
    """The lines of a piece's own sheet by id, each stroke of an element a path of its own, in mm."""
    read = svgelements.SVG.parse(io.BytesIO(piece_svg(finished)), reify=True, ppi=25.4)
    return {
        str(element.id): [svgelements.Path(part) for part in element.as_subpaths()]
        for element in read.elements()
        if isinstance(element, svgelements.Path)
    }


def _at(path: svgelements.Path, share: float) -> np.ndarray:
    point = path.point(share)
    return np.array([point.x, point.y])


def _leaves(path: svgelements.Path, at: np.ndarray) -> np.ndarray:
    """The direction in which a line leaves one of its ends."""
    segments = [segment for segment in path if not isinstance(segment, svgelements.Move) and segment.length() > 1e-6]
    first, last = segments[0], segments[-1]
    if math.dist(_at(path, 0.0), at) <= math.dist(_at(path, 1.0), at):
        a, b = first.point(0.0), first.point(1e-6)
    else:
        a, b = last.point(1.0), last.point(1.0 - 1e-6)
    way = np.array([b.x - a.x, b.y - a.y])
    return way / np.hypot(*way)


def _angle(one: np.ndarray, two: np.ndarray) -> float:
    return math.degrees(math.acos(float(np.clip(one @ two, -1.0, 1.0))))


def sewn_corner(finished: FinishedPiece, dart: str, edge: str) -> float:
    """The corner in degrees that a seam has once a dart is sewn along the legs on the sheet: the two angles between seam and
    leg at the mouth less 180."""
    found = lines(finished)
    total = 0.0
    for leg in found[f"{dart}.legs"]:
        end = _at(leg, 0.0)
        seam = min(found[edge], key=lambda part: min(math.dist(_at(part, 0.0), end), math.dist(_at(part, 1.0), end)))
        total += _angle(_leaves(seam, end), _leaves(leg, end))
    return total - 180.0


def leg_lengths(finished: FinishedPiece, dart: str) -> tuple[float, float]:
    """How long both sewn legs of a dart are on the sheet, mm."""
    one, two = (leg.length(error=1e-7) for leg in lines(finished)[f"{dart}.legs"])
    return one, two


def sewn_at(finished: FinishedPiece, dart: str) -> np.ndarray:
    """Where a dart's legs end on the sheet, (2,) mm."""
    return _at(lines(finished)[f"{dart}.legs"][0], 1.0)
