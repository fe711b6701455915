"""piece.true: the seam across closed mouths redrawn smooth, with the amount it moved."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.redraw import blend, corner, jog
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Context, Note, Outcome, Step

# Smaller corners and jogs than these are the noise of six decimals in a file.
LEAST_CORNER = math.radians(0.01)
LEAST_JOG = 0.001  # mm

_MOST_BLENDS = 24  # an edge has a few mouths; more rounds than this would mean that blending makes corners


class TruePiece(Step):
    """Blends an edge wherever a sewn mouth or a closed joint leaves a corner or a jog in it."""

    title: ClassVar[str] = "True a seam"
    summary: ClassVar[str] = "Redraw an edge smooth across its closed mouths; legs come out equal; the amount is shown."
    lengths: ClassVar[tuple[str, ...]] = ("over",)

    do: Literal["piece.true"] = "piece.true"
    edge: str = Field(description="the edge to true", min_length=1)
    over: Length = Field(default="5 cm", description="how far the blend reaches to either side of the mouth")

    def words(self) -> str:
        """`true the waist over 5 cm`."""
        return f"true the {words(self.edge)} over {self.over}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the edge trued. Raises StepError when `over` is nothing, PlaceError for a wrong edge."""
        piece = pattern.piece(self.on)
        piece.edge(self.edge)
        over = length_mm(self.over, context.scope)
        if over <= 0.0:
            raise StepError("a blend over nothing", where=f"{self.on} {words(self.edge)}", advice="Give a length such as 5 cm.")
        notes: list[Note] = []
        for _ in range(_MOST_BLENDS):
            index = worst(piece, self.edge)
            if index is None:
                break
            made = blend(piece, index, over)
            piece = made.piece
            notes.append(self._note(made.moved_mm, made.longer_mm))
        else:
            raise StepError(
                "the seam does not come out smooth", where=f"{self.on} {words(self.edge)}", advice="Blend over less."
            )
        if not notes:
            notes.append(Note(f"the {words(self.edge)} runs smooth already", self.on, 0.0))
        return Outcome(pattern.with_piece(piece), tuple(notes))

    def _note(self, moved: float, longer: float) -> Note:
        change = f"{format_length(abs(longer), 'mm', fine=True)} {'longer' if longer > 0.0 else 'shorter'}"
        text = f"the {words(self.edge)} moved by up to {format_length(moved, 'mm', fine=True)} and is {change}"
        return Note(text, self.on, moved)


def worst(piece: Piece, edge: str) -> int | None:
    """The run at whose end the edge has its sharpest corner or a jog, or None when it runs smooth."""
    found: tuple[float, int] | None = None
    for index, run in enumerate(piece.runs):
        if run.edge != edge or piece.runs[piece.after(index)].edge != edge:
            continue
        turn, step = abs(corner(piece, index)), jog(piece, index)
        if (turn > LEAST_CORNER or step > LEAST_JOG) and (found is None or turn > found[0]):
            found = (turn, index)
    return found[1] if found else None


STEP = TruePiece
