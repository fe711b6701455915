"""trim.hem: the waist or hem raised or lowered at the centre, in a curve to nothing at the side."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.lower_edge import LOWER, trimmed
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Step

MOST = 80.0  # mm; more than that is another block. Common practice, no source.


class TrimHem(Step):
    """Where the front waist length exceeds the back's, the back's lower edge is trimmed by the difference at CB."""

    title: ClassVar[str] = "Trim the lower edge"
    summary: ClassVar[str] = "Raise the back's waist or hem at the centre, in a curve to nothing at the side; or lower it."
    half_by_half: ClassVar[bool] = True

    do: Literal["trim.hem"] = "trim.hem"
    on: str = Field(default="back", description="the piece", min_length=1)
    by: Length = Field(default="1 cm", description="how much is trimmed at the centre; negative lets it down")

    def words(self) -> str:
        """`lower edge trimmed by 1 cm at the centre`."""
        return f"lower edge trimmed by {self.by} at the centre"

    def _asked(self, context: Context) -> float:
        by, unit = length_mm(self.by, context.scope), context.scope.unit
        if by == 0.0 or abs(by) > MOST:
            what = "there is nothing to trim" if by == 0.0 else f"the edge cannot be trimmed by {format_length(by, unit)}"
            raise StepError(what, where=self.on, advice=f"Enter up to {format_length(MOST, unit)}, or a negative length.")
        return by

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the trimmed piece, or panels. Raises StepError when it cannot be."""
        by = self._asked(context)
        made, change = trimmed(pattern, self.on, by)
        way = "longer" if change >= 0.0 else "shorter"
        text = f"the lower edge is {format_length(abs(change), context.scope.unit, fine=True)} {way}"
        return Outcome(made, (Note(text, self.on, abs(by)),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark, draw, cut; the same in both ways."""
        by = self._asked(context)
        trimmed(pattern, self.on, by)
        parts = pattern.come_from(self.on) or (pattern.piece(self.on),)
        edge = next(edge for part in parts for edge, role in part.roles if role in LOWER)
        text = (
            "On the {on}, lay the parts of its {edge} together as they are sewn, darts shut. Mark {by} {where} the {edge} on "
            "the {centre}, and draw one curve from there to the side, across darts and seams."
        )
        names = {"on": words(self.on), "edge": words(edge), "centre": centre_words(parts[0].of or self.on)}
        where = "above" if by > 0.0 else "below"
        return (line("trim_hem", text, **names, where=where, by=format_length(abs(by), context.scope.unit)),)


STEP = TrimHem
