"""line.band: a band of even width cut off along an edge, for another cloth or another colour."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.grain import grain_of_part
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import parallel, refuse_unclear
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, Place, StyleLine, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.into_panels import free_line, lined, with_panels
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Step


class Band(Step):
    """Cuts along a line parallel to the edge; the band is measured along the seams beside it."""

    title: ClassVar[str] = "Contrast band"
    summary: ClassVar[str] = "Cut off a band of even width along the waist, hem, neckline or armhole."

    do: Literal["line.band"] = "line.band"
    edge: Literal["neckline", "armhole", "waist", "hem"] = Field(default="waist", description="the edge it follows")
    width: Length = Field(default="4 cm", description="its width")

    def words(self) -> str:
        """`band along the waist, 4 cm`."""
        return f"band along the {words(self.edge)}, {self.width}"

    def _cut(self, pattern: Pattern, context: Context) -> tuple[Piece, Path, Place, Place]:
        """The piece, the line along the band, and its ends on the seams before and behind the edge."""
        piece = pattern.piece(self.on)
        if piece.is_unfolded:
            raise StepError("the piece is unfolded", where=self.on, advice="Cut the band before it is unfolded.")
        width = length_mm(self.width, context.scope)
        runs = piece.edge(self.edge).runs
        if not runs:
            raise StepError(f"the piece has no {words(self.edge)}", where=self.on, advice="Choose another edge.")
        opened = next((run.mouth for run in runs if run.mouth), None)
        first = piece.runs.index(runs[0])
        opened = opened or piece.runs[first - 1].mouth
        if opened is not None:
            what = f"the {dart_words(piece, opened)} dart opens in the {words(self.edge)}"
            raise StepError(what, where=self.on, advice="Move it away, or turn it into a princess line first.")
        before, behind = piece.runs[first - 1].edge, piece.runs[piece.after(piece.runs.index(runs[-1]))].edge
        sizes = [piece.edge(edge).sewn_length for edge in (before, behind)]
        if not 0.0 < width < min(sizes):
            most = format_length(min(sizes), context.scope.unit)
            raise StepError("the band is too wide to fit", where=self.on, advice=f"Enter more than 0 and less than {most}.")
        start = places.along(piece, before, sizes[0] - width)
        stop = places.along(piece, behind, width)
        drawn = parallel([run.path for run in runs], width, places.point(piece, start), places.point(piece, stop))
        refuse_unclear(piece, drawn)
        return piece, drawn, start, stop

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the band as a piece of its own. Raises StepError or GeometryError when it cannot be."""
        piece, drawn, start, stop = self._cut(pattern, context)
        name, edge = f"{self.on}_{self.edge}_band", free_line(piece, "band")
        if pattern.has(name):
            raise StepError("that edge already has a band", where=self.on, advice="Change that one.")
        kept, band = across(piece, start, stop, drawn, edge, STYLE_LINE, (piece.name, name))
        source = f"{piece.of or piece.name}.{edge}"
        kept, band = (lined(part, edge, source, (0.5,)) for part in (kept, band))
        kept = replace(kept, grain=grain_of_part(kept, piece))
        band = replace(band, of=piece.of or piece.name, grain=grain_of_part(band, piece, self.edge))
        style = StyleLine(edge, piece.of or piece.name, (kept.name, band.name), ())
        after = with_panels(pattern, self.on, (kept, band), (sewn(EdgeRef(kept.name, edge), EdgeRef(band.name, edge)),))
        unit = context.scope.unit
        finished = format_length(band.edge(self.edge).sewn_length, unit)
        note = Note(
            f"the band is {finished} long at the {words(self.edge)} and {format_length(drawn.length, unit)} above", self.on
        )
        return Outcome(replace(after, lines=(*after.lines, style)), (note,))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure in, draw, cut; the same in both ways."""
        _piece, drawn, _start, _stop = self._cut(pattern, context)
        unit = context.scope.unit
        text = (
            "On the {on}, mark {width} in from the {edge} every 2 cm and on both seams beside it, and join the marks: the line "
            "is {long} long. Notch its middle and cut along it."
        )
        figures = {"width": length_mm(self.width, context.scope), "long": drawn.length}
        names = {"on": words(self.on), "edge": words(self.edge)}
        return (line("band", text, **names, **{key: format_length(mm, unit, fine=True) for key, mm in figures.items()}),)


STEP = Band
