"""A block that was imported against the block that was written: lengths by Simpson's rule over points, angles by atan2."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile


@dataclass(frozen=True)
class Apart:
    """How far two blocks differ: the worst seam and leg (mm), the worst dart (degrees)."""

    seam: float
    dart: float


def length(cubic: np.ndarray) -> float:
    """The length of one cubic by Simpson's rule on 400 parts: shares no code with the program."""
    t = np.linspace(0.0, 1.0, 401)[:, None]
    speed = np.hypot(
        *(3 * ((1 - t) ** 2 * (cubic[1] - cubic[0]) + 2 * (1 - t) * t * (cubic[2] - cubic[1]) + t**2 * (cubic[3] - cubic[2]))).T
    )
    return float((speed[0] + speed[-1] + 4 * speed[1:-1:2].sum() + 2 * speed[2:-1:2].sum()) / 1200.0)


def apart(one: BlockFile, two: BlockFile) -> Apart:
    """How far they differ. AssertionError where they do not have the same pieces, edges and darts."""
    seams, darts = [0.0], [0.0]
    first, second = block_file.pattern(one), block_file.pattern(two)
    assert {piece.name for piece in first.pieces} == {piece.name for piece in second.pieces}
    for piece in first.pieces:
        other = second.piece(piece.name)
        assert piece.roles == other.roles
        for id, _role in piece.roles:
            sizes = [
                sum(length(cubic) for run in its.runs if run.edge == id for cubic in run.path.cubics) for its in (piece, other)
            ]
            seams.append(abs(sizes[0] - sizes[1]))
        assert {dart.id for dart in piece.darts} == {dart.id for dart in other.darts}, piece.name
        for dart in piece.darts:
            angles = [_angle(its.pivot(its.dart(dart.id).pivot), its.mouth(dart.id)) for its in (piece, other)]
            darts.append(abs(angles[0] - angles[1]))
        assert len(piece.fisheyes) == len(other.fisheyes)
        for eye, found in zip(piece.fisheyes, other.fisheyes, strict=True):
            seams.append(max(math.dist(a, b) for a, b in zip(_shape(eye.corners), _shape(found.corners), strict=True)))
    return Apart(max(seams), max(darts))


def _angle(pin: np.ndarray, mouth: Iterable[np.ndarray]) -> float:
    a, b = (math.atan2(*(end - pin)[::-1]) for end in mouth)
    return abs(math.degrees((b - a + math.pi) % (2 * math.pi) - math.pi))


def _shape(corners: Iterable[np.ndarray]) -> list[tuple[float, float]]:
    """A fish-eye's sides and diagonals, whatever it lies on."""
    a, b, c, d = corners
    return [(math.dist(a, b), math.dist(b, c)), (math.dist(c, d), math.dist(d, a)), (math.dist(a, c), math.dist(b, d))]
