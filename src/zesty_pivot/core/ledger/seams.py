"""The length account of each seam: two partner edges, the intended ease, and what is left over."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from zesty_pivot.core.piece import Pattern


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


def seam_accounts(pattern: Pattern, ease: Mapping[str, float]) -> tuple[SeamAccount, ...]:
    """Every seam's account. `ease` gives the intended ease in mm by the seam's first edge."""
    return tuple(
        SeamAccount(seam.a, seam.b, pattern.sewn_length(seam.a), pattern.sewn_length(seam.b), ease.get(seam.a, seam.ease_mm))
        for seam in pattern.seams
    )
