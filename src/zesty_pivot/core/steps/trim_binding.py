"""trim.binding: a bias strip round the raw edge."""

import math
from collections.abc import Iterable
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.corners import inward_turns
from zesty_pivot.core.procedures.strips import RAW, Crossing, straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep

# Widths of the strip for the finished width: four layers of a single binding, six of a doubled (French) one. Common practice,
# no source.
FOLDS = {"single": 4.0, "doubled": 6.0}

JOIN = 6.0  # mm, the allowance of the seams that make a square of cloth into one strip (1/4 in). Common practice, no source
ROUNDED = 10.0  # mm that the square is rounded up to


class Binding(TrimStep):
    """Its seam lies the finished width inside the edge, so an inward corner takes more: 2 w tan(half the turn), where both
    straight stitch lines meet beyond the corner (own geometry)."""

    title: ClassVar[str] = "Bias binding"
    summary: ClassVar[str] = "A bias strip round an edge: its length with the corners, its width by the folds, how much cloth."
    called: ClassVar[str] = "binding"

    do: Literal["trim.binding"] = "trim.binding"
    wide: Length = Field(default="8 mm", description="how wide it shows once finished")
    layers: Literal["single", "doubled"] = Field(default="single", description="folded in four, or doubled first: in six")
    joining: Length = Field(default="2 cm", description="more at the end, where both ends are joined")

    def words(self) -> str:
        """`binding at the neckline, 8 mm wide`."""
        return f"{'doubled ' if self.layers == 'doubled' else ''}binding at the {self.edge_words}, {self.wide} wide"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The strip as it is cut: it has no allowances."""
        wide, unit = self.mm("wide", "a binding with a width", context, 2.0, 60.0), context.scope.unit
        joining = self.mm("joining", "a joining", context, 0.0, 100.0)
        long, crossings = 0.0, list[Crossing]()
        turns = inward_turns(pattern, worn)
        for number, part in enumerate(worn.parts):
            long += part.mm + sum(2.0 * wide * math.tan(turn / 2.0) for turn in turns[number])
            if number + 1 < len(worn.parts):
                crossings.append((worn.joints[number + 1], long))
        corners = sum(len(found) for found in turns)
        cut = wide * FOLDS[self.layers]
        told = f"{format_length(long + joining, unit)} of a bias strip {format_length(cut, unit)} wide"
        if corners:
            told += f", {format_length(long - worn.mm, unit, fine=True)} of it for {corners} inward corners"
        side = square_for((long + joining) * worn.count, cut)
        told += f"; a square of {format_length(side, unit)} gives {format_length(strip_of(side, cut), unit)} in one strip"
        yield Part(straight_strip(name, long + joining, cut, "bias", crossings, (), RAW), told)

    def hand_text(self) -> str:
        """On the bias, in four or six widths."""
        folds = int(FOLDS[self.layers])
        return f"Cut the {{name}} on the bias, {folds} times {self.wide} wide, as long and {self.joining} to join it."


def square_for(long: float, wide: float) -> float:
    """The side (mm, rounded up to a centimetre) of a square of cloth that gives so much of a strip by the continuous method:
    its two seams take four allowances off a side, so s (s - 4 a) = long x wide. Source: the area of the strip, from memory of
    sewing handbooks."""
    exact = 2.0 * JOIN + math.sqrt(4.0 * JOIN * JOIN + long * wide)
    return math.ceil(exact / ROUNDED - 1e-9) * ROUNDED


def strip_of(side: float, wide: float) -> float:
    """How long (mm) the continuous strip from a square is."""
    return side * (side - 4.0 * JOIN) / wide


STEP = Binding
