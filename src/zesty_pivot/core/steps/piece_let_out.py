"""piece.let_out: the side seams let out or taken in, at the underarm, at the lower end, and between at the waist."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.side_let_out import SIDE, Knots, down_to, side_let_out
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.base import FrontAndBackStep

MOST = 80.0  # mm a seam edge; more is another size. Common practice, no source.


@record
class _Amounts:
    """How far a side seam comes out, mm: at its upper end, its lower end, and at the waist where that lies between."""

    top: float
    bottom: float
    waist: float | None

    def said(self, unit: Literal["mm", "cm", "in"], low: str) -> str:
        """`1.0 cm out at the underarm, 2.0 cm out at the waist`."""
        at = [("the underarm", self.top), *([("the waist", self.waist)] if self.waist is not None else []), (low, self.bottom)]
        return ", ".join(f"{format_length(abs(mm), unit)} {'out' if mm > 0.0 else 'in'} at {where}" for where, mm in at if mm)


class LetOut(FrontAndBackStep):
    """Moves the side seams of front and back square to themselves; armhole and lower edge are led to them at the angle that
    they had, and a dart that opens in the seam goes along."""

    title: ClassVar[str] = "Let out or take in"
    summary: ClassVar[str] = "Let the side seams out or take them in: so much an edge, a quarter of what the girth changes by."
    half_by_half: ClassVar[bool] = True

    do: Literal["piece.let_out"] = "piece.let_out"
    # 1 cm an edge, 4 cm round: about one size. Common practice, no source.
    top: Length = Field(default="1 cm", description="how far out at the underarm, each edge; negative takes in")
    bottom: Length = Field(default="1 cm", description="how far out at the lower end, each edge; negative takes in")
    waist: Length | None = Field(
        default=None, description="how far out at the waist of a piece that is longer; evenly between when not given"
    )

    def words(self) -> str:
        """`side seams, 1 cm out at the underarm, 5 mm at the lower end`."""
        middle = f", {self.waist} at the waist" if self.waist is not None else ""
        return f"side seams, {self.top} out at the underarm{middle}, {self.bottom} at the lower end"

    def _amounts(self, piece: Piece, context: Context) -> _Amounts:
        """Raises StepError for an amount that is too much, FormulaError for one that is no length."""
        unit = context.scope.unit
        asked = [self.top, self.bottom, *([self.waist] if self.waist is not None and piece.is_hip_length else [])]
        found = [length_mm(text, context.scope) for text in asked]
        for mm in found:
            if abs(mm) > MOST:
                what = f"a side seam cannot be moved by {format_length(abs(mm), unit)}"
                raise StepError(what, where=piece.name, advice=f"Enter up to {format_length(MOST, unit)} an edge.")
        return _Amounts(found[0], found[1], found[2] if len(found) > 2 else None)

    def _one(self, pattern: Pattern, asked: str, context: Context) -> tuple[Piece, _Amounts]:
        piece = _with_side(pattern, asked)
        amounts = self._amounts(piece, context)
        inside: Knots = ()
        if amounts.waist is not None:
            down = down_to(piece, context.block, "waist")
            if down is None:
                what = "its side seam does not reach the waist"
                raise StepError(what, where=piece.name, advice="Leave the waist empty.")
            inside = ((down, amounts.waist),)
        return side_let_out(piece, context.block, amounts.top, amounts.bottom, inside), amounts

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with its sides moved. Raises StepError, PlaceError or FormulaError when they cannot be."""
        notes = []
        for name in self.names():
            made, amounts = self._one(pattern, name, context)
            said = amounts.said(context.scope.unit, _low(made))
            if said:
                notes.append(Note(f"the side seam of the {words(made.name)} comes {said}", made.name, amounts.top))
            pattern = pattern.with_piece(made)
        return Outcome(pattern, tuple(notes))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Marks square to the seam, the line through them; the same in both ways."""
        found = []
        for name in self.names():
            made, amounts = self._one(pattern, name, context)
            said = amounts.said(context.scope.unit, _low(made))
            if said:
                text = (
                    "On the {on}, mark square to the side seam: {marks}. Draw the seam through the marks, shaped as it was, "
                    "and lead the edges beside it to its ends."
                )
                found.append(line("let_out", text, on=words(made.name), marks=said))
        return tuple(found)


def _low(piece: Piece) -> str:
    return "the hem" if piece.is_hip_length else "the waist"


def _with_side(pattern: Pattern, name: str) -> Piece:
    """The piece that has the whole side seam: itself, or one of its panels. Raises StepError when it is on several or none,
    PlaceError for a piece that is not there."""
    base = (pattern.piece(name).of or name) if pattern.has(name) else name
    held = [piece for piece in pattern.come_from(base) or (pattern.piece(name),) if SIDE in dict(piece.roles).values()]
    if len(held) != 1:
        what = f"the side seam of the {words(name)} is on {'more than one piece' if held else 'no piece'}"
        raise StepError(what, where=name, advice="Do this before the step that cuts or takes it away.")
    return held[0]


STEP = LetOut
