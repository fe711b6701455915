"""What steps share that are several moves of darts in a row: split, merge, equalise."""

from abc import abstractmethod
from typing import Annotated, Self

from pydantic import Field, model_validator

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_darts, walked
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.procedures.hand_dart_moves import marks_of_move, move_by_hand
from zesty_pivot.core.quantity.fields import NamesDart
from zesty_pivot.core.steps.base import Step


class DartChain(Step):
    """A step that is a row of moves, decided on the pattern it meets. The order of moves about one pivot is all one."""

    @abstractmethod
    def moves(self, pattern: Pattern, context: Context) -> tuple[DartMove, ...]:
        """The moves in order. Raises StepError when what is asked cannot be."""

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern after all moves. Raises StepError, PlaceError or GeometryError when one cannot be done."""
        return move_darts(self.moves(pattern, context), pattern, context)

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The marks of all moves."""
        moves = walked(self.moves(pattern, context), pattern, context)
        return tuple(mark for before, move, _outcome in moves for mark in marks_of_move(move, before, context))

    def place_by_hand(self, piece: Piece, move: DartMove, context: Context) -> Line | None:
        """How the place of a move is found on the paper, where there is a nearer way than the move's own."""
        return None

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """The procedures of all moves, one after the other."""
        return tuple(line for lines in self.each_by_hand(pattern, context, way) for line in lines)

    def each_by_hand(self, pattern: Pattern, context: Context, way: Way) -> list[tuple[Line, ...]]:
        """The procedure of each move in order."""
        found: list[tuple[Line, ...]] = []
        for before, move, _outcome in walked(self.moves(pattern, context), pattern, context):
            lines = move_by_hand(move, before, context, way)
            place = self.place_by_hand(before.piece(self.on), move, context)
            found.append(lines if place is None else (place, *lines[1:]))
        return found


class SeveralDarts(DartChain):
    """A chain over several darts of one pivot, each named once."""

    darts: Annotated[tuple[str, ...], NamesDart()] = Field(description="darts of one pivot", min_length=2, max_length=12)

    @model_validator(mode="after")
    def _once(self) -> Self:
        if len(set(self.darts)) < len(self.darts):
            raise ValueError("a dart is named twice")
        return self
