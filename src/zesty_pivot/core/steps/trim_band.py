"""trim.band: a straight band or cuff along an edge, folded or faced."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Mark, Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import fold_along, straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep


class StraightBand(TrimStep):
    """As long as the edge of front and back and what its ends lap over each other."""

    title: ClassVar[str] = "Band or cuff"
    summary: ClassVar[str] = "A straight band along an edge: front and back edge and the joining, folded or faced."
    called: ClassVar[str] = "band"

    do: Literal["trim.band"] = "trim.band"
    depth: Length = Field(default="1 1/2 in", description="how deep it is once finished")
    made: Literal["folded", "faced"] = Field(default="folded", description="doubled along a fold, or two layers with a seam")
    lap: Length = Field(default="0 cm", description="how far its ends lap over each other, for a button")

    def words(self) -> str:
        """`band at the armhole, 1 1/2 in deep`."""
        return f"band at the {self.edge_words}, {self.depth} deep"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The band; of a faced one two layers."""
        depth, unit = self.mm("depth", "a band with a depth", context, 3.0, 500.0), context.scope.unit
        lap = self.mm("lap", "a lap", context, 0.0, 300.0)
        long, folded = worn.mm + lap, self.made == "folded"
        deep = 2.0 * depth if folded else depth
        marks = [fold_along(long, deep)] if folded else []
        crossings = list(worn.crossings)
        if lap > 0.0:
            end = Path.straight(np.array([worn.mm, 0.0]), np.array([worn.mm, deep]))
            marks.append(Mark("lap", "crease", end))
            crossings.append(("lap", worn.mm))
        piece = straight_strip(name, long, deep, "along", crossings, marks)
        with_lap = f", {format_length(lap, unit)} of it the lap" if lap > 0.0 else ""
        told = f"{format_length(long, unit)} by {format_length(depth, unit)}, {self.made}{with_lap}"
        yield Part(piece, told, 1 if folded else 2)

    def hand_text(self) -> str:
        """Twice the depth where it is folded."""
        deep = f"twice {self.depth} deep, with its fold in the middle" if self.made == "folded" else f"{self.depth} deep, twice"
        return f"Draw the {{name}} as long, and the lap, {deep}."


STEP = StraightBand
