"""piece.unfold: a half on the fold opened to the whole, with a left and a right as worn, for what is not the same on both."""

from typing import ClassVar, Literal

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.unfolding import unfolded
from zesty_pivot.core.steps.base import Step


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
        note = Note("left and right are as worn; the piece is cut once, right side up", self.on)
        return Outcome(unfolded(pattern, self.on), (note,))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Fold fresh paper, trace, cut both layers, unfold; the same in both ways."""
        unfolded(pattern, self.on)
        text = (
            "Fold a sheet of paper, lay the centre of the {on} on the fold, trace and cut through both layers, and unfold. "
            "Lying right side up, the half to the right of the centre is the left as worn: write “left” and “right” on it."
        )
        return (line("unfold", text, on=words(self.on)),)


STEP = Unfold
