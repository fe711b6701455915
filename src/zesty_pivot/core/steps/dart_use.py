"""dart.use: what a dart's fullness is used as: gathers, tucks, soft pleats, ease, flare, or a sewn dart again."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance, open_up
from zesty_pivot.core.piece import Dart, Hold, Pattern, Piece, Shape, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_darts
from zesty_pivot.core.procedures.dart_shares import MOST, fanned, grouped, main_of, together
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.hand_dart_moves import beside
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, NamesDart
from zesty_pivot.core.steps.dart_chain import DartChain

As = Literal["dart", "gathers", "tucks", "pleats", "ease", "flare"]
Cloth = Literal["firm", "medium", "soft"]

USES: dict[As, Use] = {
    "dart": Use.DART, "gathers": Use.GATHERS, "tucks": Use.TUCK, "pleats": Use.PLEAT, "ease": Use.EASE, "flare": Use.FLARE,
}  # fmt: skip

# How much of a seam a cloth takes as ease without a pucker. Common practice, no source.
EASE_LIMIT: dict[Cloth, float] = {"firm": 0.03, "medium": 0.06, "soft": 0.10}

# Gathers and ease reach this far (mm) to either side of the mouth when nothing is said. Common practice, no source.
_REACH = 50.0


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
        piece = pattern.piece(self.on)
        main, found = main_of(piece, self.dart), list(together(piece, self.dart))
        if self.as_ in ("tucks", "pleats") and self.count > 1:
            piece = move_darts(found, pattern, context).pattern.piece(self.on)
            found += fanned(piece, main, self.count, length_mm(self.spacing, context.scope), context)
        return tuple(found)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the use changed. Raises StepError, in one sentence with what would work, for what cannot be."""
        main = main_of(pattern.piece(self.on), self.dart)
        moves = self.moves(pattern, context)
        outcome = move_darts(moves, pattern, context)
        piece = outcome.pattern.piece(self.on)
        made = [move for move in moves if move.made is not None]
        members = [main, *(move.made or "" for move in made)]
        if made:
            piece = grouped(piece, main, made)
        hold = self._hold(piece, main, members, context)

        def used(each: Dart) -> Dart:
            if each.id not in members:
                return each
            group = each.group if len(members) > 1 else ""
            return replace(each, use=USES[self.as_], hold=hold, group=group, shape=Shape())

        piece = replace(piece, darts=tuple(used(each) for each in piece.darts))
        return Outcome(outcome.pattern.with_piece(piece), (*outcome.notes, *self._notes(piece, members, context)))

    def _hold(self, piece: Piece, main: str, members: list[str], context: Context) -> Hold:
        if self.as_ in ("gathers", "ease"):
            before, after = self._stretch(piece, main, context)
            raised = length_mm(self.raised, context.scope) if self.as_ == "gathers" else 0.0
            if raised < 0.0:
                raise StepError("a gathered edge can only be raised", where=self.on, advice="Enter 0 or more.")
            self._refuse_other_mouths(piece, main, before, after)
            return Hold(before, after, raised)
        if self.as_ == "pleats" and self.count > 1:
            self._refuse_deep(piece, members, context)
        if self.as_ == "tucks":
            stitched = length_mm(self.stitched, context.scope)
            if stitched <= 0.0:
                raise StepError(
                    "a tuck must be stitched over more than 0", where=self.on, advice="Enter a length such as 6 cm."
                )
            if self.count > 1:
                self._refuse_deep(piece, members, context)
            shortest = min(min(piece.legs(id)) for id in members)
            if stitched > shortest:
                long, unit = format_length(shortest, context.scope.unit), context.scope.unit
                what = f"tucks of {format_length(stitched, unit)} are longer than the way to the pivot"
                raise StepError(what, where=self.on, advice=f"Stitch up to {long}.")
            return Hold(stitched_mm=stitched)
        return Hold()

    def _refuse_deep(self, piece: Piece, members: list[str], context: Context) -> None:
        """A pleat or tuck lies over its neighbour when it is deeper than the spacing."""
        deep, spacing = max(piece.intake(id) for id in members) / 2.0, length_mm(self.spacing, context.scope)
        if deep > spacing:
            unit = context.scope.unit
            apart = format_length(spacing, unit)
            what = f"{self.as_} {format_length(deep, unit)} deep overlap at a spacing of {apart}"
            least = format_length(deep + 0.5, unit)
            raise StepError(what, where=self.on, advice=f"Space them {least} or more, or make more of them.")

    def _stretch(self, piece: Piece, main: str, context: Context) -> tuple[float, float]:
        """How far (mm) to either side of the mouth the seam is gathered or eased along with it."""
        unit, taken = context.scope.unit, piece.intake(main)
        at, total = mouth_distance(piece, main), piece.edge(home_edge(piece, main)).sewn_length
        if self.over is not None:
            over = length_mm(self.over, context.scope)
        elif self.ratio is not None:
            over = taken / (self.ratio - 1.0)
        else:
            over = min(2.0 * _REACH, total)
        if over <= 0.0:
            raise StepError("the stretch must be longer than 0", where=self.on, advice="Enter a length such as 8 cm.")
        if over > total:
            what = f"a stretch of {format_length(over, unit)} is longer than the {words(home_edge(piece, main))}"
            least = f" (a ratio of {1.0 + taken / total:.2f} or more)" if self.ratio is not None else ""
            raise StepError(what, where=self.on, advice=f"Up to {format_length(total, unit)}{least}.")
        if self.as_ == "ease":
            self._refuse_ease(taken, over, total, context)
        start = min(max(at - over / 2.0, 0.0), total - over)
        return at - start, start + over - at

    def _refuse_ease(self, taken: float, over: float, total: float, context: Context) -> None:
        limit, unit = EASE_LIMIT[self.cloth], context.scope.unit
        if taken > limit * over:
            most = format_length(limit * over, unit, fine=True)
            asked = f"{format_length(taken, unit, fine=True)} of ease over {format_length(over, unit)}"
            what = f"{asked} is {100 * taken / over:.0f}%, and {self.cloth} cloth takes {100 * limit:.0f}%"
            wider = f"ease it over {format_length(taken / limit, unit)}, or " if taken / limit <= total else ""
            raise StepError(what, where=self.on, advice=f"Leave up to {most} here: {wider}move the rest elsewhere first.")

    def _refuse_other_mouths(self, piece: Piece, main: str, before: float, after: float) -> None:
        edge, at = home_edge(piece, main), mouth_distance(piece, main)
        for other in piece.darts:
            if other.id == main or home_edge(piece, other.id) != edge:
                continue
            there = mouth_distance(piece, other.id)
            if at - before < there < at + after:
                what = f"the {words(other.id)} dart opens in the stretch that would be taken up"
                raise StepError(what, where=self.on, advice="Move one of the two aside, or make the stretch shorter.")

    def _notes(self, piece: Piece, members: list[str], context: Context) -> tuple[Note, ...]:
        unit = context.scope.unit
        if self.as_ in ("gathers", "ease"):
            opened = next(found for found in open_up(piece)[1] if found.dart.id in members)
            long, short = format_length(opened.open_mm, unit), format_length(opened.sewn_mm, unit)
            verb = "gather" if self.as_ == "gathers" else "ease"
            text = f"{verb} {long} of the {words(opened.edge)} to {short}, {opened.open_mm / opened.sewn_mm:.2f} to 1"
            return (Note(text, self.on, opened.taken_mm),)
        if self.as_ == "flare":
            wide = next(found for found in open_up(piece)[1] if found.dart.id in members).open_mm
            text = f"the {words(home_edge(piece, members[0]))} becomes {format_length(wide, unit)} wider and stays open"
            return (Note(text, self.on, wide),)
        if self.as_ in ("tucks", "pleats"):
            wide = piece.intake(members[0])
            return (Note(f"each takes {format_length(wide, unit, fine=True)} of the seam", self.on, wide),)
        return ()

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
