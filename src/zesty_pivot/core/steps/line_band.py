"""line.band: a band of even width cut off along an edge, for another cloth or another colour."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.bands import Banded, band_off
from zesty_pivot.core.moves.grain import grain_of_part
from zesty_pivot.core.moves.let_in import filled
from zesty_pivot.core.moves.open_up import home_edge
from zesty_pivot.core.piece import OPEN_USES, EdgeRef, Pattern, Piece, StyleLine, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.into_panels import free_line, lined, with_panels
from zesty_pivot.core.procedures.legs import made_equal
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step


class Band(Step):
    """Cuts along a line parallel to the edge; the band is measured along the seams beside it."""

    title: ClassVar[str] = "Contrast band"
    summary: ClassVar[str] = "Cut off a band of even width along the waist, hem, neckline or armhole."
    half_by_half: ClassVar[bool] = True

    do: Literal["line.band"] = "line.band"
    edge: Literal["neckline", "armhole", "waist", "hem"] = Field(default="waist", description="the edge it follows")
    width: Length = Field(default="4 cm", description="its width")

    def words(self) -> str:
        """`band along the waist, 4 cm`."""
        return f"band along the {words(self.edge)}, {self.width}"

    def _cut(self, pattern: Pattern, context: Context) -> tuple[Piece, Banded, tuple[Note, ...]]:
        """The piece with what lies open in its edge filled in, what comes of it, and what was done to its darts."""
        piece = pattern.piece(self.on)
        if piece.is_unfolded:
            raise StepError("the piece is unfolded", where=self.on, advice="Cut the band before it is unfolded.")
        width = length_mm(self.width, context.scope)
        if not piece.edge(self.edge).runs:
            raise StepError(f"the piece has no {words(self.edge)}", where=self.on, advice="Choose another edge.")
        for dart in piece.darts:
            if dart.use in OPEN_USES and home_edge(piece, dart.id) == self.edge:
                piece = filled(piece, dart.id)
        shut = [dart.id for dart in piece.darts if home_edge(piece, dart.id) == self.edge]
        piece, notes = made_equal(piece, shut, context.scope.unit)
        runs = [index for index, run in enumerate(piece.runs) if run.edge == self.edge]
        corner = next((piece.runs[k].mouth for k in (runs[0] - 1, runs[-1]) if piece.runs[k].mouth), None)
        folded = next((d.id for d in piece.darts if d.use is not Use.DART and home_edge(piece, d.id) == self.edge), None)
        if corner is not None or folded is not None:
            what = f"the {dart_words(piece, corner or folded or '')} dart opens in the {words(self.edge)}"
            what += " at its end" if corner is not None else " as a tuck or pleat"
            raise StepError(what, where=self.on, advice="Move it away, or sew it as a dart inside the edge.")
        before, behind = piece.runs[runs[0] - 1].edge, piece.runs[piece.after(runs[-1])].edge
        sizes = [piece.edge(edge).sewn_length for edge in (before, behind)]
        if not 0.0 < width < min(sizes):
            most = format_length(min(sizes), context.scope.unit)
            raise StepError("the band is too wide to fit", where=self.on, advice=f"Enter more than 0 and less than {most}.")
        ends = places.along(piece, before, sizes[0] - width), places.along(piece, behind, width)
        name, line_ = f"{self.on}_{self.edge}_band", free_line(piece, "band")
        return piece, band_off(piece, self.edge, width, ends, line_, name, context.sewing), notes

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the band as a piece of its own. Raises StepError or GeometryError when it cannot be."""
        if pattern.has(f"{self.on}_{self.edge}_band"):
            raise StepError("that edge already has a band", where=self.on, advice="Change that one.")
        piece, made, notes = self._cut(pattern, context)
        edge = next(run.edge for run in made.band.runs if run.source.edge == run.edge)
        source = f"{piece.of or piece.name}.{edge}"
        kept, band = (lined(part, edge, source, (0.5,)) for part in (made.kept, made.band))
        kept = replace(kept, grain=grain_of_part(kept, piece))
        band = replace(band, of=piece.of or piece.name, grain=grain_of_part(band, piece, self.edge))
        style = StyleLine(edge, piece.of or piece.name, (kept.name, band.name), ())
        after = with_panels(pattern, self.on, (kept, band), (sewn(EdgeRef(kept.name, edge), EdgeRef(band.name, edge)),))
        unit = context.scope.unit
        finished = format_length(band.edge(self.edge).sewn_length, unit)
        long = format_length(made.line.length, unit)
        shut = [dart_words(pattern.piece(self.on), dart.id) for dart in kept.darts if kept.dart_edge(dart.id) == edge]
        told = f"; the {' and '.join(shut)} dart{'s are' if len(shut) > 1 else ' is'} shut in it" if shut else ""
        note = Note(f"the band is {finished} long at the {words(self.edge)} and {long} above{told}", self.on)
        return Outcome(replace(after, lines=(*after.lines, style)), (*notes, note))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure in, draw, cut; the same in both ways."""
        _piece, made, _notes = self._cut(pattern, context)
        unit = context.scope.unit
        text = (
            "On the {on}, fold the darts in the {edge} shut, mark {width} in from it every 2 cm and on both seams beside it, "
            "and join the marks: the line is {long} long. Notch its middle and cut along it through all layers."
        )
        figures = {"width": length_mm(self.width, context.scope), "long": made.line.length}
        names = {"on": words(self.on), "edge": words(self.edge)}
        return (line("band", text, **names, **{key: format_length(mm, unit) for key, mm in figures.items()}),)


STEP = Band
