"""trim.strap: a strap or a rouleau from the front's edge over the shoulder to the back's."""

import math
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Extra, Pattern
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.bodice_halves import block_half
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.strips import fold_along, straight_strip
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import TiedStep

END = Spot(edge="neckline", at="100%")


class Strap(TiedStep):
    """As long as it is from both places up to where the block's shoulder lies above them."""

    title: ClassVar[str] = "Strap or rouleau"
    summary: ClassVar[str] = "A strap from the front's edge over the shoulder to the back's, folded, or a bias tube."
    called: ClassVar[str] = "strap"

    do: Literal["trim.strap"] = "trim.strap"
    kind: Literal["strap", "rouleau"] = Field(default="strap", description="folded on the straight, or a bias tube")
    at: Spot = Field(default=END, description="where it is sewn to the front")
    to: Spot = Field(default=END, description="where it is sewn to the back")
    wide: Length = Field(default="1/2 in", description="how wide it is once finished")
    more: Length = Field(default="0 cm", description="how much longer, to be fitted")

    def words(self) -> str:
        """`straps, 1/2 in wide`."""
        return f"{'rouleau straps' if self.kind == 'rouleau' else 'straps'}, {self.wide} wide"

    def extras(self, pattern: Pattern, context: Context) -> tuple[Extra, ...]:
        """The strap, cut as a pair."""
        wide, more = self.mm("wide", "a strap with a width", context, 2.0, 150.0), self.mm("more", "more", context, 0.0, 500.0)
        unit, lengths = context.scope.unit, list[float]()
        for name, spot in zip(self.names(), (self.at, self.to), strict=False):
            piece = pattern.piece(name)
            pivot = piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")
            at = places.point(piece, resolve(spot, piece, context.block.drafted(piece), context.scope, pivot))
            half = block_half(context, piece.of or piece.name)
            over = half.shoulder.at(min(max(abs(float(at[0])), half.neck_x), half.tip_x - 1.0))
            if at[1] <= over[1]:
                what = f"{spot.words()} of the {words(name)} lies above the shoulder"
                raise StepError(what, where=name, advice="Choose a place on an edge below it.")
            lengths.append(math.dist((float(at[0]), float(at[1])), (abs(float(at[0])), float(over[1]))))
        long = sum(lengths) + more
        folded = straight_strip("shoulder_strap", long, 2.0 * wide, "bias" if self.kind == "rouleau" else "along",
                                [("shoulder", lengths[0])], [fold_along(long, 2.0 * wide)])  # fmt: skip
        parts = " and ".join(format_length(mm, unit) for mm in lengths)
        told = f"{format_length(long, unit)} long from shoulder level ({parts}), {format_length(wide, unit)} wide"
        return (Extra(folded, self.called, tuple(self.names()), cut="pair", asked=self, told=told, edge_mm=sum(lengths)),)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Up to the block's shoulder on both sides; the same in both ways."""
        (extra,) = self.extras(pattern, context)
        grain = "on the bias" if self.kind == "rouleau" else "on the straight grain"
        text = "Lay the block over front and back and measure from both places straight up to its shoulder: {told}. Draw the "
        text += "strap {grain}, twice as wide, with its fold in the middle; cut a pair."
        return (line("strap", text, told=extra.told, grain=grain),)


STEP = Strap
