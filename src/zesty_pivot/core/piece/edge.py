"""A stretch of an edge between mouths and joints, and the edge as the sum of its stretches."""

from __future__ import annotations

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.record import record, replace


@record
class Origin:
    """A place of the cloth, wherever it lies now: the line it is on, the share u (0 to 1) along it, and whether it is on the
    right half of an unfolded piece, which the block does not draw."""

    line: str
    u: float
    is_mirrored: bool = False


@record
class Source:
    """Provenance: which edge of the block a run comes from and which stretch of it.

    `edge` is `piece.edge` of the block, or the name of the line a step drew. u runs from 0 to 1 by
    sewn length from the edge's first landmark; u0 belongs to the run's start. `is_mirrored` is true of the right half of an
    unfolded piece, `is_pointed` of a line that is meant to meet the centre in a point.
    """

    edge: str
    u0: float
    u1: float
    is_mirrored: bool = False
    is_pointed: bool = False

    @property
    def line(self) -> tuple[str, bool]:
        """The line itself, whichever stretch of it."""
        return self.edge, self.is_mirrored

    def at(self, share: float) -> float:
        """u at a share (0 to 1) of the run's length."""
        return self.u0 + (self.u1 - self.u0) * share

    def parted(self, share: float) -> tuple[Source, Source]:
        """The provenance of the two parts of a run split at a share of its length."""
        middle = self.at(share)
        return replace(self, u1=middle), replace(self, u0=middle)

    def turned(self) -> Source:
        """The provenance of the run walked from its end."""
        return replace(self, u0=self.u1, u1=self.u0)


@record
class Notch:
    """A mark on a seam, where it lies on the cloth. Two panels' notches of one id meet when sewn; `name` is what it is called
    there; `strokes` is 1 on the front and 2 on the back."""

    id: str
    name: str
    at: Origin
    strokes: int = 1


@record
class Run:
    """A stretch of one edge without a mouth in it. `mouth` names the dart that opens at its end."""

    edge: str
    path: Path
    source: Source
    mouth: str | None = None


@record
class Edge:
    """All runs of one edge of a piece, in loop order. Open mouths inside it are not part of its length."""

    id: str
    role: str
    runs: tuple[Run, ...]

    @property
    def sewn_length(self) -> float:
        """Length in mm with the mouths closed."""
        return sum(run.path.length for run in self.runs)
