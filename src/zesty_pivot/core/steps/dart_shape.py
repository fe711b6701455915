"""dart.shape: the lines a dart is sewn along: legs bowed in or out, or a bend on the way to the pivot."""

import math
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Piece, Shape, Use, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, NamesDart, Share
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

# A bend sharper than this (radians) cannot be pressed. Common practice, no source.
_SHARPEST = math.radians(45.0)


class ShapeDart(Step):
    """Bows both legs alike, or bends the axis; the angle at the pivot, the mouth and the account stay."""

    title: ClassVar[str] = "Shape a dart"
    summary: ClassVar[str] = "Bow a dart's legs in or out, both alike, or bend it on its way to the pivot."

    do: Literal["dart.shape"] = "dart.shape"
    dart: Annotated[str, NamesDart()] = Field(description="the dart to shape", min_length=1)
    bow: Length = Field(default="0 mm", description="how far the middle of each leg bows outwards; inwards when negative")
    bend: Length = Field(default="0 mm", description="how far the axis bends aside, clockwise round the pivot when positive")
    at: Share = Field(default="40%", description="where it bends: share of the way from the pivot to the mouth")

    @model_validator(mode="after")
    def _inside(self) -> Self:
        if not 0.05 <= share_of(self.at) <= 0.95:
            raise ValueError("a dart bends between 5% and 95% of its way")
        return self

    def words(self) -> str:
        """`waist dart, legs bowed 3 mm`."""
        parts = []
        if self._is_given(self.bow):
            parts.append(f"legs bowed {self.bow}")
        if self._is_given(self.bend):
            parts.append(f"bent by {self.bend}")
        return f"{words(self.dart)} dart, {' and '.join(parts) or 'straight'}"

    @staticmethod
    def _is_given(value: str | float) -> bool:
        return str(value).strip() not in ("0", "0 mm", "0.0", "0 cm", "0 in")

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the dart shaped. Raises StepError when the legs would cross or bend sharply."""
        piece = pattern.piece(self.on)
        shape = self._shape(piece, context)
        darts = tuple(replace(dart, shape=shape) if dart.id == self.dart else dart for dart in piece.darts)
        notes = []
        if shape.bow_mm:
            said = "more" if shape.bow_mm > 0.0 else "less"
            wide = format_length(2.0 * abs(shape.bow_mm), context.scope.unit, fine=True)
            notes.append(Note(f"the dart takes in {wide} {said} half way; the mouth stays", self.on, 2.0 * abs(shape.bow_mm)))
        return Outcome(pattern.with_piece(replace(piece, darts=darts)), tuple(notes))

    def _shape(self, piece: Piece, context: Context) -> Shape:
        bow, bend = length_mm(self.bow, context.scope), length_mm(self.bend, context.scope)
        dart, unit = piece.dart(self.dart), context.scope.unit
        if dart.use is not Use.DART:
            what = f"the {dart_words(piece, dart.id)} dart is used as {dart.use.value}"
            raise StepError(what, where=self.on, advice="Only a sewn dart can be shaped; sew it as a dart again first.")
        if bow and bend:
            raise StepError("legs are bowed or the dart is bent, not both", where=self.on, advice="Leave one of them at 0.")
        intake, leg = piece.intake(dart.id), min(piece.legs(dart.id))
        if bow < -0.24 * intake or bow > 0.25 * leg:
            least, most = format_length(0.24 * intake, unit, fine=True), format_length(0.25 * leg, unit, fine=True)
            asked = f"legs bowed by {format_length(abs(bow), unit, fine=True)}"
            what = f"{asked} inwards would cross" if bow < 0.0 else f"{asked} leaves no dart to press"
            raise StepError(what, where=self.on, advice=f"Between {least} inwards and {most} outwards.")
        at = share_of(self.at)
        if abs(bend) > leg * min(at, 1.0 - at) * math.tan(_SHARPEST):
            most = format_length(leg * min(at, 1.0 - at) * math.tan(_SHARPEST), unit, fine=True)
            raise StepError(f"a bend of {format_length(bend, unit)} there is too sharp", where=self.on, advice=f"Up to {most}.")
        return Shape(bow, bend, at)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """How the legs are drawn; the same in both ways."""
        piece = pattern.piece(self.on)
        shape, unit = self._shape(piece, context), context.scope.unit
        names = {"dart": dart_words(piece, self.dart), "pin": words(piece.dart(self.dart).pivot)}
        if shape.bow_mm:
            side = "outwards" if shape.bow_mm > 0.0 else "inwards"
            text = "Half way along each leg of the {dart} dart mark {bow} {side}; draw both legs as curves through the marks."
            bow = format_length(abs(shape.bow_mm), unit)
            return (line("mark_use", text, **names, bow=bow, side=side),)
        if shape.bend_mm:
            side = "clockwise" if shape.bend_mm > 0.0 else "anticlockwise"
            text = (
                "On the axis of the {dart} dart, {away} from the {pin}, mark {bend} {side} aside. Swing that mark to either "
                "leg, and draw each leg from the mouth to its mark and on to the pin."
            )
            away = format_length(shape.bend_at * min(piece.legs(self.dart)), unit)
            bend = format_length(abs(shape.bend_mm), unit)
            return (line("mark_use", text, **names, bend=bend, side=side, away=away),)
        return (line("mark_use", "Draw the legs of the {dart} dart straight from the mouth to the {pin}.", **names),)


STEP = ShapeDart
