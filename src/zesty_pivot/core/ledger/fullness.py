"""The fullness account of each pivot, in degrees: what the block holds, where it sits now, what is missing."""

from __future__ import annotations

import math
from dataclasses import dataclass

from zesty_pivot.core.piece import Pattern, Piece, Place
from zesty_pivot.core.piece.spot import describe

# Degrees under this are the noise of float64; anything more has been lost or gained. From the design's bar.
NOISE_DEG = 1e-9


@dataclass(frozen=True)
class Placed:
    """One entry: the dart, where it sits in words (a station's name when it is one), its use and degrees."""

    dart: str
    where: str
    use: str
    deg: float


@dataclass(frozen=True)
class Account:
    """The account of one pivot of one piece. Degrees; `missing_deg` is what the block holds more than is placed."""

    piece: str
    pivot: str
    block_deg: float
    placed: tuple[Placed, ...]

    @property
    def missing_deg(self) -> float:
        """Fullness unaccounted for: positive when lost, negative when gained."""
        return self.block_deg - sum(entry.deg for entry in self.placed)

    @property
    def is_whole(self) -> bool:
        """Whether nothing was lost or gained."""
        return abs(self.missing_deg) <= NOISE_DEG


def accounts(pattern: Pattern, block: Pattern) -> tuple[Account, ...]:
    """The account of every pivot that has darts in the block or in the pattern.

    The closed piece is a cone round its pivot, so with every dart led to it the angles sum to the same deficit
    wherever they sit (Gauss-Bonnet).
    """
    found: list[Account] = []
    for source in block.pieces:
        if not pattern.has(source.name):
            continue
        piece = pattern.piece(source.name)
        for pivot in dict.fromkeys(dart.pivot for dart in (*source.darts, *piece.darts)):
            held = sum(math.degrees(source.angle(dart.id)) for dart in source.darts if dart.pivot == pivot)
            found.append(Account(source.name, pivot, held, _placed(piece, source, pivot)))
    return tuple(found)


def _placed(piece: Piece, block: Piece, pivot: str) -> tuple[Placed, ...]:
    return tuple(
        Placed(dart.id, station(piece, block, dart.id), dart.use.value, math.degrees(piece.angle(dart.id)))
        for dart in piece.darts
        if dart.pivot == pivot
    )


def station(piece: Piece, block: Piece, dart: str) -> str:
    """Where a dart opens: the station's name, or the edge and the share along it."""
    run = piece.mouth_run(dart)
    place = Place(run, piece.runs[run].path.length)
    return describe(piece, block, place, piece.dart(dart).pivot)
