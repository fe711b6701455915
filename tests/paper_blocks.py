"""Blocks as they lie on paper: outlines with their darts cut out or drawn, turned, mirrored, stretched, walked from anywhere.

What the importer must find again is kept beside them, from the block itself.
"""

from __future__ import annotations

import math
import random
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile, BlockPiece
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.bezier import line
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import CORNERS

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Lay:
    """How a piece lies: `p -> matrix p + shift`."""

    matrix: Array = field(default_factory=lambda: np.eye(2))
    shift: Array = field(default_factory=lambda: np.zeros(2))

    def __call__(self, points: Array) -> Array:
        laid: Array = np.asarray(points, dtype=float) @ self.matrix.T + self.shift
        return laid

    @classmethod
    def chance(cls, chance: random.Random, *, stretch: float = 0.0) -> Lay:
        """Turned and mirrored anyhow, stretched across and along by up to a share."""
        angle = chance.uniform(0.0, 2.0 * math.pi)
        turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
        wide, high = (1.0 + chance.uniform(-stretch, stretch) for _ in range(2))
        mirror = chance.choice([1.0, -1.0])
        return cls(turn @ np.diag([mirror * wide, high]), np.array([chance.uniform(-500, 500), chance.uniform(-500, 500)]))


@dataclass(frozen=True)
class PaperPiece:
    """One piece on paper, and what it is: corners, darts (mouth, drawn point) and fish-eyes by the block, as they lie."""

    name: str
    outline: Path
    eyes: tuple[Path, ...]
    corners: dict[str, Array]
    darts: dict[str, tuple[Array, Array, Array]]
    roles: tuple[str, ...]
    is_hip: bool
    bust_point: Array | None
    lay: Lay


def on_paper(model: BlockPiece, piece: Piece, lay: Lay, *, to_pivot: bool = False) -> PaperPiece:
    """A piece of a block with its darts cut out to where they are drawn, or to their pivots."""
    drawn = {dart.id: np.array(dart.point) for dart in model.darts}
    points = {dart.id: piece.pivot(dart.pivot) if to_pivot else drawn[dart.id] for dart in piece.darts}
    cubics: list[Array] = []
    for index, run in enumerate(piece.runs):
        cubics += list(run.path.cubics)
        if run.mouth:
            after = piece.runs[piece.after(index)]
            cubics += [line(run.path.end, points[run.mouth]), line(points[run.mouth], after.path.start)]
    outline = Path(lay(np.stack(cubics)))
    eyes = tuple(Path.straight(*(lay(np.array(corner)) for corner in (*eye.corners, eye.corners[0]))) for eye in piece.fisheyes)
    return PaperPiece(
        name=piece.name, outline=outline, eyes=eyes,
        corners={name: lay(np.array(at)) for name, at in model.landmarks.items() if name in CORNERS},
        darts={dart.id: _laid(lay, *piece.mouth(dart.id), points[dart.id]) for dart in piece.darts},
        roles=tuple(edge.role for edge in piece.edges), is_hip=piece.is_hip_length,
        bust_point=lay(np.array(model.landmarks["bust_point"])) if "bust_point" in model.landmarks else None, lay=lay,
    )  # fmt: skip


def _laid(lay: Lay, first: Array, last: Array, point: Array) -> tuple[Array, Array, Array]:
    return lay(first), lay(last), lay(point)


def pieces_of(block: BlockFile, lay: Lay, *, to_pivot: bool = False) -> list[PaperPiece]:
    """All pieces of a block on one paper, side by side."""
    found, at = [], 0.0
    for model, piece in zip(block.pieces, block_file.pattern(block).pieces, strict=True):
        found.append(on_paper(model, piece, Lay(lay.matrix, lay.shift + np.array([at, 0.0])), to_pivot=to_pivot))
        at += 2500.0
    return found


def from_anywhere(path: Path, chance: random.Random) -> Path:
    """The same closed outline walked from another joint, perhaps the other way round."""
    at = chance.randrange(len(path.cubics))
    turned = Path(np.roll(path.cubics, -at, axis=0)) if at else path
    return turned.reversed() if chance.random() < 0.5 else turned


def dotted(path: Path, chance: random.Random, noise: float, apart: float = 5.0) -> Path:
    """The outline as points along it, each straying by `noise` mm (a standard deviation) across and along: what a hand or a
    device traces."""
    points = []
    for cubic in path.cubics:
        part = Path(cubic[None])
        count = max(1, round(part.length / apart))
        points += [part.point_at(part.length * index / count) for index in range(count)]
    strayed = np.array(points) + np.array([[chance.gauss(0.0, noise), chance.gauss(0.0, noise)] for _ in points])
    return Path.polyline(np.concatenate([strayed, strayed[:1]]))


def flattened(path: Path, tolerance: float = 0.02) -> Path:
    """The outline as short lines that keep within a tolerance of it."""
    return Path.polyline(path.flatten(tolerance))
