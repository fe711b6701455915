"""neck.opening: where the finished neck opens, so that the head goes through: a zip in the seam at the centre, or a slit."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.neckline import opened_down, upper_centre_length
from zesty_pivot.core.piece import Extra, Opening, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.strips import rectangle
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

LEAST = 20.0  # mm; a shorter opening opens nothing
LEFT = 10.0  # mm of the centre that stay below it

# A slit's facing goes 4 cm to either side of it and 3 cm below. Common practice, no source.
FACING_SIDE, FACING_BELOW = 40.0, 30.0


class NeckOpening(Step):
    """A zip makes the centre a seam; a slit stays on the fold and gets a facing, a button and a loop."""

    title: ClassVar[str] = "Neck opening"
    summary: ClassVar[str] = "Open the neck so that the head goes through: a zip at the centre, or a slit with button and loop."
    half_by_half: ClassVar[bool] = True

    do: Literal["neck.opening"] = "neck.opening"
    on: str = Field(default="back", description="the piece whose centre opens", min_length=1)
    kind: Literal["zip", "slit"] = Field(default="zip", description="a zip in a seam, or a slit")
    length: Length = Field(default="18 cm", description="down from the neckline")

    def words(self) -> str:
        """`zip at the back, 18 cm`."""
        return f"{self.kind} at the {words(self.on)}, {self.length}"

    def _centre(self, pattern: Pattern, context: Context) -> tuple[Piece, float]:
        """The piece and the length. Raises StepError or PlaceError."""
        names = [piece.name for piece in pattern.come_from(self.on) if "centre" in {role for _e, role in piece.roles}]
        piece = pattern.piece(self.on if pattern.has(self.on) or not names else names[0])
        if piece.is_unfolded or {"neckline", "centre"} - {role for _edge, role in piece.roles}:
            raise StepError(
                "the piece has no neckline that meets a centre", where=self.on, advice="Choose the front or the back."
            )
        unit, length = context.scope.unit, length_mm(self.length, context.scope)
        most = upper_centre_length(piece) - LEFT
        if not LEAST <= length <= most:
            what = f"an opening cannot be {format_length(length, unit)}"
            advice = f"Enter {format_length(LEAST, unit)} to {format_length(most, unit)}."
            raise StepError(what, where=piece.name, advice=advice)
        if any(opening.piece == piece.name for opening in pattern.openings):
            raise StepError(
                f"the {words(piece.name)} already has an opening", where=piece.name, advice="Leave one of the two out."
            )
        return piece, length

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the opening. Raises StepError, PlaceError or FormulaError when it cannot be."""
        piece, length = self._centre(pattern, context)
        unit = context.scope.unit
        made = opened_down(piece, self.kind, length)
        opening = Opening(piece.name, self.kind, length)
        pattern = replace(pattern, openings=(*pattern.openings, opening))
        told = format_length(length, unit)
        if self.kind == "zip":
            made = replace(made, fold=None)
            note = Note(f"{centre_words(self.on)} is a seam now, cut as a pair; the zip is {told} long", piece.name, length)
            return Outcome(pattern.with_piece(made), (note,))
        facing = rectangle(f"{piece.name}_slit_facing", length + FACING_BELOW, 2.0 * FACING_SIDE)
        extra = Extra(facing, "facing", (piece.name,), cut="one")
        note = Note(f"slit {told} down {centre_words(self.on)}, faced, with a button and a loop", piece.name, length)
        return Outcome(replace(pattern.with_piece(made), extras=(*pattern.extras, extra)), (note,))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark its end; the same in both ways."""
        piece, length = self._centre(pattern, context)
        text = "On the {on}, mark {length} below the neckline on the {centre}: the {kind} ends there."
        if self.kind == "zip":
            text += " Add the zip's allowance along the {centre} and cut a pair."
        else:
            text += " Cut a facing {wide} wide and {long} long for it."
        unit = context.scope.unit
        figures = {"length": length, "wide": 2.0 * FACING_SIDE, "long": length + FACING_BELOW}
        shown = {key: format_length(mm, unit) for key, mm in figures.items()}
        return (line("opening", text, on=words(piece.name), centre=centre_words(self.on), kind=self.kind, **shown),)


STEP = NeckOpening
