"""A half on the fold opened to the whole, in its pattern: the seams go to both sides."""

from __future__ import annotations

from dataclasses import replace

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.piece import Pattern, Seam
from zesty_pivot.core.piece.names import SIDES, side_of, words
from zesty_pivot.core.piece.pattern import parts_of


def unfolded(pattern: Pattern, name: str) -> Pattern:
    """The pattern with a half unfolded. Raises StepError or GeometryError when it is whole, or its fold is open already."""
    half = pattern.piece(name)
    if half.is_unfolded:
        raise StepError(f"the {words(name)} is unfolded already", where=name, advice="Leave this step out.")
    whole = mirror.unfold(half)
    added = tuple((pivot + side, angle) for pivot, angle in half.added for side in SIDES)
    seams = tuple(sided for seam in pattern.seams for sided in _on_both_sides(seam, name))
    return replace(pattern.with_piece(replace(whole, added=added)), seams=seams)


def _on_both_sides(seam: Seam, name: str) -> tuple[Seam, ...]:
    """A seam of the half, once for each side."""
    if name not in {piece for end in (seam.a, seam.b) for piece, _edge in parts_of(end)}:
        return (seam,)

    def sided(end: str, side: str) -> str:
        return "+".join(f"{piece}.{edge}{side if piece == name else ''}" for piece, edge in parts_of(end))

    # Where the other piece is unfolded already, its sides know theirs.
    known = {side_of(edge) for end in (seam.a, seam.b) for piece, edge in parts_of(end) if piece != name} - {""}
    return tuple(replace(seam, a=sided(seam.a, side), b=sided(seam.b, side)) for side in SIDES if side in (known or SIDES))
