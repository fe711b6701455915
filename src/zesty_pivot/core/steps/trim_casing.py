"""trim.casing: a casing with an elastic in it, along an edge."""

from collections.abc import Iterable
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.trim import Part, TrimStep

ROOM = 3.0  # mm that a casing is deeper than its elastic. Common practice, no source
OVERLAP = 20.0  # mm of the elastic that its ends lie over each other. Common practice, no source


class Casing(TrimStep):
    """The elastic is as long as what it sits on, by its stretch shorter, and what its ends overlap."""

    title: ClassVar[str] = "Elastic casing"
    summary: ClassVar[str] = "A casing along an edge, and the length that its elastic is cut to, by how much it is stretched."
    called: ClassVar[str] = "casing"

    do: Literal["trim.casing"] = "trim.casing"
    edge: str = Field(
        default="lower", description="the edge: waist, hem, lower, armhole, neckline, or one by its id", min_length=1
    )
    elastic: Length = Field(default="1 cm", description="how wide the elastic is")
    fitted: Length | None = Field(
        default=None, description="how long it sits on the body, such as waist; as long as the edge when none"
    )
    stretch: Share = Field(default="15%", description="how much of its length it is stretched by when worn")

    def words(self) -> str:
        """`elastic casing at the lower edge`."""
        return f"elastic casing at the {self.edge_words}"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The casing as a strip, and the elastic in words."""
        wide, unit = self.mm("elastic", "an elastic with a width", context, 2.0, 100.0), context.scope.unit
        sits = worn.mm if self.fitted is None else length_mm(self.fitted, context.scope)
        if not 0.0 < sits <= worn.mm + 1e-9:
            what = f"an elastic that sits {format_length(sits, unit)} round on an edge of {format_length(worn.mm, unit)}"
            raise StepError(what, where=self.on, advice="It must sit shorter than its edge: gather more, or fit it closer.")
        cut = sits / (1.0 + share_of(self.stretch)) + OVERLAP
        told = f"{format_length(worn.mm, unit)} by {format_length(wide + ROOM, unit, fine=True)}; elastic cut to "
        told += f"{format_length(cut, unit)}, {format_length(OVERLAP, unit)} of it to overlap"
        yield Part(straight_strip(name, worn.mm, wide + ROOM, "along", worn.crossings), told)

    def hand_text(self) -> str:
        """A little deeper than the elastic."""
        return f"Draw the {{name}} as long, and {ROOM:g} mm deeper than the elastic ({self.elastic})."


STEP = Casing
