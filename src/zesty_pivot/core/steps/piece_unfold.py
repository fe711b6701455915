"""piece.unfold: a half on the fold opened to the whole, with a left and a right as worn, for what is not the same on both."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.piece import Pattern, Seam
from zesty_pivot.core.piece.names import SIDES, side_of, words
from zesty_pivot.core.piece.pattern import parts_of
from zesty_pivot.core.steps.base import Context, Note, Outcome, Step
from zesty_pivot.core.steps.hand import Line, Way, line


class Unfold(Step):
    """Names every edge, dart and pivot by its side; the pattern's seams go to both sides."""

    title: ClassVar[str] = "Unfold"
    summary: ClassVar[str] = "Open a half to the whole, left and right as worn, for asymmetric darts; it is cut right side up."

    do: Literal["piece.unfold"] = "piece.unfold"

    def words(self) -> str:
        """`unfold the front`."""
        return f"unfold the {words(self.on)}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the whole piece. Raises StepError or GeometryError when its fold is open already."""
        half = pattern.piece(self.on)
        if half.is_unfolded:
            raise StepError(f"the {words(self.on)} is unfolded already", where=self.on, advice="Leave this step out.")
        whole = mirror.unfold(half)
        added = tuple((pivot + side, angle) for pivot, angle in half.added for side in SIDES)
        seams = tuple(sided for seam in pattern.seams for sided in self._seams(seam))
        note = Note("left and right are as worn; the piece is cut once, right side up", self.on)
        return Outcome(replace(pattern.with_piece(replace(whole, added=added)), seams=seams), (note,))

    def _seams(self, seam: Seam) -> tuple[Seam, ...]:
        """A seam of the half, once for each side."""
        if self.on not in {piece for end in (seam.a, seam.b) for piece, _edge in parts_of(end)}:
            return (seam,)

        def sided(end: str, side: str) -> str:
            return "+".join(f"{piece}.{edge}{side if piece == self.on else ''}" for piece, edge in parts_of(end))

        # Where the other piece is unfolded already, its sides know theirs.
        known = {side_of(edge) for end in (seam.a, seam.b) for piece, edge in parts_of(end) if piece != self.on} - {""}
        return tuple(replace(seam, a=sided(seam.a, side), b=sided(seam.b, side)) for side in SIDES if side in (known or SIDES))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Fold fresh paper, trace, cut both layers, unfold; the same in both ways."""
        self.apply(pattern, context)
        text = (
            "Fold a sheet of paper, lay the centre of the {on} on the fold, trace and cut through both layers, and unfold. "
            "Lying right side up, the half to the right of the centre is the left as worn: write “left” and “right” on it."
        )
        return (line("unfold", text, on=words(self.on)),)


STEP = Unfold
