"""piece.side_panel: a panel cut from front and back inside the armhole width takes the place of the side seam."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.grain import square_grain
from zesty_pivot.core.piece import Body, EdgeRef, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.side_seam import (
    NEW,
    SIDE,
    cut_strip,
    darts_away,
    darts_back,
    fits,
    misfit,
    one_side,
    renamed,
    sewn_at_the_side,
    taped,
)
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

PANEL = "side_panel"
LINES = {"front": "front_line", "back": "back_line"}


class SidePanel(Step):
    """Cuts a strip off front and back, tapes them along the old side seam, and sews the panel between."""

    title: ClassVar[str] = "Side panel"
    summary: ClassVar[str] = "A panel in place of the side seam: strips of front and back become one piece; side darts follow."
    half_by_half: ClassVar[bool] = True

    do: Literal["piece.side_panel"] = "piece.side_panel"
    on: str = Field(default="front", description="one of the two pieces", min_length=1)
    other: str = Field(default="back", description="the piece it is sewn to at the side", min_length=1)
    front: Length = Field(default="4 cm", description="how much of the one piece, along the armhole")
    back: Length = Field(default="5 cm", description="how much of the other")
    front_waist: Length | None = Field(default=None, description="at the waist; as at the armhole when not given")
    back_waist: Length | None = Field(default=None, description="at the waist; as at the armhole when not given")

    def words(self) -> str:
        """`side panel, 4 cm of the front and 5 cm of the back`."""
        return f"side panel, {self.front} of the {words(self.on)} and {self.back} of the {words(self.other)}"

    def _widths(self, context: Context) -> tuple[tuple[float, float], tuple[float, float]]:
        """The strips' widths in mm: of each piece at the armhole and at the waist."""
        found = []
        for at, below in ((self.front, self.front_waist), (self.back, self.back_waist)):
            wide = length_mm(at, context.scope)
            found.append((wide, wide if below is None else length_mm(below, context.scope)))
        return found[0], found[1]

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the panel. Raises StepError or GeometryError when it cannot be."""
        if self.on == self.other:
            raise StepError("a panel lies between two pieces", where=self.on, advice="Name the other piece.")
        if pattern.has(PANEL):
            raise StepError("there is a side panel already", where=self.on, advice="Change that one.")
        sewn_at_the_side(pattern, self.on, self.other)
        notes = misfit(pattern, self.on, self.other)
        away, homes = darts_away(pattern, (self.on, self.other), context)
        pattern = away.pattern
        strips: list[Piece] = []
        for name, widths, edge in zip((self.on, self.other), self._widths(context), LINES.values(), strict=True):
            piece = one_side(pattern.piece(name))
            fits(piece, *widths, context)
            kept, strip = cut_strip(piece, *widths)
            pattern = pattern.with_piece(kept)
            strips.append(_lined(strip, edge))
        panel = replace(taped(strips[0], strips[1], PANEL, context), fold=None, darts=(), landmarks={}, body=Body.NONE)
        panel = replace(panel, grain=square_grain(panel, "waist") or panel.grain)
        gone = {EdgeRef(self.on, SIDE), EdgeRef(self.other, SIDE)}
        seams = [seam for seam in pattern.seams if set(seam.parts) != gone]
        seams += [
            sewn(EdgeRef(name, SIDE), EdgeRef(PANEL, edge))
            for name, edge in zip((self.on, self.other), LINES.values(), strict=True)
        ]
        pattern = replace(pattern, pieces=(*pattern.pieces, panel), seams=tuple(seams))
        pattern = darts_back(pattern, homes, context)
        wide = format_length(panel.edge("armhole").sewn_length, context.scope.unit)
        below = format_length(panel.edge("waist").sewn_length, context.scope.unit)
        return Outcome(
            pattern,
            (
                *notes,
                *away.notes,
                Note(f"the panel is {wide} wide along the armhole and {below} at the waist", PANEL),
            ),
        )

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure, cut both strips, tape them; the same in both ways."""
        self.apply(pattern, context)
        text = (
            "Fold any side dart shut. On the {on} mark {at} along the armhole from the underarm and {below} along the waist "
            "from the side, on the {other} {there} and {under}; draw the side seam between the marks of each and cut along it. "
            "Turn the strip of the {other} over and tape both together along the old side seam: the side panel. Open a side "
            "dart again at the same share of the new line."
        )
        unit, widths = context.scope.unit, self._widths(context)
        names = ("at", "below", "there", "under")
        figures = dict(zip(names, (format_length(mm, unit) for pair in widths for mm in pair), strict=True))
        return (line("side_panel", text, on=words(self.on), other=words(self.other), **figures),)


def _lined(strip: Piece, edge: str) -> Piece:
    """A strip whose new line has a name of its own."""
    source = strip.edge(NEW).runs[0].source.edge
    return renamed(strip, edge, source)


STEP = SidePanel
