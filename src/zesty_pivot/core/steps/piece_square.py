"""piece.square: neckline or waist redrawn so that it leaves the centre square."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.seam_blend import square_at_centre
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Step


class SquareAtCentre(Step):
    """Bends the end of an edge so that the unfolded line has neither point nor hollow at the centre."""

    title: ClassVar[str] = "Square to the centre"
    summary: ClassVar[str] = "Redraw the neckline or waist square to centre front or centre back."
    half_by_half: ClassVar[bool] = True

    do: Literal["piece.square"] = "piece.square"
    edge: str = Field(description="the edge that meets the centre", min_length=1)
    over: Length = Field(default="3 cm", description="how much of the edge is redrawn")

    def words(self) -> str:
        """`square the waist to the centre`."""
        return f"square the {words(self.edge)} to the centre"

    def _made(self, pattern: Pattern, context: Context) -> tuple[Piece, float]:
        over = length_mm(self.over, context.scope)
        if over <= 0.0:
            raise StepError("the redrawn stretch must be longer than 0", where=self.on, advice="Enter a length such as 3 cm.")
        pattern.piece(self.on).edge(self.edge)
        return square_at_centre(pattern.piece(self.on), self.edge, over)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the edge squared. Raises StepError, PlaceError or GeometryError when it cannot be."""
        piece, moved = self._made(pattern, context)
        change = piece.edge(self.edge).sewn_length - pattern.piece(self.on).edge(self.edge).sewn_length
        longer = f"{format_length(abs(change), 'mm', fine=True)} {'longer' if change > 0.0 else 'shorter'}"
        text = f"the {words(self.edge)} moved by up to {format_length(moved, 'mm', fine=True)} and is {longer}"
        return Outcome(pattern.with_piece(piece), (Note(text, self.on, moved),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """A set square at the centre; the same in both ways."""
        _piece, moved = self._made(pattern, context)
        unit, over = context.scope.unit, length_mm(self.over, context.scope)
        text = (
            "On the {on}, lay a set square to the centre at the end of the {edge} and draw the {edge} square to it, running "
            "into the old line after {over}: it is up to {moved} from the old line."
        )
        figures = {"over": format_length(over, unit), "moved": format_length(moved, unit)}
        return (line("mark_use", text, dart=words(self.edge), on=words(self.on), edge=words(self.edge), **figures),)


STEP = SquareAtCentre
