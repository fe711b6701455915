"""dart.equalise: darts round one pivot share their fullness so that their mouths are equally wide."""

from typing import ClassVar, Literal

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import DartMove, Legs
from zesty_pivot.core.procedures.dart_shares import chain, equal_mouths, one_pivot
from zesty_pivot.core.steps.dart_chain import SeveralDarts


class EqualiseDarts(SeveralDarts):
    """Takes from darts that are wide and gives to those that are narrow; the sum of angles stays."""

    title: ClassVar[str] = "Equalise darts"
    summary: ClassVar[str] = "Give darts round the same pivot equally wide mouths; nothing is lost."

    do: Literal["dart.equalise"] = "dart.equalise"

    def words(self) -> str:
        """`equal mouths for the shoulder and waist darts`."""
        names = [words(dart) for dart in self.darts]
        return f"equal mouths for the {', '.join(names[:-1])} and {names[-1]} darts"

    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """From each dart that has too much to those that have too little. Raises StepError for different pivots."""
        piece = pattern.piece(self.on)
        one_pivot(piece, self.darts, "They cannot share their fullness.")
        held = {dart: piece.angle(dart) for dart in self.darts}
        wanted = equal_mouths(self.on, sum(held.values()), [Legs(*piece.legs(dart)) for dart in self.darts])
        short = {dart: want - held[dart] for dart, want in zip(self.darts, wanted, strict=True)}
        found: list[DartMove] = []
        for giver in self.darts:
            parts: list[tuple[Spot, float]] = []
            for taker in self.darts:
                if short[giver] < 0.0 < short[taker]:
                    amount = min(-short[giver], short[taker])
                    short[giver] += amount
                    short[taker] -= amount
                    parts.append((Spot(dart=taker), amount))
            found += chain(self.on, giver, held[giver], parts)
        return tuple(found)


STEP = EqualiseDarts
