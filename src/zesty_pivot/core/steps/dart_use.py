"""dart.use: what a dart's fullness is used as: gathers, tucks, soft pleats, ease, flare, or a sewn dart again."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.moves.open_up import home_edge, open_up
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove
from zesty_pivot.core.procedures.dart_shares import MOST, main_of
from zesty_pivot.core.procedures.dart_uses import As, Cloth, UseAsked, moves_to_use, use_dart
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.hand_dart_moves import beside
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, NamesDart
from zesty_pivot.core.steps.dart_chain import DartChain


class UseDart(DartChain):
    """Gives a dart another use. The fullness stays in the account, under that use."""

    title: ClassVar[str] = "Use a dart as"
    summary: ClassVar[str] = "Gather, tuck, pleat, ease or flare a dart's fullness, or sew it as a dart again."

    do: Literal["dart.use"] = "dart.use"
    dart: Annotated[str, NamesDart()] = Field(description="the dart, or any of the tucks or pleats made of it", min_length=1)
    as_: As = Field(alias="as", description="what its fullness is used as")
    count: int = Field(default=2, description="how many tucks or pleats", ge=1, le=MOST)
    spacing: Length = Field(default="3 cm", description="between tucks or pleats, along the sewn seam")
    stitched: Length = Field(default="6 cm", description="how far a tuck is stitched from the seam")
    over: Length | None = Field(default=None, description="length of sewn seam that is gathered or eased")
    ratio: float | None = Field(default=None, description="or: how many times its finished length the stretch has", gt=1.0)
    raised: Length = Field(default="5 mm", description="how far a gathered edge is raised in its middle")
    cloth: Cloth = Field(default="medium", description="how much ease the cloth takes: firm 3%, medium 6%, soft 10%")

    @model_validator(mode="after")
    def _one_stretch(self) -> Self:
        if self.over is not None and self.ratio is not None:
            raise ValueError("give either the stretch or the ratio, not both")
        return self

    def words(self) -> str:
        """`shoulder dart as 3 tucks`."""
        many = {"tucks": "tuck", "pleats": "soft pleat"}
        if self.as_ in many:
            return f"{words(self.dart)} dart as {self.count} {many[self.as_]}{'s' if self.count > 1 else ''}"
        return f"{words(self.dart)} dart {'sewn as a dart' if self.as_ == 'dart' else f'as {self.as_}'}"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """Tucks and pleats made of it before become one, then as many as are asked. Raises StepError for no room."""
        return moves_to_use(self._asked(context), pattern, context)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the use changed. Raises StepError, in one sentence with what would work, for what cannot be."""
        return use_dart(self._asked(context), pattern, context)

    def _asked(self, context: Context) -> UseAsked:
        def mm(value: str | float | None) -> float:
            return 0.0 if value is None else length_mm(value, context.scope)

        over = None if self.over is None else mm(self.over)
        return UseAsked(self.on, self.dart, self.as_, self.count, mm(self.spacing), mm(self.stitched), over, self.ratio,
                        mm(self.raised), self.cloth)  # fmt: skip

    def place_by_hand(self, piece: Piece, move: DartMove, context: Context) -> Line | None:
        """Counted from the dart's own mouth."""
        return beside(piece, move, context)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """The moves, then how the mouth is marked and its edge drawn."""
        found = super().by_hand(pattern, context, way)
        piece, unit = self.apply(pattern, context).pattern.piece(self.on), context.scope.unit
        main = main_of(pattern.piece(self.on), self.dart)
        names = {"dart": words(main), "edge": words(home_edge(piece, main))}
        if self.as_ in ("gathers", "ease"):
            opened = next(found for found in open_up(piece)[1] if found.dart.id == main)
            hold = opened.dart.hold
            text = (
                "Notch the {edge} {before} before the {dart} dart and {after} after it. Tape paper behind the mouth and draw "
                "the {edge} across it in a curve" + (", {raised} higher in the middle" if hold.raised_mm else "")
                + ". Write “" + ("gather" if self.as_ == "gathers" else "ease") + " {open} to {sewn}”."
            )  # fmt: skip
            figures = {"before": hold.before_mm, "after": hold.after_mm, "raised": hold.raised_mm, "open": opened.open_mm,
                       "sewn": opened.sewn_mm}  # fmt: skip
            return (*found, line("mark_use", text, **names, **{k: format_length(mm, unit) for k, mm in figures.items()}))
        if self.as_ == "flare":
            text = "Tape paper behind the mouth of the {dart} dart and draw the {edge} across it. It stays open."
        elif self.as_ == "dart":
            text = "The {dart} dart is sewn: draw its legs from the mouth to the pin."
        else:
            text = (
                "Mark the legs of each " + ("tuck for {stitched}" if self.as_ == "tucks" else "pleat")
                + " and an arrow the way it lies. Fold it, trace the {edge} through, and unfold."
            )  # fmt: skip
        stitched = format_length(length_mm(self.stitched, context.scope), unit)
        return (*found, line("mark_use", text, **names, stitched=stitched))


STEP = UseDart
