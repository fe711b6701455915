"""dart.return: parked darts come back to where they were on the cloth."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove
from zesty_pivot.core.procedures.hand import Line, line
from zesty_pivot.core.procedures.parking import bring_home, home_mark, moves_home
from zesty_pivot.core.quantity.fields import NamesDart
from zesty_pivot.core.steps.dart_chain import DartChain


class ReturnDarts(DartChain):
    """Moves every parked dart back, with the use that it had."""

    title: ClassVar[str] = "Bring darts back"
    summary: ClassVar[str] = "Take parked darts back to the place on the cloth that they came from."

    do: Literal["dart.return"] = "dart.return"
    darts: Annotated[tuple[str, ...], NamesDart()] = Field(
        default=(), description="the parked darts to bring back; all when not given", max_length=12
    )

    def words(self) -> str:
        """`bring the shoulder dart back`."""
        names = " and ".join(words(dart) for dart in self.darts)
        return f"bring the {names} dart{'s' if len(self.darts) > 1 else ''} back" if names else "bring the parked darts back"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """Each entry's angle to its place. Raises StepError when nothing is parked or something of it has gone."""
        return moves_home(pattern.piece(self.on), self.darts)

    def place_by_hand(self, piece: Piece, move: DartMove, context: Context) -> Line | None:
        """The mark that was made when the dart was parked."""
        known = {entry.id: entry.called for host in piece.darts for entry in host.parked}
        mark = home_mark(known.get(move.made or move.dart) or next(iter(known.values()), move.dart))
        return line("at_mark", "On the {on}: the place is your mark “{mark}”.", on=words(self.on), mark=mark)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the darts back. Raises StepError for what cannot be."""
        return bring_home(pattern, self.on, self.darts, context)


STEP = ReturnDarts
