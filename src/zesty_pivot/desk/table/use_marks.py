"""Marks of other uses on the table: waves along gathers, a dashed line along ease, the lines of tucks and pleats."""

from __future__ import annotations

import math

import numpy as np
from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainterPath

from zesty_pivot.core.finish.balance import notch_place
from zesty_pivot.core.finish.darts import PLEAT_MARK
from zesty_pivot.core.finish.let_in_marks import arrows_of, lines_of, rows_of
from zesty_pivot.core.finish.marks import DOUBLE_APART
from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.laid_open import LaidOpen
from zesty_pivot.core.moves.open_up import OpenedMouth
from zesty_pivot.core.piece import Piece, Taking, Use

_WAVE = 5.0  # mm, half a wave along the gathers
_INSIDE = 6.0  # mm from the edge

Words = tuple[tuple[QPointF, str], ...]


def use_marks(paper: Piece, opened: tuple[OpenedMouth, ...]) -> tuple[QPainterPath, Words]:
    """The marks of a piece as it lies on the paper, mm, and the words beside them."""
    drawn, words = QPainterPath(), []
    for found in opened:
        if found.dart.use is not Use.FLARE:
            _waves(drawn, found.start, found.middle, found.stop, found.outwards, eased=found.dart.use is Use.EASE)
        at = found.middle - found.outwards * 15.0
        words.append((QPointF(*at), found.dart.use.value))
    for dart in paper.darts:
        if dart.use is Use.DART:
            continue
        pin, mouth = paper.pivot(dart.pivot), paper.mouth(dart.id)
        long = dart.hold.stitched_mm if dart.use is Use.TUCK else PLEAT_MARK
        for end in mouth:
            size = math.dist(end, pin)
            stop = end + (pin - end) * min(1.0, long / size)
            drawn.moveTo(*end)
            drawn.lineTo(*stop)
            if dart.use is Use.TUCK:  # a bar where the stitching ends
                across = unit(np.array([-(pin - end)[1], (pin - end)[0]])) * 2.5
                drawn.moveTo(*(stop - across))
                drawn.lineTo(*(stop + across))
        middle = np.mean(mouth, axis=0)
        inwards = unit(pin - middle)
        words.append((QPointF(*(middle + inwards * 24.0)), dart.use.value))
    for mark in paper.notches:
        place = notch_place(paper, mark)
        if place is not None:
            _notch(drawn, paper.runs[place.run].path, place.at, mark.strokes)
    return drawn, tuple(words)


def let_in_marks(paper: Piece, let_in: tuple[LaidOpen, ...]) -> tuple[QPainterPath, Words]:
    """The marks of gathers, pleats and tucks on the paper, mm: their lines and arrows, waves along gathers; and their words."""
    drawn, words = QPainterPath(), []
    for laid in let_in:
        for line in (*lines_of(laid), *rows_of(laid, paper), *arrows_of(laid)):
            for path in line.paths:
                draw = _dashed if line.kind in ("crease", "centre", "thin") else _whole
                draw(drawn, path)
        for end in laid.ends:
            if not end.held:
                continue
            if laid.fullness.taking is Taking.GATHERS:
                _waves(drawn, end.start, end.middle, end.stop, end.outwards)
            at = end.middle - end.outwards * 15.0
            words.append((QPointF(*at), laid.fullness.style))
    return drawn, tuple(words)


def _whole(drawn: QPainterPath, path: Path) -> None:
    points = path.outline
    drawn.moveTo(*points[0])
    for point in points[1:]:
        drawn.lineTo(*point)


def _dashed(drawn: QPainterPath, path: Path) -> None:
    """A line in dashes of 4 mm, all worked out in one go: eight pleats have some thousand."""
    line = path.outline
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    starts = np.arange(0.0, along[-1], 8.0)
    ends = np.minimum(np.stack([starts, starts + 4.0], axis=1), along[-1])
    for (x0, x1), (y0, y1) in zip(*(np.interp(ends, along, line[:, axis]).tolist() for axis in (0, 1)), strict=True):
        drawn.moveTo(x0, y0)
        drawn.lineTo(x1, y1)


def _notch(drawn: QPainterPath, path: Path, at: float, strokes: int) -> None:
    """The strokes of a notch, square into the piece from its seam."""
    for number in range(strokes):
        distance = at + (number - (strokes - 1) / 2.0) * DOUBLE_APART
        point, along = path.point_at(distance), path.direction_at(distance)
        drawn.moveTo(*point)
        drawn.lineTo(*(point + np.array([-along[1], along[0]]) * _INSIDE))


def _waves(drawn: QPainterPath, start: Vector, middle: Vector, stop: Vector, outwards: Vector, *, eased: bool = False) -> None:
    """A wavy line from notch to notch, a little inside the edge; for ease a line of dashes."""
    ends = start, stop
    start, middle, stop = (at - outwards * _INSIDE for at in (start, middle, stop))
    for end in ends:
        drawn.moveTo(*end)
        drawn.lineTo(*(end - outwards * 4.0))
    count = max(2, round(math.dist(start, stop) / _WAVE))
    points = [_on(start, middle, stop, k / count) for k in range(count + 1)]
    drawn.moveTo(*points[0])
    for number in range(1, count + 1):
        if eased:
            (drawn.lineTo if number % 2 else drawn.moveTo)(*points[number])
            continue
        side = outwards * (_WAVE * 0.8 * (1 if number % 2 else -1))
        drawn.quadTo(QPointF(*((points[number - 1] + points[number]) / 2.0 + side)), QPointF(*points[number]))


def _on(start: np.ndarray, middle: np.ndarray, stop: np.ndarray, share: float) -> np.ndarray:
    """A point of the quadratic curve through three points."""
    control = 2.0 * middle - (start + stop) / 2.0
    found: np.ndarray = start * (1 - share) ** 2 + control * (2 * share * (1 - share)) + stop * share**2
    return found
