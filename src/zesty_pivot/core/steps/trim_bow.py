"""trim.bow: a bow with its knot and tails."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import LOOSE, SEAM, STRIP, fold_along, grain_in, ringed, straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep

OVERLAP = 20.0  # mm that the ends of a bow's loop lie over each other under the knot. Common practice, no source
PINCHED = 0.35  # of its height that a bow is high where the knot holds it. Common practice, no source


class Bow(TrimStep):
    """A tube of cloth whose ends meet in the middle at the back, a knot round it, and two tails."""

    title: ClassVar[str] = "Bow"
    summary: ClassVar[str] = "A bow for an edge: the loop, the knot and two tails, by the size that it shows."
    called: ClassVar[str] = "bow"

    do: Literal["trim.bow"] = "trim.bow"
    wide: Length = Field(default="14 cm", description="how wide the bow is")
    high: Length = Field(default="7 cm", description="how high it is")
    knot: Length = Field(default="2.5 cm", description="how wide the knot is")
    tails: Length = Field(default="16 cm", description="how long each tail hangs; 0 for none")

    def words(self) -> str:
        """`bow at the neckline, 14 cm wide`."""
        return f"bow at the {self.edge_words}, {self.wide} wide"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """Loop, knot and tails; one bow, whatever the edge."""
        unit = context.scope.unit
        wide = self.mm("wide", "a bow with a width", context, 20.0, 800.0)
        high = self.mm("high", "a bow with a height", context, 10.0, 500.0)
        knot = self.mm("knot", "a knot with a width", context, 5.0, wide / 2.0)
        tails = self.mm("tails", "tails", context, 0.0, 2000.0)
        long = 2.0 * wide + OVERLAP
        told = f"{format_length(wide, unit)} by {format_length(high, unit)}, from {format_length(long, unit)} of cloth"
        loop = straight_strip(name, long, 2.0 * high, "along", [("middle", long / 2.0)], [fold_along(long, 2.0 * high)])
        yield Part(loop, told, 1, "one")
        round_ = 2.0 * PINCHED * high + OVERLAP
        yield Part(straight_strip(f"{name}_knot", round_, 2.0 * knot, "along", (), [fold_along(round_, 2.0 * knot)]),
                   f"{format_length(round_, unit)} round", 1, "one")  # fmt: skip
        if tails > 0.0:
            broad, deep = 0.75 * high, tails
            corners = [np.array(at) for at in ((0.0, 0.0), (deep, 0.0), (deep + broad / 2.0, broad), (0.0, broad))]
            names = (SEAM, "end", LOOSE, "end_back")
            edges = [(names[k], STRIP, Path.straight(corners[k], corners[(k + 1) % 4])) for k in range(4)]
            grain = grain_in(np.array([deep / 2.0, broad / 2.0]), deep, broad, "along")
            yield Part(ringed(f"{name}_tail", edges, grain), f"{format_length(tails, unit)} long", 4, "4")

    def hand_text(self) -> str:
        """Twice the width, and to overlap."""
        return (
            f"It is sewn there in the middle. Draw the {{name}} twice {self.wide} long and 2 cm more, twice {self.high} deep."
        )


STEP = Bow
