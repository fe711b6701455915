"""dart.fan: one dart becomes several beside each other on the same edge, radiating from the pivot or with parallel axes."""

import math
from typing import Annotated, ClassVar, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import between
from zesty_pivot.core.piece import Pattern, Piece, Shape
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_darts
from zesty_pivot.core.procedures.dart_shares import MOST, fanned, grouped
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.hand_dart_moves import beside
from zesty_pivot.core.quantity import length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, NamesDart, Share
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.dart_chain import DartChain

# Parallel darts run straight from the seam to this share of the way to the pivot, and from there to the pivot: the bend
# lies about where the sewn point is. Common practice, no source.
BEND_AT = 0.25

# Parallel axes further than this (radians) from the way to the pivot would bend sharply. Common practice, no source.
_MOST_BEND = math.radians(40.0)


class FanDart(DartChain):
    """Shares one dart out to places a spacing apart, centred where it opens now."""

    title: ClassVar[str] = "Divide into darts"
    summary: ClassVar[str] = "Open one dart as several beside each other: radiating or parallel, equal or not."

    do: Literal["dart.fan"] = "dart.fan"
    dart: Annotated[str, NamesDart()] = Field(description="the dart to share out", min_length=1)
    count: int = Field(default=3, description="how many darts", ge=2, le=MOST)
    spacing: Length = Field(default="2.5 cm", description="between the mouths, along the sewn seam")
    shares: tuple[Share, ...] | None = Field(default=None, description="how much each takes; equal mouths when not given")
    parallel: bool = Field(default=False, description="axes parallel to the middle one; else they radiate from the pivot")

    @model_validator(mode="after")
    def _all_of_it(self) -> Self:
        if self.shares is not None:
            if len(self.shares) != self.count:
                raise ValueError(f"{self.count} darts need {self.count} shares")
            total = sum(share_of(share) for share in self.shares)
            if abs(total - 1.0) > 1e-9 or min(share_of(share) for share in self.shares) <= 0.0:
                raise ValueError(f"the shares are {100 * total:g}% together; they must be 100% and each over 0%")
        return self

    def words(self) -> str:
        """`waist dart as 3 parallel darts`."""
        return f"{words(self.dart)} dart as {self.count} {'parallel ' if self.parallel else ''}darts"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """Each part in turn. Raises StepError where there is no room."""
        piece = pattern.piece(self.on)
        asked = None if self.shares is None else [share_of(share) for share in self.shares]
        return fanned(piece, piece.dart(self.dart).id, self.count, length_mm(self.spacing, context.scope), context, asked)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the darts. Raises StepError, PlaceError or GeometryError when one cannot be."""
        moves = self.moves(pattern, context)
        outcome = move_darts(moves, pattern, context)
        piece = grouped(outcome.pattern.piece(self.on), self.dart, moves)
        if self.parallel:
            piece = _parallel(piece, self.dart, self.on)
        return replace(outcome, pattern=outcome.pattern.with_piece(piece))

    def place_by_hand(self, piece: Piece, move: DartMove, context: Context) -> Line | None:
        """Counted from the dart's own mouth."""
        return beside(piece, move, context)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """The moves, and for parallel darts how their lines are bent."""
        found = super().by_hand(pattern, context, way)
        if not self.parallel:
            return found
        text = (
            "Redraw the legs of these darts: from the mouth parallel to the middle one for {share} of the way, from there to "
            "the pin; both legs alike."
        )
        return (*found, line("nothing", text, share=f"{100 * (1 - BEND_AT):.0f}%"))


def _parallel(piece: Piece, dart: str, where: str) -> Piece:
    """The family's outer lines bent parallel to the axis of its middle. Raises StepError where they would bend sharply."""
    family = piece.family(dart)
    pin = piece.pivot(family[0].pivot)
    axes = {member.id: np.mean(piece.mouth(member.id), axis=0) - pin for member in family}
    middle = np.mean([axis / np.hypot(*axis) for axis in axes.values()], axis=0)
    shapes: dict[str, Shape] = {}
    for id, axis in axes.items():
        turn = between(axis, middle)
        if abs(turn) > _MOST_BEND:
            raise StepError(
                "parallel darts this far apart would bend sharply", where=where, advice="Bring them nearer together."
            )
        bend = -(1.0 - BEND_AT) * float(np.hypot(*axis)) * math.tan(turn)
        shapes[id] = Shape(bend_mm=bend, bend_at=BEND_AT)
    return replace(piece, darts=tuple(replace(d, shape=shapes[d.id]) if d.id in shapes else d for d in piece.darts))


STEP = FanDart
