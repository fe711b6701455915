"""drape.twist: a front whose halves go through each other at the centre."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.cowl_finish import on_bias
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.twists import Twisted, twisted
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Step

LEAST, MOST = 15.0, 200.0  # mm


class Twist(Step):
    """The darts open at the centre, level with their point; what opens is drawn out beyond the centre and gathered. One half
    has a slit there, through which the other is drawn before it is turned back; above and below the centre is a seam."""

    title: ClassVar[str] = "Twist"
    summary: ClassVar[str] = "A front whose halves go through each other at the centre: darts gathered, drawn out, with a slit."

    do: Literal["drape.twist"] = "drape.twist"
    width: Length | None = Field(default=None, description="how wide the twist is once gathered; by the darts when none")
    bias: bool = Field(default=True, description="the grain at 45 degrees: it twists softer")

    def words(self) -> str:
        """`twist, 5 cm wide`."""
        return "twist" if self.width is None else f"twist, {self.width} wide"

    def _twisted(self, pattern: Pattern, context: Context) -> Twisted:
        if self.width is None:
            return twisted(pattern, self.on, None, context)
        width, unit = length_mm(self.width, context.scope), context.scope.unit
        if not LEAST <= width <= MOST:
            what = f"a twist {format_length(width, unit)} wide"
            raise StepError(what, where=self.on, advice=f"Enter {format_length(LEAST, unit)} to {format_length(MOST, unit)}.")
        return twisted(pattern, self.on, width, context)

    def _figures(self, made: Twisted, context: Context) -> dict[str, str]:
        """What there is to say of it, as printed."""
        lengths = {"opened": made.opened, "edge": made.edge, "out": made.out, "width": made.width}
        told = {name: format_length(mm, context.scope.unit) for name, mm in lengths.items()}
        darts = " and ".join(f"the {entry.called} dart" for entry in made.fed)
        return {**told, "darts": darts, "on": words(self.on), "centre": centre_words(self.on)}

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the half made for the twist. Raises StepError, with what works, where it cannot be."""
        made = self._twisted(pattern, context)
        told = self._figures(made, context)
        pattern = made.pattern.with_piece(on_bias(made.pattern.piece(self.on))) if self.bias else made.pattern
        texts = (
            ("{darts} open at the {centre} by {opened}", made.opened),
            ("each half is drawn out {out} beyond the centre, half way round the other; {edge} gathered to {width}", made.out),
            ("a slit of {width} in one half lets the other through; cut as a pair", made.width),
        )
        return Outcome(pattern, tuple(Note(text.format(**told), self.on, mm) for text, mm in texts))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Open the darts at the centre, draw out, mark the slit; the same in both ways."""
        text = (
            "Slash the {on} from the {centre}, level with the dart's point, and shut {darts}: the slash opens by {opened}. "
            "Draw it out {out} square beyond the {centre} on both sides of the slash, join the ends ({edge}), and mark that "
            "to be gathered to {width}. Mark a slit of {width} where the {centre} was, for one half only. Above and below it "
            "the {centre} is a seam."
        )
        return (line("twist", text, **self._figures(self._twisted(pattern, context), context)),)


STEP = Twist
