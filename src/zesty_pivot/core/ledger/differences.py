"""What differs between two patterns, seam by seam and dart by dart: the figures of tracing paper."""

from __future__ import annotations

import math

from zesty_pivot.core.ledger.fullness import station
from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.piece import Pattern, Piece, called
from zesty_pivot.core.record import record

# Smaller differences (mm, degrees) are the noise of six decimals in a file; they are no change.
NOISE_MM = 1e-3
NOISE_DEG = 1e-3


@record
class EdgeDifference:
    """One edge of a piece: its sewn length in mm now and on the other sheet, None where there is none."""

    piece: str
    edge: str
    now_mm: float | None
    other_mm: float | None

    @property
    def difference_mm(self) -> float:
        """How much longer the edge is now; an edge that is missing counts as nothing."""
        return (self.now_mm or 0.0) - (self.other_mm or 0.0)

    @property
    def is_change(self) -> bool:
        """Whether it differs by more than noise."""
        return abs(self.difference_mm) > NOISE_MM


@record
class DartSide:
    """A dart on one of the two sheets: its station, what it is called there, its angle in degrees and mouth in mm."""

    station: str
    called: str
    angle_deg: float
    intake_mm: float


@record
class DartDifference:
    """One dart of a piece on both sheets, None where it is not there."""

    piece: str
    dart: str
    now: DartSide | None
    other: DartSide | None

    @property
    def angle_deg(self) -> float:
        """How many degrees more the dart holds now."""
        return (self.now.angle_deg if self.now else 0.0) - (self.other.angle_deg if self.other else 0.0)

    @property
    def intake_mm(self) -> float:
        """How much wider its mouth is now."""
        return (self.now.intake_mm if self.now else 0.0) - (self.other.intake_mm if self.other else 0.0)

    @property
    def is_change(self) -> bool:
        """Whether it sits elsewhere, or differs by more than noise."""
        moved = (self.now.station if self.now else "") != (self.other.station if self.other else "")
        return moved or abs(self.angle_deg) > NOISE_DEG or abs(self.intake_mm) > NOISE_MM


@record
class Differences:
    """All edges and darts of both sheets, the same ones too."""

    edges: tuple[EdgeDifference, ...]
    darts: tuple[DartDifference, ...]

    @property
    def are_none(self) -> bool:
        """Whether both sheets hold the same figures."""
        return not (any(row.is_change for row in self.edges) or any(row.is_change for row in self.darts))


def differences(now: Pattern, now_block: Pattern, other: Pattern, other_block: Pattern) -> Differences:
    """The figures of two patterns side by side. The blocks are where stations are measured.

    Pieces are the same when they have the same name; edges and darts when they have the same id.
    """
    names = list(dict.fromkeys(piece.name for piece in (*now.pieces, *other.pieces)))
    edges: list[EdgeDifference] = []
    darts: list[DartDifference] = []
    for name in names:
        one, two = (_piece(pattern, name) for pattern in (now, other))
        ids = dict.fromkeys(id for piece in (one, two) if piece for id, _role in piece.roles)
        edges += [EdgeDifference(name, id, _sewn(one, id), _sewn(two, id)) for id in ids]
        held = dict.fromkeys(dart.id for piece in (one, two) if piece for dart in piece.darts)
        darts += [DartDifference(name, id, _side(one, now_block, id), _side(two, other_block, id)) for id in held]
    return Differences(tuple(edges), tuple(darts))


def _piece(pattern: Pattern, name: str) -> Piece | None:
    return pattern.piece(name) if pattern.has(name) else None


def _sewn(piece: Piece | None, edge: str) -> float | None:
    if piece is None or edge not in dict(piece.roles):
        return None
    return finished_length(piece, edge)


def _side(piece: Piece | None, block: Pattern, dart: str) -> DartSide | None:
    if piece is None or not piece.has_dart(dart):
        return None
    where = station(piece, block.drafted(piece), dart)
    return DartSide(where, called(piece, dart), math.degrees(piece.angle(dart)), piece.intake(dart))
