"""Paper folded by own arithmetic: the written edge of a piece, reflected in the written fold lines one after the other."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import svgelements

from tests.sheets import lines
from zesty_pivot.core.finish.piece import FinishedPiece


def polyline(path: svgelements.Path, step: float = 0.25) -> np.ndarray:
    """A written line as points (n, 2) mm, closely."""
    found: list[tuple[float, float]] = []
    for segment in path:
        if isinstance(segment, svgelements.Move):
            continue
        count = max(2, math.ceil(segment.length(error=1e-4) / step) + 1)
        found += [(float(point.x), float(point.y)) for point in (segment.point(t) for t in np.linspace(0.0, 1.0, count))]
    return np.array(found)


def length(points: np.ndarray) -> float:
    """The length of a polyline, mm."""
    return float(np.hypot(*np.diff(points, axis=0).T).sum())


def edge_points(finished: FinishedPiece, edge: str) -> np.ndarray:
    """An edge of the written sheet in one row of points, from the end nearer to the centre."""
    parts = [polyline(path) for path in lines(finished)[edge]]
    points = np.concatenate(parts)
    centre = np.concatenate([polyline(path) for path in lines(finished)["centre"]])
    away = [np.hypot(*(centre - end).T).min() for end in (points[0], points[-1])]
    return points if away[0] <= away[1] else points[::-1]


@dataclass(frozen=True)
class Crease:
    """A line of a pleat by its number: its ends (2, 2) mm from the edge inwards; not every one is folded."""

    number: str
    ends: np.ndarray
    is_folded: bool


def creases(finished: FinishedPiece, full: str) -> list[Crease]:
    """The lines of all slashes of one fullness: folds, folds under, and the places that folds are laid on."""
    found = []
    for id, paths in lines(finished).items():
        number, _dot, kind = id.removeprefix(f"{full}.").rpartition(".")
        if id.startswith(f"{full}.") and kind in ("fold", "under", "place"):
            found += [Crease(number, polyline(path)[[0, -1]], kind != "place") for path in paths]
    return found


def folded(points: np.ndarray, folds: list[Crease]) -> tuple[list[np.ndarray], list[np.ndarray]]:
    """An edge folded flat: the stretches between lines where they come to lie, those that are seen and those that lie under:
    all between the first and the last line of one pleat. The first stretch stays; every crease mirrors all that is beyond
    it."""
    at = sorted((int(np.hypot(*(points - fold.ends[0]).T).argmin()), k) for k, fold in enumerate(folds))
    spans = [[i for i, k in at if folds[k].number == number] for number in {fold.number for fold in folds}]
    matrix, shift = np.eye(2), np.zeros(2)
    stretches: list[tuple[np.ndarray, bool]] = []
    begin = 0
    for index, k in [*at, (len(points) - 1, -1)]:
        if index > begin:
            is_under = any(min(span) <= begin and index <= max(span) for span in spans)
            stretches.append((points[begin : index + 1] @ matrix.T + shift, is_under))
        begin = index
        if k >= 0 and folds[k].is_folded:
            on, way = folds[k].ends[0], folds[k].ends[1] - folds[k].ends[0]
            way = way / np.hypot(*way)
            mirror = 2.0 * np.outer(way, way) - np.eye(2)
            shift = shift + matrix @ (on - mirror @ on)
            matrix = matrix @ mirror
    return [line for line, is_under in stretches if not is_under], [line for line, is_under in stretches if is_under]


def off(points: np.ndarray, line: np.ndarray) -> float:
    """How far points lie from a polyline at most, mm."""
    a, b = line[:-1], line[1:]
    way = b - a
    size = np.maximum((way**2).sum(axis=1), 1e-18)
    share = np.clip(((points[:, None] - a) * way).sum(axis=2) / size, 0.0, 1.0)
    near = a + share[..., None] * way
    return float(np.hypot(*np.moveaxis(points[:, None] - near, -1, 0)).min(axis=1).max())
