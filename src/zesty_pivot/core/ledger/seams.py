"""The length account of each seam: two partner edges, the intended ease, and what is left over."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from zesty_pivot.core.moves.open_up import open_up
from zesty_pivot.core.piece import Pattern, Piece, Seam, Use
from zesty_pivot.core.piece.names import side_of
from zesty_pivot.core.piece.pattern import parts_of


@dataclass(frozen=True)
class SeamAccount:
    """A seam with its edges (`piece.edge`) and lengths in mm; ease is how much longer b is meant to be than a."""

    a: str
    b: str
    a_mm: float
    b_mm: float
    ease_mm: float

    @property
    def difference_mm(self) -> float:
        """What is left when the intended ease is taken off: b - a - ease."""
        return self.b_mm - self.a_mm - self.ease_mm


def finished_length(piece: Piece, edge: str) -> float:
    """The length in mm of an edge of the finished garment: what is sewn, gathered, pleated or eased in is not part of it, what
    flares is."""
    length = piece.edge(edge).sewn_length
    if any(dart.use is Use.FLARE for dart in piece.darts):
        length += sum(found.open_mm for found in open_up(piece)[1] if found.edge == edge and not found.taken_mm)
    return length


def _finished(pattern: Pattern, end: str) -> float:
    return sum(finished_length(pattern.piece(piece), edge) for piece, edge in parts_of(end))


def _ease(seam: Seam, ease: Mapping[str, float]) -> float:
    """The intended ease of a seam; what was meant for a half holds for both sides of it once unfolded."""
    return ease.get(seam.a, ease.get(seam.a.removesuffix(side_of(seam.a)), seam.ease_mm))


def seam_accounts(pattern: Pattern, ease: Mapping[str, float]) -> tuple[SeamAccount, ...]:
    """Every seam's account. `ease` gives the intended ease in mm by the seam's first edge."""
    return tuple(
        SeamAccount(seam.a, seam.b, _finished(pattern, seam.a), _finished(pattern, seam.b), _ease(seam, ease))
        for seam in pattern.seams
    )
