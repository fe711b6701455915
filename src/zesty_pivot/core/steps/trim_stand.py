"""trim.stand: a collarless stand round the neckline."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.root import root
from zesty_pivot.core.moves.offset import beside
from zesty_pivot.core.piece import Body, Mark, Pattern, Piece
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import LOOSE, SEAM, STRIP, ringed
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep

ARC = 0.5523  # of a radius: the handles of a quarter circle


class Stand(TrimStep):
    """Half of it, on the fold at CB: its seam is the half neckline and the lap, and rises to the front so that the stand leans
    to the neck."""

    title: ClassVar[str] = "Stand"
    summary: ClassVar[str] = "A collarless stand round the neckline: its height, how far it rises to the front, its lap."
    called: ClassVar[str] = "stand"

    do: Literal["trim.stand"] = "trim.stand"
    edge: str = Field(default="neckline", description="the neckline", min_length=1)
    height: Length = Field(default="3.5 cm", description="how high it stands")
    # 1 to 2 cm: common practice, no source.
    rise: Length = Field(default="1.5 cm", description="how far its seam rises to CF")
    lap: Length = Field(default="0 cm", description="how far it goes on beyond CF, for a button")
    rounded: Length = Field(default="1 cm", description="radius of its front corner; 0 for a sharp one")

    def words(self) -> str:
        """`stand, 3.5 cm high`."""
        return f"stand, {self.height} high"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The half, cut twice on the fold: the stand and its facing."""
        unit = context.scope.unit
        height = self.mm("height", "a stand with a height", context, 5.0, 120.0)
        rise = self.mm("rise", "a rise", context, 0.0, 60.0)
        lap = self.mm("lap", "a lap", context, 0.0, 60.0)
        rounded = self.mm("rounded", "a corner with a radius", context, 0.0, height - 1.0)
        half, shoulders = worn.mm / 2.0, [at for joint, at in worn.crossings if joint == "shoulder"]
        if len(shoulders) != 2 or abs(shoulders[0] + shoulders[1] - worn.mm) > 0.01:
            what = "this neckline is not the same left and right, or has no shoulder seams"
            raise StepError(what, where=self.on, advice="A stand goes on an even neckline; bind or face this one.")
        if rise > 0.25 * half:
            what = f"a rise of {format_length(rise, unit)} on a half neckline of {format_length(half, unit)}"
            raise StepError(what, where=self.on, advice=f"Enter up to {format_length(0.25 * half, unit)}.")
        marks = [] if lap == 0.0 else [Mark("cf", "text", at=(half * 0.9, -rise - height / 2.0), text="CF")]
        piece = _drawn(name, half, height, rise, lap, rounded, shoulders[0], marks)
        more = f", with a lap of {format_length(lap, unit)}" if lap > 0.0 else ""
        told = f"half of it {format_length(half, unit)} along the seam, {format_length(height, unit)} high{more}"
        yield Part(piece, told, 2, "fold 2")

    def hand_text(self) -> str:
        """Up from a level line."""
        return (
            f"Draw half of that level from CB and let it rise by {self.rise} to CF in a curve of the same length; draw the "
            f"{{name}} {self.height} above it all along, and {self.lap} beyond CF."
        )


def _drawn(
    name: str, half: float, height: float, rise: float, lap: float, rounded: float, shoulder: float, marks: list[Mark]
) -> Piece:
    """The half stand: CB on the fold at the left, its seam below."""
    line = _risen(half, rise)
    if lap > 0.0:
        line = Path.chain([line, Path.straight(line.end, line.end + line.end_direction * lap)])
    seam = line.reversed()
    top = beside(seam, height).reversed()
    front = Path.straight(top.end, seam.start)
    if rounded > 0.0:
        top, front = top.split_at(top.length - rounded)[0], front.split_at(rounded)[1]
        a, b = top.end, front.start
        arc = Path(np.array([[a, a + top.end_direction * rounded * ARC, b - front.start_direction * rounded * ARC, b]]))
        front = Path.chain([arc, front])
    edges = [
        (SEAM, STRIP, seam),
        ("centre", "centre", Path.straight(seam.end, top.start)),
        (LOOSE, STRIP, top),
        ("end", STRIP, front),
    ]
    middle = np.array([half * 0.12, -height / 2.0])
    grain = ((float(middle[0]), -height * 0.8), (float(middle[0]), -height * 0.2))
    notches = [("shoulder", seam.length - shoulder)]
    notches += [("CF", lap)] if lap > 0.0 else []
    return ringed(name, edges, grain, fold="centre", notches=notches, marks=marks, body=Body.NONE)


def _risen(long: float, rise: float) -> Path:
    """A curve from (0, 0), level there, so long, which ends `rise` mm higher."""

    def curve(x: float) -> Path:
        return Path(np.array([[[0.0, 0.0], [0.45 * x, 0.0], [0.8 * x, -0.45 * rise], [x, -rise]]]))

    return curve(root(lambda x: curve(x).length - long, 0.5 * long, long + 1e-9))


STEP = Stand
