"""piece.true: the seam across closed mouths redrawn smooth, with the amount it moved."""

import math
from typing import ClassVar, Literal

import numpy as np
import shapely
from pydantic import Field

from zesty_pivot.core.conventions.sewing import Sewing, setback_of, sewn_point
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.redraw import Redrawn, blend, corner, jog, reaches
from zesty_pivot.core.piece import Pattern, Piece, Run, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.place import settled, sewn_distance
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

# Smaller corners and jogs than these are the noise of six decimals in a file.
LEAST_CORNER = math.radians(0.01)
LEAST_JOG = 0.001  # mm

_MOST_BLENDS = 24  # an edge has a few mouths; more rounds than this would mean that blending makes corners


class TruePiece(Step):
    """Blends an edge wherever a sewn mouth or a closed joint leaves a corner or a jog in it."""

    title: ClassVar[str] = "True a seam"
    summary: ClassVar[str] = "Redraw an edge smooth across its closed darts; legs come out equal; the amount is shown."
    half_by_half: ClassVar[bool] = True

    do: Literal["piece.true"] = "piece.true"
    edge: str = Field(description="the edge to true", min_length=1)
    over: Length = Field(default="5 cm", description="how far the blend reaches to either side of the mouth")
    straight: bool = Field(default=False, description="instead: one straight line from end to end, for a shoulder or side seam")

    def words(self) -> str:
        """`true the waist over 5 cm`."""
        return f"true the {words(self.edge)} {'straight' if self.straight else f'over {self.over}'}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the edge trued. Raises StepError when `over` is nothing, PlaceError for a wrong edge."""
        if self.straight:
            return self._straightened(pattern.piece(self.on), pattern)
        blends = self._blends(pattern, context)
        if not blends:
            note = Note(f"the {words(self.edge)} runs smooth already", self.on, 0.0)
            return Outcome(pattern.with_piece(pattern.piece(self.on)), (note,))
        notes = tuple(self._note(made.moved_mm, made.longer_mm) for _piece, _index, made in blends)
        return Outcome(pattern.with_piece(blends[-1][2].piece), notes)

    def _straightened(self, piece: Piece, pattern: Pattern) -> Outcome:
        """The edge as one straight line: what a shoulder is after its dart has gone elsewhere."""
        runs = piece.edge(self.edge).runs
        opened = next((run.mouth for run in runs[:-1] if run.mouth is not None), None)
        if opened is not None:
            what = f"the {dart_words(piece, opened)} dart opens in the {words(self.edge)}"
            raise StepError(what, where=self.on, advice="Move or park it first, or blend instead.")
        line_, old = Path.straight(runs[0].path.start, runs[-1].path.end), np.concatenate([run.path.outline for run in runs])
        moved = float(shapely.LineString(line_.outline).hausdorff_distance(shapely.LineString(old)))
        one = Run(self.edge, line_, replace(runs[0].source, u1=runs[-1].source.u1), runs[-1].mouth)
        at = piece.runs.index(runs[0])
        made = replace(piece, runs=(*piece.runs[:at], one, *piece.runs[at + len(runs) :]))
        longer = line_.length - sum(run.path.length for run in runs)
        return Outcome(pattern.with_piece(made), (self._note(moved, longer),))

    def _over(self, context: Context) -> float:
        over = length_mm(self.over, context.scope)
        if over <= 0.0:
            raise StepError(
                "the blend must be longer than 0", where=f"{self.on} {words(self.edge)}", advice="Enter a length such as 5 cm."
            )
        return over

    def _blends(self, pattern: Pattern, context: Context) -> list[tuple[Piece, int, Redrawn]]:
        """Every blend in turn: the piece before it, the run at whose end it lies, and what came of it."""
        piece = pattern.piece(self.on)
        piece.edge(self.edge)
        over = self._over(context)
        found: list[tuple[Piece, int, Redrawn]] = []
        for _ in range(_MOST_BLENDS):
            index = worst(piece, self.edge, context.sewing)
            if index is None:
                return found
            made = blend(piece, index, over, context.sewing)
            found.append((piece, index, made))
            piece = made.piece
        raise StepError("the seam will not come out smooth", where=f"{self.on} {words(self.edge)}", advice="Blend over less.")

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Fold the mouth shut, draw with the curve ruler through named points, cut with it shut; the same in both ways."""
        found: list[Line] = []
        names = {"on": words(self.on), "edge": words(self.edge)}
        if self.straight:
            self.apply(pattern, context)
            return (line("straighten", "On the {on}, draw the {edge} as one straight line from end to end.", **names),)
        for piece, index, made in self._blends(pattern, context):
            found += self._blend_lines(piece, index, made, context, names)
        return tuple(found) or (line("nothing", "The {edge} of the {on} runs smooth already: nothing is drawn.", **names),)

    def _blend_lines(
        self, piece: Piece, index: int, made: Redrawn, context: Context, names: dict[str, str]
    ) -> tuple[Line, ...]:
        unit, run = context.scope.unit, piece.runs[index]
        back, ahead = reaches(piece, index, self._over(context))
        figures = {name: format_length(mm, unit) for name, mm in (
            ("back", back), ("ahead", ahead), ("rise", made.rise_mm), ("moved", made.moved_mm),
        )}  # fmt: skip
        if run.mouth is not None:
            first = _fold_line(piece, run.mouth, context, names)
            where = "the fold"
        else:
            at = sewn_distance(piece, settled(piece, index, run.path.length))
            start = piece.ends.get(piece.role(self.edge), ("start", ""))[0]
            text = "Look for the corner in the {edge} of the {on}, {at} from the {start}."
            first = line("corner", text, at=format_length(at, unit), start=words(start), **names)
            where = "the corner"
        text = (
            f"Along the {{edge}}, mark K {{back}} before {where} and L {{ahead}} after it. Join them by a straight pencil line "
            f"and mark P square to its middle, {{rise}} from it on the side of {where}."
        )
        second = line("points", text, edge=names["edge"], **{k: figures[k] for k in ("back", "ahead", "rise")})
        text = (
            "Lay the curve ruler through K, P and L, so that it runs along the seam at both ends, and draw from K to L: it is "
            "up to {moved} from the old line."
        )
        third = line("curve", text, moved=figures["moved"])
        text = f"Cut along the curve{' with the dart still folded' if run.mouth else ''}, and open the paper."
        return first, second, third, line("open_out", text)

    def _note(self, moved: float, longer: float) -> Note:
        change = f"{format_length(abs(longer), 'mm', fine=True)} {'longer' if longer > 0.0 else 'shorter'}"
        text = f"the {words(self.edge)} moved by up to {format_length(moved, 'mm', fine=True)} and is {change}"
        return Note(text, self.on, moved)


def _fold_line(piece: Piece, dart: str, context: Context, names: dict[str, str]) -> Line:
    """The dart folded shut, along the legs that it is sewn by."""
    named = {"dart": dart_words(piece, dart), "pin": words(piece.dart(dart).pivot), **names}
    if setback_of(piece, dart, context.sewing) <= 0.0:
        return line("fold", "Fold the {dart} dart of the {on} shut along its legs to the {pin}.", **named)
    point = sewn_point(piece, dart, context.sewing)
    away = format_length(math.dist(point, piece.pivot(piece.dart(dart).pivot)), context.scope.unit)
    text = (
        "On the {on}, mark the sewn point of the {dart} dart {setback} from the {pin} on the line to the middle of its mouth, "
        "draw the legs from the ends of the mouth to it, and fold the dart shut along them."
    )
    return line("fold", text, setback=away, **named)


def worst(piece: Piece, edge: str, sewing: Sewing) -> int | None:
    """The run at whose end the edge has its sharpest corner or a jog, or None when it runs smooth."""
    found: tuple[float, int] | None = None
    for index, run in enumerate(piece.runs):
        if run.edge != edge or piece.runs[piece.after(index)].edge != edge:
            continue
        turn, step = abs(corner(piece, index, sewing)), jog(piece, index, sewing)
        if (turn > LEAST_CORNER or step > LEAST_JOG) and (found is None or turn > found[0]):
            found = (turn, index)
    return found[1] if found else None


STEP = TruePiece
