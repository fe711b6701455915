"""dart.split: one dart to several places, by shares, by mouths, the rest, or with equal mouths."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Piece, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, spot_words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import DartMove, Legs, goal, legs_at, mouth_angle
from zesty_pivot.core.procedures.dart_shares import chain, equal_mouths
from zesty_pivot.core.quantity import length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Model, NamesDart, Share
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.dart_chain import DartChain

MOST_PARTS = 8


class DartPart(Model):
    """One place of a split: a share of the dart, the mouth it is to have, or, with neither, the rest."""

    to: Spot
    share: Share | None = Field(default=None, description="how much of the whole dart goes there")
    mouth: Length | None = Field(default=None, description="or: how wide the mouth becomes there")

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        if self.share is not None and self.mouth is not None:
            raise ValueError("give either a share or a mouth, not both")
        return self

    @property
    def is_rest(self) -> bool:
        """Whether it takes what the others leave."""
        return self.share is None and self.mouth is None

    def words(self) -> str:
        """`40% to mid armhole`."""
        if self.mouth is not None:
            return f"mouth {self.mouth} at {self.to.words()}"
        return f"{'rest' if self.share is None else self.share} to {self.to.words()}"


class SplitDart(DartChain):
    """Shares a dart out; what no part takes stays where it is."""

    title: ClassVar[str] = "Split a dart"
    summary: ClassVar[str] = "Open one dart at several places: by shares, by mouths, the rest, or with equal mouths."

    do: Literal["dart.split"] = "dart.split"
    dart: Annotated[str, NamesDart()] = Field(description="the dart to split", min_length=1)
    parts: tuple[DartPart, ...] = Field(description="where it opens, and how much there", min_length=1, max_length=MOST_PARTS)
    equal: bool = Field(default=False, description="all mouths equally wide; the parts then have no amounts")

    @model_validator(mode="after")
    def _amounts(self) -> Self:
        if self.equal and not all(part.is_rest for part in self.parts):
            raise ValueError("with equal mouths the parts have no amounts")
        if not self.equal and sum(part.is_rest for part in self.parts) > 1:
            raise ValueError("only one part can take the rest; give the others a share or a mouth")
        return self

    def words(self) -> str:
        """`waist dart: 40% to mid armhole, rest to French dart position`."""
        if self.equal:
            return f"{words(self.dart)} dart, equal mouths: {', '.join(part.to.words() for part in self.parts)}"
        return f"{words(self.dart)} dart: {', '.join(part.words() for part in self.parts)}"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """A move for each part. Raises StepError when the parts take more than there is."""
        piece = pattern.piece(self.on)
        dart = piece.dart(self.dart)
        held = piece.angle(self.dart)
        goals = [goal(part.to, piece, dart.pivot, context) for part in self.parts]
        legs = [legs_at(piece, dart.pivot, place, target) for place, target in goals]
        # Where the dart itself is, all of it is there to be given out: nothing counts as open.
        legs = [
            replace(each, there=0.0) if target == self.dart else each
            for each, (_place, target) in zip(legs, goals, strict=True)
        ]
        if self.equal:
            angles = equal_mouths(self.on, held, legs)
        else:
            angles = [self._angle(part, piece, leg, context) for part, leg in zip(self.parts, legs, strict=True)]
            given = sum(angles)
            if given > held * (1.0 + 1e-12):
                raise StepError(
                    f"the parts take {100.0 * given / held:.0f}% of the {dart_words(piece, self.dart)} dart",
                    where=self.on, advice="Together they may take up to 100%.",
                )  # fmt: skip
            rest = max(0.0, held - given)
            angles = [rest if part.is_rest else angle for part, angle in zip(self.parts, angles, strict=True)]
        # What goes to where the dart is stays, and need not be moved.
        shared = zip(self.parts, angles, goals, strict=True)
        goes = [(part.to, angle) for part, angle, (_place, target) in shared if target != self.dart]
        return chain(self.on, self.dart, held, goes)

    def _angle(self, part: DartPart, piece: Piece, leg: Legs, context: Context) -> float:
        """The angle (radians) a part asks for; nothing for the rest."""
        held = piece.angle(self.dart)
        if part.share is not None:
            return held * share_of(part.share)
        if part.mouth is None:
            return 0.0
        mouth = length_mm(part.mouth, context.scope)
        return mouth_angle(
            self.on, dart_words(piece, self.dart), spot_words(part.to, piece), mouth, held, leg, context.scope.unit
        )


STEP = SplitDart
