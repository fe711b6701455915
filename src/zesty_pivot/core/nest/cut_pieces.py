"""Pieces as they are cut out of cloth: opened where they are drawn on the fold, the second of a pair turned over, their grain
along the cloth."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record

OVER_FOLD = 3.0  # mm that a piece may reach over its fold: a corner of an allowance, which the fold cuts off
FLAT = 0.2  # mm that the outline of a cut piece may lie outside the piece: fewer corners make a faster search


@record
class CutPiece:
    """One piece of cloth. `key` tells it from all others of a lay; `motion` takes the piece's own mm to a frame whose x runs
    along the grain, from the piece's top to its bottom; `shape` lies in that frame. `is_at_fold` is half a piece whose fold is
    the frame's x axis, the cloth above it."""

    key: str
    piece: FinishedPiece
    motion: Motion
    shape: shapely.Polygon
    is_mirrored: bool = False
    is_at_fold: bool = False
    is_opened: bool = False


def cut_pieces(sets: Sequence[tuple[str, Iterable[FinishedPiece]]], *, is_folded: bool) -> tuple[CutPiece, ...]:
    """What is cut of several sizes, each with its name; on folded cloth what is cut twice lies once, and fold pieces lie at the
    fold. Raises ZestyError where a piece that is cut once is to lie on folded cloth, and where one has no cut line."""
    found: list[CutPiece] = []
    for size, pieces in sets:
        for piece in pieces:
            if piece.fault:
                raise ZestyError(
                    f"{words(piece.name)} has no cut line", where="lay", advice="See its finding in the finish view."
                )
            if piece.cut.startswith("fold") and (over := _over_fold(piece)) > OVER_FOLD:
                raise ZestyError(
                    f"{words(piece.name)} reaches {over / 10.0:.1f} cm over its fold", where="lay",
                    advice="Cut it as a pair in the finish view, or look at what is turned back there.",
                )  # fmt: skip
            prefix = f"{size}/{piece.name}" if size else piece.name
            made = _on_folded(piece, prefix) if is_folded else _on_open(piece, prefix)
            found += made
    return tuple(found)


def count_of(order: str) -> int:
    """How often a cutting order cuts a piece: a pair twice, a number as often as it says."""
    if order == "pair":
        return 2
    number = order.removeprefix("fold ").split()[0] if order not in ("fold", "one", "up") else "1"
    return int(number) if number.isdigit() else 1


def _on_open(piece: FinishedPiece, key: str) -> list[CutPiece]:
    count = count_of(piece.cut)
    if piece.cut.startswith("fold"):
        motion, shape = _along_grain(piece), _opened(piece)
        laid = _moved(shape, motion)
        return [CutPiece(_numbered(key, n, count), piece, motion, laid, is_opened=True) for n in range(count)]
    found = []
    for n in range(count):
        is_mirrored = piece.cut == "pair" and n % 2 == 1
        motion = _along_grain(piece)
        if is_mirrored:
            motion = motion.then(Motion.reflect(np.zeros(2), np.array([1.0, 0.0])))
        shape = _moved(shapely.Polygon(piece.ring), motion)
        found.append(CutPiece(_numbered(key, n, count), piece, motion, shape, is_mirrored))
    return found


def _on_folded(piece: FinishedPiece, key: str) -> list[CutPiece]:
    count = count_of(piece.cut)
    if piece.cut.startswith("fold"):
        start, stop = fold_line(piece)
        # The fold on the frame's x axis, from the piece's top on, the piece on the side of positive y.
        motion = Motion.lay((start, stop), (np.zeros(2), np.array([1.0, 0.0])))
        shape = _moved(shapely.Polygon(piece.ring), motion)
        if shape.centroid.y < 0.0:
            motion = motion.then(Motion.reflect(np.zeros(2), np.array([1.0, 0.0])))
            shape = _moved(shapely.Polygon(piece.ring), motion)
        shape = shape.intersection(shapely.box(shape.bounds[0], -FLAT, *shape.bounds[2:]))
        return [CutPiece(_numbered(key, n, count), piece, motion, shape, is_at_fold=True) for n in range(count)]
    if count % 2:
        often = "once" if count == 1 else f"{count} times"
        raise ZestyError(
            f"{words(piece.name)} is cut {often} and cannot lie on folded cloth", where="lay",
            advice="Open the cloth, or change how it is cut in the finish view.",
        )  # fmt: skip
    motion = _along_grain(piece)
    shape = _moved(shapely.Polygon(piece.ring), motion)
    return [CutPiece(_numbered(key, n, count // 2), piece, motion, shape) for n in range(count // 2)]


def _numbered(key: str, number: int, count: int) -> str:
    return key if count == 1 else f"{key} {number + 1}"


def fold_line(piece: FinishedPiece) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Where a piece is folded, from its upper end to its lower."""
    path = next(path for stroke in piece.strokes if stroke.kind == "fold" for path in stroke.paths)
    start, stop = np.asarray(path.start), np.asarray(path.end)
    return (start, stop) if start[1] <= stop[1] else (stop, start)


def _over_fold(piece: FinishedPiece) -> float:
    """How far a piece reaches over the line that it is folded on, mm."""
    start, stop = fold_line(piece)
    along = (stop - start) / np.hypot(*(stop - start))
    aside = (piece.ring - start) @ np.array([-along[1], along[0]])
    return float(min(max(aside.max(), 0.0), max(-aside.min(), 0.0)))


def _opened(piece: FinishedPiece) -> shapely.Polygon:
    """A piece with its other half."""
    start, stop = fold_line(piece)
    other = Motion.reflect(start, stop - start)(piece.ring)
    whole = shapely.union_all([shapely.Polygon(piece.ring).buffer(1e-3), shapely.Polygon(other).buffer(1e-3)]).buffer(-1e-3)
    return max(shapely.get_parts(whole), key=lambda part: float(part.area))


def _along_grain(piece: FinishedPiece) -> Motion:
    """What turns the grain line, from top to bottom, along x. A piece without one is taken as it is drawn."""
    path = next((stroke.paths[0] for stroke in piece.strokes if stroke.kind == "grain"), None)
    along = np.array([0.0, 1.0]) if path is None else np.asarray(path.end) - np.asarray(path.start)
    if along[1] < -1e-9 or (abs(along[1]) <= 1e-9 and along[0] < 0.0):
        along = -along
    return Motion.turn(np.zeros(2), -math.atan2(along[1], along[0]))


def _moved(shape: shapely.Polygon, motion: Motion) -> shapely.Polygon:
    """The outline after a motion, without corners that tell nothing: never smaller than it was."""
    outer = shapely.Polygon(motion(shapely.get_coordinates(shape.exterior)))
    wide = outer.buffer(FLAT / 2.0, join_style="mitre", mitre_limit=2.0).simplify(FLAT / 2.0)
    largest = max(shapely.get_parts(wide), key=lambda part: float(part.area))
    return shapely.Polygon(largest.exterior)
