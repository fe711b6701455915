"""Edges that hang in folds, and what of them is turned back."""

from __future__ import annotations

from zesty_pivot.core.record import record


@record
class TurnedBack:
    """A facing cut in one with an edge that runs straight from the centre outwards, and folded back along it: how deep it is at
    the centre, and along the seam at the other end (mm)."""

    edge: str
    centre_mm: float
    seam_mm: float


@record
class Hang:
    """A fold that hangs between two points of the shoulders: how far each is from the centre on the body (`open_mm`), and how
    much cloth there is from it to the centre (`long_mm`); `drop_mm` is how far below the edge's points they are."""

    open_mm: float
    long_mm: float
    drop_mm: float = 0.0

    @property
    def sag(self) -> float:
        """How far (mm) the middle hangs below both points, its halves straight: sqrt(long^2 - open^2). Common practice, no
        source."""
        return float(max(self.long_mm**2 - self.open_mm**2, 0.0) ** 0.5)
