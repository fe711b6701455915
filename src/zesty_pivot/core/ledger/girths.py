"""Finished girths of the whole garment, both halves, in mm."""

from __future__ import annotations

from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.heights import cloth_at, cloth_to, girth_key, girth_level
from zesty_pivot.core.record import record


@record
class Girths:
    """Girths in mm; None where the pattern has no such level or edge."""

    bust: float | None
    waist: float | None
    hip: float | None
    neck_opening: float | None


def girths(pattern: Pattern, block: Pattern) -> Girths:
    """The finished girths of front and back, both halves.

    Waist and neck are the sewn lengths of their edges now. Bust and hip, and the waist of a hip-length piece, are the cloth
    along the block's level line, darts left out: moving a dart leaves the sewn surface as it was, so the block tells them;
    fish-eye darts are taken off as they are now, and what style lines take in beyond the darts.
    """
    is_long = any(piece.is_hip_length for piece in block.pieces)
    return Girths(
        bust=_across(pattern, block, "bust"),
        waist=_across(pattern, block, "waist") if is_long else around(pattern, "waist"),
        hip=_across(pattern, block, "hip"),
        neck_opening=around(pattern, "neckline"),
    )


def around(pattern: Pattern, role: str) -> float | None:
    """The finished length (mm) of all edges of a role, both halves; None where there is none."""
    edges = [(piece, id) for piece in pattern.pieces for id, its in piece.roles if its == role]
    return sum(piece.times * finished_length(piece, id) for piece, id in edges) if edges else None


def _across(pattern: Pattern, block: Pattern, level: str) -> float | None:
    widths = [width for piece in block.pieces if (width := _width(piece, level)) is not None]
    if len(widths) < len(block.pieces):
        return None
    taken = sum(_taken_inside(piece, level) for piece in pattern.pieces)
    taken += sum(line.halves * mm for line in pattern.lines for name, mm in line.taken if name == level)
    return 2.0 * (sum(widths) - taken)


def _width(piece: Piece, level: str) -> float | None:
    """The cloth (mm) across a block's piece at a level; at the chest line it ends at the underarm, however the armhole comes
    in there."""
    y = girth_level(piece.levels, level)
    if y is None:
        return None
    return cloth_at(piece, y) if girth_key(piece.levels, level) == level else cloth_to(piece, y, piece.corner("underarm"))


def _taken_inside(piece: Piece, level: str) -> float:
    """What the fish-eye darts of a piece and its centre's contour take in at a level, mm, of one half."""
    edges = sum(mm for name, mm in piece.taken if name == girth_key(piece.levels, level))
    return edges + _fisheyes(piece, level)


def _fisheyes(piece: Piece, level: str) -> float:
    y = girth_level(piece.levels, level)
    if "waist" not in piece.levels or y is None:
        return 0.0
    below = y - piece.levels["waist"]
    taken = sum(eye.width(below) for eye in piece.fisheyes)
    return taken * piece.times / 2.0
