"""dart.merge: several darts round one pivot become one."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import DartMove, goal
from zesty_pivot.core.procedures.dart_shares import one_pivot
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.procedures.hand_dart_moves import in_one_trace
from zesty_pivot.core.steps.dart_chain import SeveralDarts


class MergeDarts(SeveralDarts):
    """Moves every named dart to one place. The dart that opens there keeps its id, else the first named."""

    title: ClassVar[str] = "Merge darts"
    summary: ClassVar[str] = "Make one dart of several round the same pivot, in place of the first or elsewhere."

    do: Literal["dart.merge"] = "dart.merge"
    to: Spot | None = Field(default=None, description="where the one dart opens; where the first is when not given")

    def words(self) -> str:
        """`shoulder and waist darts to mid armhole`."""
        names = [words(dart) for dart in self.darts]
        place = self.to.words() if self.to is not None else f"the {names[0]} dart"
        return f"{', '.join(names[:-1])} and {names[-1]} darts to {place}"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """The first dart to the place, then the others into it. Raises StepError for darts of different pivots."""
        piece = pattern.piece(self.on)
        pivot = one_pivot(piece, self.darts, "They cannot merge through one point.")
        found: list[DartMove] = []
        keeper = self.darts[0]
        if self.to is not None:
            _place, target = goal(self.to, piece, pivot, context)
            if target is None:
                found.append(DartMove(self.on, keeper, self.to))
            else:
                keeper = target
        into = Spot(dart=keeper)
        return (*found, *(DartMove(self.on, dart, into) for dart in self.darts if dart != keeper))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """All darts into the one mouth in one continuous trace, or by one slash."""
        return in_one_trace(self.each_by_hand(pattern, context, way), way)


STEP = MergeDarts
