"""trim.tie: ties from the side seams, or a sash all round."""

from collections.abc import Iterable
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Body, Pattern, Piece
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.strips import LOOSE, SEAM, STRIP, grain_in, ringed
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep


class Tie(TrimStep):
    """A tie is sewn into the side seam and goes to the centre back, where it is tied; a sash goes all round."""

    title: ClassVar[str] = "Tie or sash"
    summary: ClassVar[str] = "Ties from the side seams, or a sash round the waist, with tails to tie a bow."
    called: ClassVar[str] = "tie"

    do: Literal["trim.tie"] = "trim.tie"
    edge: str = Field(default="lower", description="where it lies: waist, lower, neckline, or an edge by its id", min_length=1)
    kind: Literal["tie", "sash"] = Field(default="tie", description="a pair from the side seams, or one all round")
    # For a bow each end takes about 60 cm: common practice, no source.
    tail: Length = Field(default="60 cm", description="what each end has to be tied with")
    wide: Length = Field(default="5 cm", description="how wide it is once finished")
    ends: Literal["straight", "slanted", "pointed"] = Field(default="slanted", description="its free ends")

    def words(self) -> str:
        """`ties, 5 cm wide`."""
        return f"{'sash' if self.kind == 'sash' else 'ties'}, {self.wide} wide"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """One tie, cut as a pair, or the sash; doubled along its lower edge."""
        wide, unit = self.mm("wide", "a tie with a width", context, 3.0, 500.0), context.scope.unit
        tail = self.mm("tail", "a tail", context, 0.0, 3000.0)
        way = worn.mm if self.kind == "sash" else worn.of_body(Body.BACK) / 2.0
        long = way + tail * (2.0 if self.kind == "sash" else 1.0)
        slant = {"straight": 0.0, "slanted": wide, "pointed": wide / 2.0}[self.ends]
        piece = self._piece(name, max(long, wide * 2.0), wide, slant)
        told = f"{format_length(long, unit)} by {format_length(wide, unit)}, {format_length(tail, unit)} of it to tie"
        if self.kind == "sash":
            told += " at each end"
        yield Part(piece, told, 2, "2" if self.kind == "sash" else "4")

    def _piece(self, name: str, long: float, wide: float, slant: float) -> Piece:
        tip = [np.array([long - slant, 0.0]), np.array([long, wide])]
        if self.ends == "pointed":
            tip = [np.array([long - slant, 0.0]), np.array([long, wide / 2.0]), np.array([long - slant, wide])]
        back = [np.array([0.0, wide]), np.array([0.0, 0.0])]
        if self.kind == "sash" and slant > 0.0:
            back = [np.array([0.0, wide]), np.array([slant, 0.0])] if self.ends == "slanted" else [
                np.array([slant, wide]), np.array([0.0, wide / 2.0]), np.array([slant, 0.0])]  # fmt: skip
        edges = [
            (SEAM, STRIP, Path.straight(back[-1], tip[0])), ("end", STRIP, Path.straight(*tip)),
            (LOOSE, STRIP, Path.straight(tip[-1], back[0])), ("end_back", STRIP, Path.straight(*back)),
        ]  # fmt: skip
        return ringed(name, edges, grain_in(np.array([long / 2.0, wide / 2.0]), long, wide, "along"))

    def hand_text(self) -> str:
        """So far to the centre back, and the tail."""
        way = "all round" if self.kind == "sash" else "from the side seam to the centre back"
        return f"Draw the {{name}} {way} and {self.tail} more to tie, {self.wide} wide, its end {self.ends}; two layers."


STEP = Tie
