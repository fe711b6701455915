"""A half on the fold opened to the whole, in its pattern: the seams go to both sides."""

from __future__ import annotations

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.piece import Pattern, Seam, SeamSide, Side
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import replace


def unfolded(pattern: Pattern, name: str) -> Pattern:
    """The pattern with a half unfolded. Raises StepError or GeometryError when it is whole, or its fold is open already."""
    half = pattern.piece(name)
    if half.is_unfolded:
        raise StepError(f"the {words(name)} is unfolded already", where=name, advice="Leave this step out.")
    whole = mirror.unfold(half)
    seams = tuple(sided for seam in pattern.seams for sided in _on_both_sides(pattern, seam, name))
    return replace(pattern.with_piece(whole), seams=seams)


def _on_both_sides(pattern: Pattern, seam: Seam, name: str) -> tuple[Seam, ...]:
    """A seam of the half, once for each side. Where the other piece is unfolded already, its sides know theirs."""
    others = [part for part in seam.parts if part.piece != name]
    if len(others) == len(seam.parts):
        return (seam,)

    def sided(end: SeamSide, side: Side) -> SeamSide:
        return SeamSide(tuple(replace(at, edge=side.id(at.edge)) if at.piece == name else at for at in end.parts))

    known = {pattern.piece(part.piece).sides.of(part.edge) for part in others} - {None}
    return tuple(replace(seam, a=sided(seam.a, side), b=sided(seam.b, side)) for side in Side if side in (known or Side))
