"""piece.true_seam: neckline, armhole or waist drawn smooth across the seam where front and back meet."""

import math
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.moves.seam_blend import Blended, Meeting, blend_across, corner_at, meeting
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Step

SeamRole = Literal["shoulder", "side_seam", "style_line"]
EdgeRole = Literal["neckline", "shoulder", "armhole", "side_seam", "waist", "hem"]

_KEPT: Kept[Blended | None] = Kept()

_LEAST = math.radians(0.01)  # a smaller corner is the noise of six decimals in a file


class TrueSeam(Step):
    """Front and back laid together at a seam's end and blended; both seams stay equally long."""

    title: ClassVar[str] = "True across a seam"
    summary: ClassVar[str] = "Blend neckline, armhole or waist where front and back meet at the shoulder or the side."
    half_by_half: ClassVar[bool] = True

    do: Literal["piece.true_seam"] = "piece.true_seam"
    on: str = Field(default="front", description="one of the two pieces", min_length=1)
    other: str = Field(default="back", description="the piece it is sewn to", min_length=1)
    seam: SeamRole = Field(description="the seam where they meet")
    edge: EdgeRole = Field(description="the edge that runs across it")
    over: Length = Field(default="4 cm", description="how far the blend reaches to either side of the seam")

    def words(self) -> str:
        """`true the armhole across the shoulder`."""
        return f"true the {words(self.edge)} across the {words(self.seam)}"

    def _made(self, pattern: Pattern, context: Context) -> Blended | None:
        """What comes of it, or None where the line runs smooth already."""
        over = length_mm(self.over, context.scope)
        if over <= 0.0:
            raise StepError("the blend must be longer than 0", where=self.on, advice="Enter a length such as 4 cm.")
        pattern.piece(self.on), pattern.piece(self.other)
        if not pattern.are_sewn(self.on, self.other, self.seam):
            what = f"{words(self.on)} and {words(self.other)} are not sewn to each other at the {words(self.seam)}"
            raise StepError(what, where=self.on, advice="Do this before a side panel or an unfolded front.")
        one, two = (meeting(pattern.piece(name), self.seam, self.edge) for name in (self.on, self.other))
        if one is None or two is None:
            what = f"the {words(self.edge)} does not meet the {words(self.seam)}"
            raise StepError(
                what, where=self.on, advice="Choose the neckline or armhole at the shoulder, armhole or waist at the side."
            )
        pieces = (pattern.piece(self.on), pattern.piece(self.other))
        return _KEPT.get(pieces, (self.seam, self.edge, over), lambda: _blended(one, two, over))

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with both pieces trued. Raises StepError, PlaceError or GeometryError when it cannot be."""
        made = self._made(pattern, context)
        if made is None:
            note = Note(f"the {words(self.edge)} runs smooth across the {words(self.seam)} already", self.on, 0.0)
            return Outcome(pattern, (note,))
        moved = format_length(made.moved_mm, "mm", fine=True)
        change = f"{format_length(abs(made.seam_mm), 'mm', fine=True)} {'longer' if made.seam_mm > 0.0 else 'shorter'}"
        text = f"the {words(self.edge)} moved by up to {moved}; both {words(self.seam)}s are {change}"
        return Outcome(pattern.with_piece(made.one).with_piece(made.two), (Note(text, self.on, made.moved_mm),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Pin the two together, blend, cut through both; the same in both ways."""
        made = self._made(pattern, context)
        names = {"edge": words(self.edge), "seam": words(self.seam), "on": words(self.on), "other": words(self.other)}
        if made is None:
            return (line("nothing", "The {edge} runs smooth across the {seam} already: nothing is drawn.", **names),)
        unit = context.scope.unit
        turned = "Lay the {other} and pin it" if self.seam == "style_line" else "Turn the {other} over and pin it"
        text = turned + (
            " to the {on} along the {seam}, ends of the {edge} together. Mark the {edge} "
            "{over} to either side of the seam and lay a curve along it from mark to mark: it is up to {moved} from the old "
            "line. Cut both pieces along it."
        )
        figures = {"over": length_mm(self.over, context.scope), "moved": made.moved_mm}
        return (
            line("mark_use", text, dart=words(self.edge), **names, **{k: format_length(v, unit) for k, v in figures.items()}),
        )


def _blended(one: Meeting, two: Meeting, over: float) -> Blended | None:
    return blend_across(one, two, over) if abs(corner_at(one, two)) > _LEAST else None


STEP = TrueSeam
