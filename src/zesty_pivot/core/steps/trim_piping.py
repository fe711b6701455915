"""trim.piping: a bias strip round a cord, caught in a seam or an edge."""

import math
from collections.abc import Iterable
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep


class Piping(TrimStep):
    """As wide as the way round the cord, pi times its thickness; its allowances lie outside, like those of any piece."""

    title: ClassVar[str] = "Piping"
    summary: ClassVar[str] = "A bias strip round a cord, sewn into an edge or a seam, and how much cord."
    called: ClassVar[str] = "piping"

    do: Literal["trim.piping"] = "trim.piping"
    cord: Length = Field(default="3 mm", description="how thick the cord is")

    def words(self) -> str:
        """`piping at the neckline, cord of 3 mm`."""
        return f"piping at the {self.edge_words}, cord of {self.cord}"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The strip."""
        wide, unit = math.pi * self.mm("cord", "a cord with a thickness", context, 0.5, 20.0), context.scope.unit
        told = f"{format_length(worn.mm, unit)} of a bias strip {format_length(wide, unit, fine=True)} wide and its allowances"
        told += f", and {format_length(worn.mm * worn.count, unit)} of cord"
        yield Part(straight_strip(name, worn.mm, wide, "bias", worn.crossings), told)

    def hand_text(self) -> str:
        """Round the cord."""
        return "Cut the {name} on the bias, as long, and as wide as the way round the cord."


STEP = Piping
