"""dart.park: darts are put away to a harmless place while other work is done, each remembering where it was."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.piece import Pattern, called
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.parking import home_mark, park
from zesty_pivot.core.quantity.fields import NamesDart
from zesty_pivot.core.steps.dart_chain import DartChain


class ParkDarts(DartChain):
    """Moves darts out of the way; dart.return brings them back to where they were on the cloth."""

    title: ClassVar[str] = "Park darts"
    summary: ClassVar[str] = "Put darts out of the way while a neckline or seam is drawn; each can be brought back."

    do: Literal["dart.park"] = "dart.park"
    darts: Annotated[tuple[str, ...], NamesDart()] = Field(description="the darts to put away", min_length=1, max_length=12)
    to: Spot = Field(default=Spot(station="side_waist"), description="where they are put away")

    @model_validator(mode="after")
    def _once(self) -> Self:
        if len(set(self.darts)) < len(self.darts):
            raise ValueError("a dart is named twice")
        return self

    def words(self) -> str:
        """`park the shoulder dart: side at the waist`."""
        names = " and ".join(words(dart) for dart in self.darts)
        return f"park the {names} dart{'s' if len(self.darts) > 1 else ''}: {self.to.words()}"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """Each dart to the place, whole."""
        piece = pattern.piece(self.on)
        return tuple(DartMove(self.on, piece.dart(dart).id, self.to) for dart in self.darts)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the darts away. Raises StepError for a dart that lies there already."""
        made = Outcome(pattern)
        for dart in self.darts:
            made = made.then(park(made.pattern, self.on, dart, self.to, context))
        return made

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """A mark where each dart is now, then the moves."""
        text = "On the {on}, mark “{mark}” at both ends of the mouth of the {dart} dart."
        on = words(self.on)
        piece = pattern.piece(self.on)
        names = [called(piece, dart) for dart in self.darts]
        marks = [line("mark_mouth", text, on=on, mark=home_mark(name), dart=words(name)) for name in names]
        return (*marks, *super().by_hand(pattern, context, way))


STEP = ParkDarts
