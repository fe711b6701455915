"""A stretch of an edge between mouths and joints, and the edge as the sum of its stretches."""

from __future__ import annotations

from dataclasses import dataclass

from zesty_pivot.core.geometry import Path


@dataclass(frozen=True)
class Source:
    """Provenance: which edge of the block a run comes from and which stretch of it.

    `edge` is `piece.edge` of the block, or the name of the line a step drew. u runs from 0 to 1 by
    sewn length from the edge's first landmark; u0 belongs to the run's start.
    """

    edge: str
    u0: float
    u1: float

    def at(self, share: float) -> float:
        """u at a share (0 to 1) of the run's length."""
        return self.u0 + (self.u1 - self.u0) * share

    def parted(self, share: float) -> tuple[Source, Source]:
        """The provenance of the two parts of a run split at a share of its length."""
        middle = self.at(share)
        return Source(self.edge, self.u0, middle), Source(self.edge, middle, self.u1)

    def turned(self) -> Source:
        """The provenance of the run walked from its end."""
        return Source(self.edge, self.u1, self.u0)


@dataclass(frozen=True)
class Notch:
    """A mark on a seam, by provenance: the line's name and the place u on it. Two panels' notches of one id meet when sewn;
    `strokes` is 1 on the front and 2 on the back."""

    id: str
    edge: str
    u: float
    strokes: int = 1


@dataclass(frozen=True)
class Run:
    """A stretch of one edge without a mouth in it. `mouth` names the dart that opens at its end."""

    edge: str
    path: Path
    source: Source
    mouth: str | None = None


@dataclass(frozen=True)
class Edge:
    """All runs of one edge of a piece, in loop order. Open mouths inside it are not part of its length."""

    id: str
    role: str
    runs: tuple[Run, ...]

    @property
    def sewn_length(self) -> float:
        """Length in mm with the mouths closed."""
        return sum(run.path.length for run in self.runs)
