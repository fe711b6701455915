"""trim.ruffle: a ruffle over the shoulder, tapered to nothing at both ends."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Body, Mark, Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import LOOSE, SEAM, STRIP, ringed
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.trim import Part, TrimStep


class Ruffle(TrimStep):
    """From the front armhole over the shoulder to the back one, deepest at the shoulder seam, gathered to the edge."""

    title: ClassVar[str] = "Shoulder ruffle"
    summary: ClassVar[str] = "A ruffle along the armhole over the shoulder, gathered, tapered to nothing at both ends."
    called: ClassVar[str] = "ruffle"
    begins: ClassVar[tuple[str, ...]] = ("side",)

    do: Literal["trim.ruffle"] = "trim.ruffle"
    edge: str = Field(default="armhole", description="the edge that crosses the shoulder", min_length=1)
    front: Share = Field(default="55%", description="how much of the front's edge it takes, from the shoulder down")
    back: Share = Field(default="55%", description="and of the back's")
    depth: Length = Field(default="6 cm", description="how deep it is at the shoulder")
    ratio: float = Field(default=1.6, gt=0.0, description="how many times as long as the edge")

    def words(self) -> str:
        """`shoulder ruffle, 6 cm deep`."""
        return f"shoulder ruffle, {self.depth} deep"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The ruffle: its seam straight, its free edge one curve."""
        self.gathered(self.ratio)
        depth, unit = self.mm("depth", "a ruffle with a depth", context, 5.0, 400.0), context.scope.unit
        if "shoulder" not in worn.joints[1:-1]:
            what = "a shoulder ruffle lies on an edge that crosses the shoulder seam"
            raise StepError(what, where=self.on, advice="Choose the armhole of a piece with shoulders.")
        ahead, behind = worn.of_body(Body.FRONT) * share_of(self.front), worn.of_body(Body.BACK) * share_of(self.back)
        flat = ahead + behind
        if flat < 20.0:
            what = f"a ruffle on {format_length(flat, unit)} of the edge"
            raise StepError(what, where=self.on, advice="Let it take more of the edge.")
        long, top = flat * self.ratio, ahead * self.ratio
        a, tip, b = np.array([0.0, 0.0]), np.array([top, depth]), np.array([long, 0.0])
        loose = Path(np.array([
            [b, b + (tip - b) * [0.25, 0.6], tip + np.array([(long - top) * 0.5, 0.0]), tip],
            [tip, tip - np.array([top * 0.5, 0.0]), a + (tip - a) * [0.25, 0.6], a],
        ]))  # fmt: skip
        text = f"gather {format_length(long, unit)} to {format_length(flat, unit)}"
        marks = [Mark("gather", "text", at=(top, min(8.0, depth / 4.0)), text=text)]
        grain = ((top, depth * 0.3), (top, depth * 0.9))
        edges = [(SEAM, STRIP, Path.straight(a, b)), (LOOSE, STRIP, loose)]
        piece = ringed(name, edges, grain, notches=[("shoulder", top)], marks=marks)
        told = f"{format_length(long, unit)} long, {format_length(depth, unit)} deep at the shoulder, gathered to "
        told += f"{format_length(flat, unit)}: {format_length(ahead, unit)} in front, {format_length(behind, unit)} behind"
        yield Part(piece, told)

    def hand_text(self) -> str:
        """The share of it, by the ratio."""
        return (
            f"Take {self.front} of the front's part and {self.back} of the back's, {self.ratio:g} times as long. Draw the "
            f"{{name}} on a straight line, {self.depth} deep at the shoulder, in a curve to nothing at both ends."
        )


STEP = Ruffle
