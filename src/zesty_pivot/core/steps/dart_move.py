"""dart.move: a dart, or a share of it, goes to another place round its pivot."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.procedures.hand_dart_moves import marks_of_move, move_by_hand
from zesty_pivot.core.quantity import length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, NamesDart, Share
from zesty_pivot.core.steps.base import Step


class MoveDart(Step):
    """Swings a share of a dart to another place; a dart that is there already takes it in."""

    title: ClassVar[str] = "Move a dart"
    summary: ClassVar[str] = "Close a dart, or a share of it, and open it at another place round its pivot."

    do: Literal["dart.move"] = "dart.move"
    dart: Annotated[str, NamesDart()] = Field(description="the dart to close", min_length=1)
    to: Spot = Field(description="where it opens")
    share: Share = Field(default="100%", description="how much of the dart's angle goes")
    mouth: Length | None = Field(default=None, description="or: how wide the new mouth becomes")
    stays: Length | None = Field(default=None, description="or: how much of the old mouth stays open, as for ease")
    as_: str | None = Field(
        default=None, alias="as", max_length=60, pattern=r"^[^*]", description="id of the new dart when a share goes"
    )

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        given = [what for what in ("mouth", "stays") if getattr(self, what) is not None]
        if "share" in self.model_fields_set and self.share != "100%":
            given.append("share")
        if len(given) > 1:
            raise ValueError("give either a share, a mouth, or what stays, not two of them")
        return self

    def words(self) -> str:
        """`50% of the waist dart to mid armhole`."""
        if self.mouth is not None:
            return f"{words(self.dart)} dart to {self.to.words()}, mouth {self.mouth}"
        if self.stays is not None:
            return f"{words(self.dart)} dart to {self.to.words()} but for {self.stays}"
        share = "" if share_of(self.share) == 1.0 else f"{round(100.0 * share_of(self.share), 1):g}% of the "
        return f"{share}{words(self.dart)} dart to {self.to.words()}"

    def _move(self, context: Context) -> DartMove:
        mouth = None if self.mouth is None else length_mm(self.mouth, context.scope)
        stays = None if self.stays is None else length_mm(self.stays, context.scope)
        return DartMove(self.on, self.dart, self.to, share_of(self.share), mouth, self.as_, stays)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the dart moved. Raises StepError, PlaceError or GeometryError when it cannot be."""
        return move_dart(self._move(context), pattern, context)

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The mark for a place that the block decides."""
        return marks_of_move(self._move(context), pattern, context)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark the place, swing (or cut and close), read the new mouth off as a check."""
        return move_by_hand(self._move(context), pattern, context, way)


STEP = MoveDart
