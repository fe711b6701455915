"""piece.join: two pieces taped along the seam between them, where both edges are the same line."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.taping import seam_between, taped
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.steps.base import Step


class JoinPieces(Step):
    """The first piece keeps its name; the seam between the two is gone."""

    title: ClassVar[str] = "Join pieces"
    summary: ClassVar[str] = "Tape two pieces along the seam between them: panels put together another way, a seam left out."

    do: Literal["piece.join"] = "piece.join"
    other: str = Field(description="the piece that is taped to it", min_length=1)
    seam: str | None = Field(
        default=None, description="the edge of the first piece; the longest seam between the two otherwise"
    )

    def words(self) -> str:
        """`join front side and back side`."""
        return f"join {words(self.on)} and {words(self.other)}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the one piece. Raises StepError or GeometryError when they do not lie flat together."""
        edges = seam_between(pattern, self.on, self.other, self.seam)
        made = taped(pattern, self.on, self.other, edges, self.on, context.scope.unit)
        return Outcome(made.pattern, (Note(f"taped along {made.words}; the seam is gone", self.on, made.long_mm),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Lay together, tape; the same in both ways."""
        self.apply(pattern, context)
        edges = seam_between(pattern, self.on, self.other, self.seam)
        long = format_length(pattern.piece(self.on).edge(edges[0]).sewn_length, context.scope.unit)
        turned = "" if pattern.piece(self.on).role(edges[0]) == "style_line" else ", turned over,"
        text = "Lay the {other}{turned} to the {on} so that both lines of {long} meet, and tape them. Write a grain line on it."
        names = {"on": words(self.on), "other": words(self.other), "turned": turned, "long": long}
        return (line("join", text, **names),)


STEP = JoinPieces
