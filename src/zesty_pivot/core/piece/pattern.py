"""All pieces of a style with the seams that join them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from zesty_pivot.core.errors import PlaceError, one_of
from zesty_pivot.core.piece.piece import Piece


@dataclass(frozen=True)
class Seam:
    """Two edges sewn to each other, each written `piece.edge`; `ease_mm` is how much longer b may be than a."""

    a: str
    b: str
    ease_mm: float = 0.0


@dataclass(frozen=True)
class Pattern:
    """Pieces and seams."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...] = ()

    def piece(self, name: str) -> Piece:
        """A piece by its name. Raises PlaceError with the near name."""
        for piece in self.pieces:
            if piece.name == name:
                return piece
        what, advice = one_of("piece", name, (piece.name for piece in self.pieces))
        raise PlaceError(what, advice=advice)

    def has(self, name: str) -> bool:
        """Whether a piece of this name is there."""
        return any(piece.name == name for piece in self.pieces)

    def with_piece(self, changed: Piece) -> Pattern:
        """The pattern with the piece of the same name exchanged."""
        self.piece(changed.name)
        return replace(self, pieces=tuple(changed if p.name == changed.name else p for p in self.pieces))

    def sewn_length(self, end: str) -> float:
        """The sewn length in mm of an edge written `piece.edge`."""
        piece, _dot, edge = end.partition(".")
        return self.piece(piece).edge(edge).sewn_length

    def are_sewn(self, one: str, two: str, role: str) -> bool:
        """Whether a seam of a role joins two pieces directly."""
        for seam in self.seams:
            (first, _dot, edge), (second, _too, _other) = seam.a.partition("."), seam.b.partition(".")
            if {first, second} == {one, two} and self.piece(first).role(edge) == role:
                return True
        return False
