"""trim.frill: a gathered strip along an edge."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Mark, Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import RAW, STRIP, fold_along, in_strips, straight_strip
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep

SELVEDGE = 30.0  # mm of the cloth's width that its selvedges and a strip's two joins take. Common practice, no source


class Frill(TrimStep):
    """A straight strip, its length across the cloth so that it gathers softly; several where the cloth is too narrow."""

    title: ClassVar[str] = "Frill"
    summary: ClassVar[str] = (
        "A gathered strip along an edge, by ratio and depth; joined from several where the cloth is narrow."
    )
    called: ClassVar[str] = "frill"

    do: Literal["trim.frill"] = "trim.frill"
    # About 1.5 to 1.6 for a light one: common practice, no source.
    ratio: float = Field(default=1.6, gt=0.0, description="how many times as long as the edge")
    depth: Length = Field(default="3 in", description="how deep it is once finished")
    finished: Literal["hemmed", "doubled", "raw"] = Field(default="hemmed", description="its free edge")
    cloth: Length = Field(default="140 cm", description="the width of the cloth")

    def words(self) -> str:
        """`frill at the neckline, 1.6 to 1`."""
        return f"frill at the {self.edge_words}, {self.ratio:g} to 1"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The strip, or strips that are joined."""
        self.gathered(self.ratio)
        depth = self.mm("depth", "a frill with a depth", context, 5.0)
        cloth = self.mm("cloth", "a cloth with a width", context, 100.0, 5000.0) - SELVEDGE
        long, unit = worn.mm * self.ratio, context.scope.unit
        deep = 2.0 * depth if self.finished == "doubled" else depth
        crossings = [(joint, at * self.ratio) for joint, at in worn.crossings]
        strips = in_strips(long, crossings, cloth)
        count = sum(times for _each, _mine, times in strips)
        joined = f", {count} strips joined" if count > 1 else ""
        told = (
            f"{format_length(long, unit)} by {format_length(depth, unit)}{joined}, gathered to {format_length(worn.mm, unit)}"
        )
        for number, (each, mine, times) in enumerate(strips):
            text = f"gather {format_length(each, unit)} to {format_length(each / self.ratio, unit)}"
            marks = [Mark("gather", "text", at=(each / 2.0, min(8.0, deep / 4.0)), text=text)]
            marks += [fold_along(each, deep)] if self.finished == "doubled" else []
            marks += [Mark("thread", "thin", Path.straight(np.array([0.0, 2.0]), np.array([each, 2.0])))]
            loose = RAW if self.finished == "raw" else STRIP
            piece = straight_strip(_named(name, number), each, deep, "across", mine, marks, loose)
            yield Part(piece, told, times)

    def hand_text(self) -> str:
        """The length times the ratio."""
        return f"Cut a strip for the {{name}} {self.ratio:g} times as long, straight across the cloth, {self.depth} deep."


def _named(name: str, number: int) -> str:
    return name if number == 0 else f"{name}_{number + 1}"


STEP = Frill
