"""trim.loops: rouleau loops along an opening."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Extra, Mark, Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.strips import straight_strip
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import TiedStep

CAUGHT = 10.0  # mm of each end of a loop that is caught in the seam. Common practice, no source


class Loops(TiedStep):
    """A loop is twice as long as its button is wide, and what is caught in the seam at both ends; one strip gives them all."""

    title: ClassVar[str] = "Loops"
    summary: ClassVar[str] = "Rouleau loops for buttons along an opening: how many, how far apart, how much strip."
    called: ClassVar[str] = "loops"

    do: Literal["trim.loops"] = "trim.loops"
    on: str = Field(default="back", description="the piece", min_length=1)
    other: str = Field(default="", description="none")
    edge: str = Field(default="centre", description="the edge of the opening", min_length=1)
    along: Length | None = Field(default=None, description="how long the opening is; all of the edge when none")
    button: Length = Field(default="1 cm", description="across a button")
    spacing: Length = Field(default="1.5 cm", description="from loop to loop")
    thick: Length = Field(default="4 mm", description="across the rouleau once turned")

    def words(self) -> str:
        """`loops along the back centre`."""
        return f"loops along the {words(self.on)} {words(self.edge)}"

    def extras(self, pattern: Pattern, context: Context) -> tuple[Extra, ...]:
        """The strip that the loops are cut from."""
        unit, host = context.scope.unit, self.host(pattern, self.edge)
        long = host.edge(self.edge).sewn_length
        opening = long if self.along is None else self.mm("along", "an opening", context, 5.0, long)
        button = self.mm("button", "a button", context, 3.0, 60.0)
        spacing, thick = (
            self.mm("spacing", "a spacing", context, button, 200.0),
            self.mm("thick", "a rouleau", context, 1.5, 20.0),
        )
        count = int((opening - button) / spacing + 1e-9) + 1 if opening >= button else 0
        if count < 1:
            what = f"an opening of {format_length(opening, unit)} has no room for a loop"
            raise StepError(what, where=self.on, advice="Take smaller buttons, or a longer opening.")
        each = 2.0 * button + 2.0 * CAUGHT
        marks = [Mark("loops", "text", at=(each * count / 2.0, thick), text=f"{count} loops of {format_length(each, unit)}")]
        strip = straight_strip(f"{self.on}_loops", each * count, 2.0 * thick, "bias", (), marks)
        told = f"{count} loops of {format_length(each, unit)}, {format_length(spacing, unit)} apart, from "
        told += f"{format_length(each * count, unit)} of rouleau"
        return (Extra(strip, self.called, (host.name,), cut="one", asked=self, told=told, edge_mm=opening),)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Count, cut, catch; the same in both ways."""
        (extra,) = self.extras(pattern, context)
        text = (
            "Mark the {edge} of the {on} for {told}: a loop goes twice across its button and 1 cm into the seam at both ends."
        )
        return (line("loops", text, edge=words(self.edge), on=words(self.on), told=extra.told),)


STEP = Loops
