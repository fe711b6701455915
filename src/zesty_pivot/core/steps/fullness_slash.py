"""fullness.slash: a slash line of the user's own, to the pivot or to a hinge on another seam, opened or closed by an amount."""

import math
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.moves.join import shut
from zesty_pivot.core.moves.slash import fold_out, wedge_out
from zesty_pivot.core.moves.spread import wedge
from zesty_pivot.core.moves.swing import swing
from zesty_pivot.core.piece import Pattern, Piece, Place, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.procedures.hand import Line, Way, chord_figures, line, place_line, preparing_line
from zesty_pivot.core.procedures.hand_dart_moves import move_by_hand
from zesty_pivot.core.procedures.hand_flaring import sense_of
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, NamesDart
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

# A slash opened wider than this (radians) no longer lies on one sheet. Common practice, no source.
WIDEST = math.radians(60.0)

_WEDGE = "*wedge"  # the wedge's name while it is open


class Slash(Step):
    """Opens cloth into an edge (flare, or a dart at the pivot), or folds cloth out of it."""

    title: ClassVar[str] = "Slash and spread"
    summary: ClassVar[str] = "Cut from any place to the pivot or to a hinge on another seam, and open or close it by an amount."

    do: Literal["fullness.slash"] = "fullness.slash"
    at: Spot = Field(description="where the slash begins")
    hinge: Spot | None = Field(default=None, description="where it ends on another seam")
    dart: Annotated[str | None, NamesDart()] = Field(
        default=None, description="or: it runs to this dart's pivot, and this dart gives or takes"
    )
    by: Length = Field(default="2 cm", description="how far it opens at its beginning; negative folds cloth out")
    whole: bool = Field(default=False, description="all of the dart goes into the slash, whatever `by` says")

    @model_validator(mode="after")
    def _one_end(self) -> Self:
        if (self.hinge is None) == (self.dart is None):
            raise ValueError("a slash ends at a hinge, or at the pivot of a dart, one of the two")
        if self.whole and self.dart is None:
            raise ValueError("'whole' goes with a dart: it is all of the dart")
        return self

    def words(self) -> str:
        """`slash from waist to mid shoulder, by 3 cm`."""
        end = self.hinge.words() if self.hinge is not None else f"the pivot of the {words(self.dart or '')} dart"
        much = f"all of the {words(self.dart or '')} dart" if self.whole else f"by {self.by}"
        return f"slash from {self.at.words()} to {end}, {much}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern opened or closed. Raises StepError, PlaceError or GeometryError when it cannot be."""
        piece = pattern.piece(self.on)
        if self.whole:
            return move_dart(DartMove(self.on, self.dart or "", self.at), pattern, context)
        amount = length_mm(self.by, context.scope)
        if amount == 0.0:
            raise StepError("the slash must open by more than 0", where=self.on, advice="Enter an amount such as 2 cm.")
        if self.hinge is not None:
            made, note = self._to_hinge(piece, self.hinge, amount, context)
        elif amount > 0.0:
            return move_dart(self._move(amount), pattern, context)
        else:
            made, note = self._to_pivot(piece, -amount, context)
        return Outcome(pattern.with_piece(made), (note,))

    def _move(self, amount: float) -> DartMove:
        """A slash that opens at the pivot is a move of as much of the dart."""
        return DartMove(self.on, self.dart or "", self.at, mouth_mm=amount)

    def _place(self, piece: Piece, spot: Spot, context: Context) -> Place:
        return resolve(spot, piece, context.block.drafted(piece), context.scope, self._pivot(piece))

    def _pivot(self, piece: Piece) -> str:
        """The pivot it runs to; for a hinge any, for places that need one."""
        if self.dart is not None:
            return piece.dart(self.dart).pivot
        return piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")

    def _angle(self, reach: float, amount: float, context: Context) -> float:
        """The angle (radians) that opens by `amount` mm at `reach` mm: 2 asin(amount / 2 reach)."""
        widest = 2.0 * reach * math.sin(WIDEST / 2.0)
        if abs(amount) > widest:
            unit = context.scope.unit
            what = f"a slash of {format_length(reach, unit)} cannot open by {format_length(abs(amount), unit)}"
            raise StepError(what, where=self.on, advice=f"Up to {format_length(widest, unit)}, or several slashes.")
        return 2.0 * math.asin(amount / (2.0 * reach))

    def _to_hinge(self, piece: Piece, hinge: Spot, amount: float, context: Context) -> tuple[Piece, Note]:
        start, stop = self._place(piece, self.at, context), self._place(piece, hinge, context)
        edge = piece.runs[start.run].edge
        reach = math.dist(places.point(piece, start), places.point(piece, stop))
        if edge == piece.runs[stop.run].edge or reach < 1.0:
            raise StepError(
                "the hinge lies on the edge that is slashed", where=self.on, advice="Choose a hinge on another seam."
            )
        if amount > 0.0:
            made = wedge(piece, start, stop, self._angle(reach, amount, context))
            jog = 0.0
        else:
            self._angle(reach, amount, context)
            made, jog = fold_out(piece, start, self._further(piece, start, -amount, context), stop)
        change = made.edge(edge).sewn_length - piece.edge(edge).sewn_length
        text = f"the {words(edge)} is {format_length(abs(change), context.scope.unit)} {'longer' if change > 0 else 'shorter'}"
        if jog > 0.01:
            text += f", with a step of {format_length(jog, context.scope.unit, fine=True)} to true"
        return made, Note(text, self.on, abs(change))

    def _further(self, piece: Piece, start: Place, amount: float, context: Context) -> Place:
        """The place `amount` mm further along the same run."""
        size = piece.runs[start.run].path.length
        if start.at + amount > size + 1e-9:
            room = format_length(size - start.at, context.scope.unit)
            raise PlaceError(f"only {room} is clear from there on", where=self.on, advice="Fold out less, or start earlier.")
        return Place(start.run, min(size, start.at + amount))

    def _to_pivot(self, piece: Piece, amount: float, context: Context) -> tuple[Piece, Note]:
        """A wedge of `amount` mm taken out of the edge goes into the dart: more fullness than the block has, so it is told."""
        taker, pivot = piece.dart(self.dart or "").id, self._pivot(piece)
        start = self._place(piece, self.at, context)
        out = wedge_out(piece, start, self._further(piece, start, amount, context), pivot, _WEDGE)
        angle, jog = out.angle(_WEDGE), abs(out.legs(_WEDGE)[0] - out.legs(_WEDGE)[1])
        if angle > WIDEST:
            raise StepError("a wedge this wide cannot be folded out", where=self.on, advice="Take less, or start further away.")
        made = shut(swing(out, _WEDGE, taker, angle), _WEDGE)
        text = (
            f"{math.degrees(angle):.1f}° taken out of the {words(piece.runs[start.run].edge)} and put into the "
            f"{words(taker)} dart; they are not in the block"
        )
        if jog > 0.01:
            text += f", with a step of {format_length(jog, context.scope.unit, fine=True)} to true"
        return replace(made, added=(*made.added, (pivot, angle))), Note(text, self.on, amount)

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The marks for places that the block decides."""
        piece = pattern.piece(self.on)
        block = context.block.drafted(piece)
        spots = [spot for spot in (self.at, self.hinge) if spot is not None]
        found = [preparing_line(spot, piece, block, context.scope, self._pivot(piece)) for spot in spots]
        return tuple(mark for mark in found if mark is not None)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Cut, turn by the chord, tape paper behind; the same in both ways."""
        self.apply(pattern, context)
        piece, unit = pattern.piece(self.on), context.scope.unit
        amount, pivot = length_mm(self.by, context.scope), self._pivot(piece)
        if self.whole:
            return move_by_hand(DartMove(self.on, self.dart or "", self.at), pattern, context, way)
        if self.hinge is None:
            if amount > 0.0:
                return move_by_hand(self._move(amount), pattern, context, way)
            return self._wedge_by_hand(piece, context)
        first = place_line(self.at, piece, context.scope, pivot)
        start, stop = self._place(piece, self.at, context), self._place(piece, self.hinge, context)
        lines = [first, line("slash_here", "Call this place A."), place_line(self.hinge, piece, context.scope, pivot)]
        pin, here = places.point(piece, stop), places.point(piece, start)
        if amount > 0.0:
            reach = math.dist(here, pin)
            figures = chord_figures(self._angle(reach, amount, context), reach, unit)
            text = (
                "Call this place H. Cut from A to H, but not through it. Turn the part without the centre {sense} about H "
                "until the cut stands open by {chord} at A. Tape paper behind and draw the {edge} straight across."
            )
            figures["sense"] = sense_of(piece, start, stop)
            return (*lines, line("spread", text, edge=words(piece.runs[start.run].edge), **figures))
        self._further(piece, start, -amount, context)  # refused here where the edge is too short
        text = (
            "Call this place H. Mark B on the {edge}, {by} further on clockwise. Fold the paper from H so that B comes to lie "
            "on the line from H to A. Tape it."
        )
        by = format_length(-amount, unit)
        return (*lines, line("fold_out", text, edge=words(piece.runs[start.run].edge), by=by))

    def _wedge_by_hand(self, piece: Piece, context: Context) -> tuple[Line, ...]:
        """Fold the wedge out to the pin: the dart opens by itself."""
        unit, pivot = context.scope.unit, self._pivot(piece)
        amount = format_length(-length_mm(self.by, context.scope), unit)
        edge = words(piece.runs[self._place(piece, self.at, context).run].edge)
        text = (
            "Mark B on the {edge}, {by} further on clockwise. Fold the paper from the {pin} so that B comes to lie on the line "
            "from the {pin} to the place; the {dart} dart opens by as much. Tape it."
        )
        names = {"edge": edge, "by": amount, "pin": words(pivot), "dart": dart_words(piece, self.dart or "")}
        return place_line(self.at, piece, context.scope, pivot), line("wedge_out", text, **names)


STEP = Slash
