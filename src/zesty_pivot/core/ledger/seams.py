"""The length account of each seam: two partner edges, the intended ease, and what is left over."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.moves.open_up import open_up
from zesty_pivot.core.piece import Pattern, Piece, Seam, SeamSide, Use
from zesty_pivot.core.record import record, replace


@record
class SeamAccount:
    """A seam with its edges and lengths in mm; ease is how much longer b is meant to be than a."""

    a: SeamSide
    b: SeamSide
    a_mm: float
    b_mm: float
    ease_mm: float

    @property
    def difference_mm(self) -> float:
        """What is left when the intended ease is taken off: b - a - ease."""
        return self.b_mm - self.a_mm - self.ease_mm


def finished_length(piece: Piece, edge: str) -> float:
    """The length in mm of an edge of the finished garment: what is sewn, gathered, pleated or eased in is not part of it, what
    flares or hangs free is."""
    length = piece.edge(edge).sewn_length
    for laid in laid_open(piece)[1] if piece.fullness else ():
        for end in laid.ends:
            if end.edge == edge:
                length += (0.0 if end.held else end.taken_mm) - (laid.fullness.own_mm if end.held else 0.0)
    if any(dart.use is Use.FLARE for dart in piece.darts):
        length += sum(found.open_mm for found in open_up(piece)[1] if found.edge == edge and not found.taken_mm)
    return length


def _finished(pattern: Pattern, side: SeamSide) -> float:
    return sum(finished_length(pattern.piece(part.piece), part.edge) for part in side.parts)


def _ease(pattern: Pattern, seam: Seam, ease: Mapping[str, float]) -> float:
    """The intended ease of a seam; what was meant for a half holds for both sides of it once unfolded."""
    of_half = SeamSide(tuple(replace(at, edge=pattern.piece(at.piece).sides.name(at.edge)) for at in seam.a.parts))
    return ease.get(str(seam.a), ease.get(str(of_half), seam.ease_mm))


def seam_accounts(pattern: Pattern, ease: Mapping[str, float]) -> tuple[SeamAccount, ...]:
    """Every seam's account. `ease` gives the intended ease in mm by the text of the seam's first side."""
    return tuple(
        SeamAccount(seam.a, seam.b, _finished(pattern, seam.a), _finished(pattern, seam.b), _ease(pattern, seam, ease))
        for seam in pattern.seams
    )
