"""drape.cowl: a neck edge that hangs in folds between the shoulders."""

import math
from typing import ClassVar, Literal, Self

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Side
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.cowl_finish import faced, on_grain, pleated_shoulder, shoulder_stay, widened
from zesty_pivot.core.procedures.cowls import DrawnCowl, Worn, drawn_cowl, feeding, hangs, worn_at, worn_half
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.hanging import sag
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import FrontAndBackStep

Level = Literal["high", "mid", "low", "bust"]

# Of the way from the pit of the neck to the bust line. Common practice, no source.
DOWN: dict[str, float] = {"high": 0.0, "mid": 0.5, "low": 0.75, "bust": 1.0}
LEAST_SAG = 5.0  # mm: less is no cowl


class Cowl(FrontAndBackStep):
    """Its edge is straight and square to the centre, so long that it hangs as deep as asked: sqrt(depth^2 + opening^2) a half.
    What the darts give goes into it first, then the part above a slash to the armhole is swung."""

    title: ClassVar[str] = "Cowl"
    summary: ClassVar[str] = "A neck edge that hangs in folds, by their depth and number; its facing cut in one, on the bias."
    half_by_half: ClassVar[bool] = True

    do: Literal["drape.cowl"] = "drape.cowl"
    level: Level = Field(default="mid", description="how deep it hangs: to the pit of the neck, half way to the bust line ...")
    depth: Length | None = Field(default=None, description="or: how far it hangs below the shoulder point")
    edge: Length | None = Field(default=None, description="or: how long half its edge is")
    spread: Length | None = Field(default=None, description="or: how far the slash opens at the centre, all darts fed in")
    widen: Length = Field(default="2 cm", description="how far out from the neck point it begins on the shoulder")
    folds: int = Field(default=2, ge=1, le=6, description="how many folds, the edge one of them")
    pleat: Length | None = Field(
        default=None, description="depth of the shoulder pleat that holds each further fold: 1.5 cm when none; 0 for soft folds"
    )
    darts: Literal["all", "upper", "none"] = Field(default="all", description="which darts may go into it")
    grain: Literal["bias", "straight"] = Field(default="bias", description="at 45 degrees, or along the fold")
    facing: Length = Field(default="8 cm", description="depth of the facing cut in one, at the centre; 0 for none")
    facing_end: Length | None = Field(default=None, description="and along the shoulder; 4 cm when none")
    stay: bool = Field(default=True, description="a stay for the shoulder seam, which stretches on the bias")

    def words(self) -> str:
        """`mid cowl, 2 folds`."""
        kind = f"{self.level} cowl" if (self.depth or self.edge or self.spread) is None else "cowl"
        return f"{'back ' if self.on == 'back' else ''}{kind}, {self.folds} fold{'s' if self.folds > 1 else ''}"

    def for_side(self, side: Side, half: Pattern, context: Context) -> Self:
        """With soft folds: shoulder pleats go over the centre, where both sides are put together."""
        return self.model_copy(update={"pleat": 0.0}) if self.pleat is None else self

    def _long(self, half: BodiceHalf, worn: Worn, context: Context) -> float | None:
        """Half the edge, mm; None where the slash decides."""
        if self.spread is not None:
            return None
        unit = context.scope.unit
        if self.edge is not None:
            long = length_mm(self.edge, context.scope)
            if long**2 - worn.open_mm**2 < LEAST_SAG**2:
                what = f"half an edge of {format_length(long, unit)} does not hang"
                least = format_length(math.sqrt(worn.open_mm**2 + LEAST_SAG**2) + 1.0, unit)
                raise StepError(what, where=self.on, advice=f"Enter {least} or more: the opening is half of that wide already.")
            return long
        drafted = half.drafted
        pit = float(drafted.corner("centre_neck")[1])
        bust = drafted.levels.get("bust", drafted.levels.get("chest", pit + 100.0))
        deep = pit + (bust - pit) * DOWN[self.level] - worn.y
        if self.depth is not None:
            deep = length_mm(self.depth, context.scope)
        if deep < LEAST_SAG:
            what = f"a cowl that hangs {format_length(deep, unit)}"
            raise StepError(what, where=self.on, advice="Let it hang deeper, or choose another neckline.")
        return math.hypot(deep, worn.open_mm)

    def _drawn(self, pattern: Pattern, context: Context) -> tuple[BodiceHalf, Worn, DrawnCowl]:
        half = worn_half(pattern, self.on, context)
        piece = pattern.piece(self.on)
        worn = worn_at(half, length_mm(self.widen, context.scope), piece, context)
        long = self._long(half, worn, context)
        spread = None if self.spread is None else length_mm(self.spread, context.scope)
        darts = feeding(piece, half, worn, self.darts)
        return half, worn, drawn_cowl(pattern, self.on, worn, long, darts, context, spread)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the cowl. Raises StepError, with what works, for one that cannot be."""
        unit, widen = context.scope.unit, length_mm(self.widen, context.scope)
        half, worn, drawn = self._drawn(pattern, context)
        made, notes = drawn.pattern, list(drawn.notes)
        piece = made.piece(self.on)
        pleat = None if self.pleat is None else length_mm(self.pleat, context.scope)
        piece, anchors = pleated_shoulder(made, piece, self.folds, pleat, context)
        piece = replace(piece, hangs=hangs(half, piece, worn, drawn.long_mm, anchors))
        end = None if self.facing_end is None else length_mm(self.facing_end, context.scope)
        piece = faced(piece, length_mm(self.facing, context.scope), end, context)
        piece = on_grain(piece, self.grain)
        made = made.with_piece(piece)
        edge = piece.hangs[0]
        text = (
            f"half the edge is {format_length(edge.long_mm, unit)}, half the opening {format_length(edge.open_mm, unit)}: it "
            f"hangs {format_length(edge.sag, unit)}, as a chain {format_length(sag(edge), unit)}"
        )
        notes.insert(0, Note(text, self.on, edge.sag))
        if self.folds > 1 and not piece.fullness:
            notes.append(Note("the folds are soft: no shoulder pleats hold them", self.on))
        if self.other and widen > 0.0:
            made = widened(made, self.other, widen, context)
            notes.append(
                Note(f"the {words(self.other)} begins {format_length(widen, unit)} further out too", self.other, widen)
            )
        if self.stay and self.grain == "bias":
            made = shoulder_stay(made, self.on)
            notes.append(Note("the shoulder lies on the bias: a stay holds its length", self.on))
        return Outcome(made, tuple(notes))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Shut the darts into it, slash, swing, square across; the same in both ways."""
        unit = context.scope.unit
        _half, worn, drawn = self._drawn(pattern, context)
        figures = {
            "on": words(self.on), "centre": centre_words(self.on), "long": format_length(drawn.long_mm, unit),
            "open": format_length(worn.open_mm, unit), "widen": str(self.widen), "below": format_length(drawn.below_mm, unit),
        }  # fmt: skip
        lines = []
        if drawn.dart_angle > 0.0:
            text = "Shut {share} of the {dart} dart of the {on}: slash from its point level to the {centre}, and let that open."
            for dart, share in drawn.fed:
                said = "all" if share > 1.0 - 1e-9 else f"{100.0 * share:.0f} %"
                lines.append(line("cowl_dart", text, on=words(self.on), centre=figures["centre"], dart=dart, share=said))
        if drawn.slash_angle > 0.0:
            text = (
                "Slash from the {centre} to the middle of the armhole of the {on}, but not through it, and swing the part "
                "above outwards until the shoulder point is {long} from the {centre}."
            )
            lines.append(line("cowl_slash", text, on=words(self.on), centre=figures["centre"], long=figures["long"]))
        text = (
            "Draw the {centre} straight on up from {below} above its lower end. Mark the shoulder {widen} from the neck point "
            "and draw the edge from there straight and square to the {centre}: it is {long} long, over an opening of {open}."
        )
        lines.append(line("cowl_edge", text, **figures))
        return tuple(lines)


STEP = Cowl
