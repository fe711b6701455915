"""trim.waistband: a waistband, straight or shaped, or a waist stay."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Mark, Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.sectors import Sector, sector
from zesty_pivot.core.procedures.strips import RAW, fold_along, straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep


class Waistband(TrimStep):
    """As long as the waist, its darts shut, and its lap. A stay is a ribbon inside that takes the strain off the seam."""

    title: ClassVar[str] = "Waistband or stay"
    summary: ClassVar[str] = "A waistband with its lap, straight or shaped, or a ribbon inside that holds the waist."
    called: ClassVar[str] = "waistband"

    do: Literal["trim.waistband"] = "trim.waistband"
    edge: str = Field(default="lower", description="the edge: waist, hem, or lower for the one that is there", min_length=1)
    kind: Literal["straight", "shaped", "stay"] = Field(default="straight", description="the band, or a ribbon inside")
    depth: Length = Field(default="3 cm", description="how deep it is once finished; a ribbon's width")
    lap: Length = Field(default="3 cm", description="how far it laps under; of a stay what is turned in at both ends in all")
    flare: Length = Field(default="2 cm", description="how much longer a shaped band's free edge is, in all")

    def words(self) -> str:
        """`shaped waistband, 3 cm deep`."""
        return "waist stay" if self.kind == "stay" else f"{self.kind} waistband, {self.depth} deep"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The band or the ribbon."""
        depth, unit = self.mm("depth", "a waistband with a depth", context, 3.0, 300.0), context.scope.unit
        lap = self.mm("lap", "a lap", context, 0.0, 200.0)
        told = f"{format_length(worn.mm + lap, unit)} by {format_length(depth, unit)}, {format_length(lap, unit)} of it the "
        crossings = [*worn.crossings, ("lap", worn.mm)]
        if self.kind == "stay":
            marks = [Mark("ribbon", "text", at=(worn.mm / 2.0, depth / 2.0), text="ribbon, cut to length")]
            yield Part(straight_strip(name, worn.mm + lap, depth, "along", crossings, marks, RAW), told + "ends turned in")
            return
        if self.kind == "straight":
            end = Path.straight(np.array([worn.mm, 0.0]), np.array([worn.mm, 2.0 * depth]))
            marks = [fold_along(worn.mm + lap, 2.0 * depth), Mark("lap", "crease", end)]
            yield Part(straight_strip(name, worn.mm + lap, 2.0 * depth, "along", crossings, marks), told + "lap")
            return
        long = worn.mm + lap
        more = self.mm("flare", "a free edge longer", context, 0.5, 400.0) * long / worn.mm
        made = sector(Sector(name, long, more / (2.0 * np.pi * depth), depth), notches=crossings, narrow=True)
        yield Part(made, told + f"lap, its free edge {format_length(long + more, unit)}", 2)

    def hand_text(self) -> str:
        """As long as the waist, and the lap."""
        return f"Draw the {{name}} as long and {self.lap} more, {self.depth} deep once finished."


STEP = Waistband
