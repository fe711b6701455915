"""dart.fisheye: a dart inside a hip-length piece, with a point below the bust or blade and a point above the hip."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.piece import FishEye, Pattern, Piece, Side
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import fisheye_fault
from zesty_pivot.core.piece.sides import Sided
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step


class FishEyeDart(Step):
    """Draws a fish-eye dart on the waist line, upright, half of its intake to either side of its axis; one of the same name is
    drawn anew. With no intake it is taken away."""

    title: ClassVar[str] = "Fish-eye dart"
    summary: ClassVar[str] = "Take in the waist of a hip-length piece by a dart with two points, or change the one it has."

    do: Literal["dart.fisheye"] = "dart.fisheye"
    dart: str = Field(default="waist", description="the dart's name", min_length=1, max_length=60, pattern=r"^[^*]")
    below: str | None = Field(default=None, description="the point it stands under; the bust point or waist tip by itself")
    intake: Length = Field(default="1 in", description="what it takes in at the waist; 0 takes the dart away")
    axis: Length | None = Field(default=None, description="its axis from the centre; straight under its point when not given")
    side: Literal["left", "right"] | None = Field(
        default=None, description="of an unfolded piece, the side as worn that a new one is drawn on; the left when not given"
    )
    # 1 in below BP and 2 in above the hip line: common practice, no source.
    top: Length = Field(default="1 in", description="how far below its point it begins; negative above it")
    bottom: Length = Field(default="2 in", description="how far above the hip line it ends")
    bow: Length = Field(default=0, description="its legs bowed outwards by this at their middle; negative inwards")

    def words(self) -> str:
        """`fish-eye waist dart, 1 in`."""
        return f"fish-eye {words(self.dart)} dart, {self.intake}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the dart. Raises StepError or PlaceError where it cannot be."""
        piece = pattern.piece(self.on)
        old = next((eye for eye in piece.fisheyes if eye.id == self.dart), None)
        others = tuple(eye for eye in piece.fisheyes if eye.id != self.dart)
        intake = length_mm(self.intake, context.scope)
        if intake < 0.0:
            raise StepError("the intake of a fish-eye dart must be 0 or more", where=self.on, advice="Enter 0 or more.")
        if intake == 0.0:
            if old is None:
                raise StepError("there is no such fish-eye dart to take away", where=self.on, advice="Enter an intake.")
            made = replace(piece, fisheyes=others)
        else:
            side = self._side(piece)
            made = replace(piece, fisheyes=(*others, self._drawn(piece, intake, side, context)))
            if side is not None and self.dart not in piece.sides.known:
                made = replace(made, sides=piece.sides.joined({self.dart: Sided(self.dart, side)}))
            fault = fisheye_fault(made, made.fisheyes[-1])
            if fault is not None:
                what = f"the fish-eye {words(self.dart)} dart cannot be there: {fault}"
                raise StepError(what, where=self.on, advice="Take in less, or move its axis or its points.")
        change = intake - (old.intake if old is not None else 0.0)
        unit = context.scope.unit
        text = f"the waist of this half is {format_length(abs(change), unit)} {'narrower' if change >= 0.0 else 'wider'}"
        return Outcome(pattern.with_piece(made), (Note(text, self.on, abs(change)),))

    def _drawn(self, piece: Piece, intake: float, side: Side | None, context: Context) -> FishEye:
        """The dart on the piece as it was drafted: its waist and hip lines are level."""
        if piece.has_dart(self.dart):
            raise StepError(f"a dart is called {self.dart!r} already", where=self.on, advice="Choose another name.")
        if not piece.is_hip_length or not {"waist", "hip"} <= set(piece.levels):
            what = "a fish-eye dart needs a hip-length piece with a waist line and a hip line"
            raise StepError(what, where=self.on, advice="Use a waist dart on this block.")
        outwards = -1.0 if side is Side.RIGHT else 1.0
        pin = piece.pivot(self._point(piece, side))
        axis = float(pin[0]) if self.axis is None else outwards * length_mm(self.axis, context.scope)
        waist = piece.levels["waist"]
        top = float(pin[1]) + length_mm(self.top, context.scope)
        bottom = piece.levels["hip"] - length_mm(self.bottom, context.scope)
        if not top < waist < bottom:
            raise StepError(
                "its points do not lie above and below the waist", where=self.on, advice="Begin higher, or end lower."
            )
        half = intake / 2.0
        bow = length_mm(self.bow, context.scope)
        return FishEye(self.dart, (axis, top), (axis + half, waist), (axis, bottom), (axis - half, waist), bow)

    def _side(self, piece: Piece) -> Side | None:
        """The side of an unfolded piece that it is on: where a dart of this name is, else the one asked for."""
        if not piece.is_unfolded:
            return None
        return piece.sides.of(self.dart) or Side(self.side or "left")

    def _point(self, piece: Piece, side: Side | None) -> str:
        """The point it stands under: the one asked for, else the waist's own pivot, else the bust point."""
        if self.below is not None:
            piece.pivot(self.below)  # refused with the near name
            return self.below
        for name in (piece.sides.id(name, side) for name in ("waist_tip", "bust_point", "blade_point")):
            if name in piece.landmarks:
                return name
        raise PlaceError(
            "the piece has no point for the dart to stand under", where=self.on, advice="Name the point that it stands under."
        )

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure, mark and draw; the same in both ways."""
        made = self.apply(pattern, context).pattern.piece(self.on)
        unit = context.scope.unit
        eye = next((found for found in made.fisheyes if found.id == self.dart), None)
        names = {"on": words(self.on), "dart": words(self.dart), "centre": centre_words(self.on)}
        if eye is None:
            return (line("rub_out", "On the {on}, rub out the fish-eye {dart} dart.", **names),)
        top, right, bottom, left = eye.corners
        text = (
            "On the {on}, draw a line square to the waist line, {axis} from the {centre}. On the waist line mark {half} to "
            "either side of it; on the line mark the point {above} above the waist and the point {below} under it. Draw the "
            "four legs from the marks at the waist to the points."
        )
        figures = {
            "axis": abs(float(top[0])), "half": eye.intake / 2.0,
            "above": float(left[1] - top[1]), "below": float(bottom[1] - right[1]),
        }  # fmt: skip
        found = [line("fisheye", text, **names, **{key: format_length(mm, unit) for key, mm in figures.items()})]
        if eye.bow_mm != 0.0:
            text = "Bow each leg {way} by {bow} at its middle, in a smooth curve."
            bow = format_length(abs(eye.bow_mm), unit)
            found.append(line("bow_legs", text, way="outwards" if eye.bow_mm > 0.0 else "inwards", bow=bow))
        return tuple(found)


STEP = FishEyeDart
