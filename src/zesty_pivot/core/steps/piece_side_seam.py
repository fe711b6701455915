"""piece.side_seam: the side seam moved forward or back: one piece gets what the other loses; a side dart follows."""

from typing import ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.side_seam import (
    SIDE,
    cut_strip,
    darts_away,
    darts_back,
    fits,
    misfit,
    one_side,
    renamed,
    sewn_at_the_side,
    taped,
)
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Step


class MoveSideSeam(Step):
    """Cuts a strip off one piece along its side and tapes it to the other."""

    title: ClassVar[str] = "Move the side seam"
    summary: ClassVar[str] = "Move the side seam forward or back: the front gains what the back loses; the side dart follows."
    half_by_half: ClassVar[bool] = True

    do: Literal["piece.side_seam"] = "piece.side_seam"
    on: str = Field(default="back", description="the piece that loses", min_length=1)
    other: str = Field(default="front", description="the piece that gets it", min_length=1)
    by: Length | None = Field(default=None, description="how far along the armhole; 2 cm when nothing is given")
    armhole: Share | None = Field(default=None, description="or: this share of the losing piece's armhole, such as 1/3")
    at_waist: Length | None = Field(default=None, description="how far at the waist; as at the armhole when not given")

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        if self.by is not None and self.armhole is not None:
            raise ValueError("give either a length or a share of the armhole, not both")
        if self.on == self.other:
            raise ValueError("one piece loses and another gets")
        return self

    def words(self) -> str:
        """`side seam 2 cm from the back to the front`."""
        much = f"{self.armhole} of the armhole" if self.armhole is not None else self.by if self.by is not None else "2 cm"
        return f"side seam {much} from the {words(self.on)} to the {words(self.other)}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the seam moved. Raises StepError or GeometryError when it cannot be."""
        notes = [*misfit(pattern, self.on, self.other)]
        before = {name: pattern.piece(name).edge("armhole").sewn_length for name in (self.on, self.other)}
        sewn_at_the_side(pattern, self.on, self.other)
        away, homes = darts_away(pattern, (self.on, self.other), context)
        pattern = away.pattern
        notes += away.notes
        loser, taker = (one_side(pattern.piece(name)) for name in (self.on, self.other))
        kept, strip = cut_strip(loser, *self._distances(loser, context))
        made = renamed(taped(taker, strip, taker.name, context), SIDE, f"{self.on}.{SIDE}")
        pattern = darts_back(pattern.with_piece(kept).with_piece(made), homes, context)
        notes += [Note(self._said(pattern, name, before[name], context), name) for name in (self.on, self.other)]
        return Outcome(pattern, tuple(notes))

    def _said(self, pattern: Pattern, name: str, before: float, context: Context) -> str:
        change = pattern.piece(name).edge("armhole").sewn_length - before
        amount = format_length(abs(change), context.scope.unit, fine=True)
        return f"the armhole of the {words(name)} is {amount} {'longer' if change > 0.0 else 'shorter'}"

    def _distances(self, piece: Piece, context: Context) -> tuple[float, float]:
        """How far (mm) the new seam lies from the old one along the armhole and along the waist."""
        armhole = piece.edge("armhole").sewn_length
        if self.armhole is not None:
            at = share_of(self.armhole) * armhole
        else:
            at = length_mm(self.by if self.by is not None else "2 cm", context.scope)
        below = length_mm(self.at_waist, context.scope) if self.at_waist is not None else at
        fits(piece, at, below, context)
        return at, below

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure, cut, tape; the same in both ways."""
        self.apply(pattern, context)
        at, below = self._distances(pattern.piece(self.on), context)
        unit = context.scope.unit
        text = (
            "On the {on}, fold any side dart shut. Mark {at} along the armhole from the underarm and {below} along the waist "
            "from the side; draw the side seam between the marks and cut along it. Turn the strip over and tape it to the side "
            "seam of the {other}. Its cut edge is the new side seam; open the side dart again at the same share of it."
        )
        figures = {"at": format_length(at, unit), "below": format_length(below, unit)}
        return (line("move_side", text, on=words(self.on), other=words(self.other), **figures),)


STEP = MoveSideSeam
