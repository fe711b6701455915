"""Drafts for tests: landmarks and lengths of a block in inches or millimetres, read off the block file."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from tests.bodies import IN, person
from zesty_pivot.core.drafting.draft import Draft, draft
from zesty_pivot.core.drafting.settings import kept
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile, BlockPiece
from zesty_pivot.core.formats.drafted_block import block_of
from zesty_pivot.core.piece import Piece
from zesty_pivot.data.methods import shipped


@dataclass(frozen=True)
class Drafted:
    """A draft with its block, lengths in a unit of so many mm."""

    drawn: Draft
    block: BlockFile
    mm: float

    def _piece(self, name: str) -> BlockPiece:
        return next(piece for piece in self.block.pieces if piece.name == name)

    def landmark(self, piece: str, name: str) -> tuple[float, float]:
        x, y = self._piece(piece).landmarks[name]
        return x / self.mm, y / self.mm

    def mouth(self, piece: str, dart: str) -> tuple[tuple[float, float], ...]:
        held = next(each for each in self._piece(piece).darts if each.id == dart)
        return tuple((x / self.mm, y / self.mm) for x, y in held.mouth)

    def point(self, piece: str, name: str) -> tuple[float, float]:
        """A point of the draft by its name in the method."""
        found: Any = self.drawn.value(piece, name)
        return found.x / self.mm, found.y / self.mm

    def pattern(self, piece: str) -> Piece:
        return block_file.pattern(self.block).piece(piece)


def worked(method: str, settings: dict[str, str | float] | None = None, mm: float = IN, **measures: float) -> Drafted:
    """A method drawn for the measured person, with some measurements (mm) and settings otherwise."""
    chosen = shipped(method)
    body = {name: mm for name, mm in {**person(method), **measures}.items() if mm is not None}
    drawn = draft(chosen, body, kept(chosen, settings or {}, "in" if mm == IN else "mm"))
    return Drafted(drawn, block_of(drawn), mm)


def dist(p: tuple[float, float], q: tuple[float, float]) -> float:
    return math.dist(p, q)


def sewn(piece: Piece, role: str) -> float:
    """The sewn length of the edges of a role, mm."""
    return sum(edge.sewn_length for edge in piece.edges if edge.role == role)


def shut_side(piece: Piece) -> float:
    return sewn(piece, "side_seam")
