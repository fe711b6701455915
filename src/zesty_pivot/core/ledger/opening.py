"""The whole finished neck opening, with what opens it, against the head."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.piece import Opening, Pattern
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.quantity import share_of
from zesty_pivot.core.record import record

# Head girths of women are about 56 to 58 cm: from memory of size tables, common practice, no source. The middle is taken where
# the head is not measured.
HEAD = 570.0

ROUNDED = 5.0  # mm that a zip's length is rounded up to


@record
class OpenedNeck:
    """The neck opening in mm: its edge, what slits and zips add to it, pulled out by the cloth's stretch, and the head that it
    must pass; `is_measured` tells whether the head was."""

    edge_mm: float
    opens_mm: float
    stretched_mm: float
    head_mm: float
    is_measured: bool

    @property
    def whole_mm(self) -> float:
        """The opening without stretch: both sides of a slit count."""
        return self.edge_mm + self.opens_mm

    @property
    def short_mm(self) -> float:
        """How much it lacks for the head; nothing or less when it passes."""
        return self.head_mm - self.stretched_mm

    @property
    def zip_mm(self) -> float:
        """The shortest zip or slit that lets the head through, rounded up to half a centimetre; at least 10 cm."""
        needed = max(100.0, (self.head_mm - self.edge_mm * (self.stretched_mm / max(self.whole_mm, 1e-9))) / 2.0)
        return -(-needed // ROUNDED) * ROUNDED


def opened(pattern: Pattern, measures: Mapping[str, float], stretch: str | float = 0.0) -> OpenedNeck | None:
    """The neck opening of a pattern; None where no neckline goes round the neck (nothing with a shoulder, or a wrap)."""
    edges = [(piece, edge) for piece in pattern.pieces for edge, role in piece.roles if role == "neckline"]
    roles = {role for piece in pattern.pieces for _edge, role in piece.roles}
    if not edges or not pattern.covers_shoulders or "overlap" in roles:
        return None
    whole = sum(piece.times * finished_length(piece, edge) for piece, edge in edges)
    opens = sum(2.0 * _down(pattern, opening) for opening in pattern.openings)
    head = measures.get("head", HEAD)
    return OpenedNeck(whole, opens, (whole * (1.0 + share_of(stretch))) + opens, head, "head" in measures)


def _down(pattern: Pattern, opening: Opening) -> float:
    """How far (mm) an opening goes down from the neckline as it is now: to its notch, wherever the neckline was led since."""
    if not pattern.has(opening.piece):
        return opening.length_mm
    piece = pattern.piece(opening.piece)
    if opening.kind == "placket":  # all the way down
        return sum(piece.edge(edge).sewn_length for edge, role in piece.roles if role == "centre")
    for mark in piece.notches:
        if mark.id != f"{opening.kind}.end":
            continue
        try:
            place = places.by_origin(piece, mark.at)
        except PlaceError:
            return 0.0  # the neckline lies below it now
        edge = piece.runs[place.run].edge
        return piece.edge(edge).sewn_length - places.sewn_distance(piece, place)
    return opening.length_mm
