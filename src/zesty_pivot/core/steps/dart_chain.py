"""What steps share that are several moves of darts in a row: split, merge, equalise."""

from __future__ import annotations

import math
from abc import abstractmethod
from collections.abc import Iterator, Sequence
from typing import Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.steps.base import Context, Note, Outcome, Step
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.core.steps.hand import Line, Way

# What is left of a dart under this share of it (one in a thousand million) is the noise of float64: all of it goes.
_ALL = 1e-9

_HALVINGS = 64  # of a mouth of half a metre leave less than float64 can tell


class DartChain(Step):
    """A step that is a row of dart.moves, decided on the pattern it meets. The order of moves about one pivot is all one."""

    @abstractmethod
    def moves(self, pattern: Pattern, context: Context) -> tuple[MoveDart, ...]:
        """The moves in order. Raises StepError when what is asked cannot be."""

    def _walked(
        self, pattern: Pattern, context: Context, moves: Sequence[MoveDart] | None = None
    ) -> Iterator[tuple[Pattern, MoveDart, Outcome]]:
        """Each move with the pattern before it and what comes of it."""
        for move in self.moves(pattern, context) if moves is None else moves:
            outcome = move.apply(pattern, context)
            yield pattern, move, outcome
            pattern = outcome.pattern

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern after all moves. Raises StepError, PlaceError or GeometryError when one cannot be done."""
        return self.after(self.moves(pattern, context), pattern, context)

    def after(self, moves: Sequence[MoveDart], pattern: Pattern, context: Context) -> Outcome:
        """The pattern after some moves, with what they have to say."""
        notes: list[Note] = []
        for _before, _move, outcome in self._walked(pattern, context, moves):
            pattern = outcome.pattern
            notes += outcome.notes
        return Outcome(pattern, tuple(notes))

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The marks of all moves."""
        walked = self._walked(pattern, context)
        return tuple(mark for before, move, _outcome in walked for mark in move.marks_by_hand(before, context))

    def place_by_hand(self, piece: Piece, move: MoveDart, context: Context) -> Line | None:
        """How the place of a move is found on the paper, where there is a nearer way than the move's own."""
        return None

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """The procedures of all moves, one after the other."""
        found: list[Line] = []
        for before, move, _outcome in self._walked(pattern, context):
            lines = move.by_hand(before, context, way)
            place = self.place_by_hand(before.piece(self.on), move, context)
            found += [place, *lines[1:]] if place is not None else lines
        return tuple(found)


class SeveralDarts(DartChain):
    """A chain over several darts of one pivot, each named once."""

    darts: tuple[str, ...] = Field(description="darts of one pivot", min_length=2, max_length=12)

    @model_validator(mode="after")
    def _once(self) -> Self:
        if len(set(self.darts)) < len(self.darts):
            raise ValueError("a dart is named twice")
        return self

    def one_pivot(self, piece: Piece, advice: str) -> str:
        """The pivot that all the darts lead to. Raises StepError, with the advice, when they lead to several."""
        pivots = sorted({piece.dart(dart).pivot for dart in self.darts})
        if len(pivots) > 1:
            named = ", ".join(words(pivot) for pivot in pivots)
            raise StepError(f"the darts lead to different pivots ({named})", where=self.on, advice=advice)
        return pivots[0]


def chain(on: str, dart: str, held: float, parts: Sequence[tuple[Spot, float]]) -> tuple[MoveDart, ...]:
    """Moves that take angles (radians) of one dart to several places; `held` is what the dart has. Parts of no angle are
    left out."""
    found: list[MoveDart] = []
    left = held
    for spot, angle in parts:
        if angle <= held * _ALL:
            continue
        share = 1.0 if left - angle <= held * _ALL else angle / left
        found.append(MoveDart(on=on, dart=dart, to=spot, share=share))
        left -= angle
    return tuple(found)


def equal_mouths(where: str, total: float, legs: Sequence[tuple[float, float]]) -> list[float]:
    """The angles (radians) that bring mouths of legs (length mm, angle open already) to one width, `total` being what
    there is to give out: a_k = 2 asin(m / 2 r_k) - open_k, with their sum the total; the width m by bisection.

    Raises StepError when a mouth is wider already than all would become.
    """

    def angles(mouth: float) -> list[float]:
        return [2.0 * math.asin(min(1.0, mouth / (2.0 * r))) - there for r, there in legs]

    low, high = 0.0, 2.0 * min(r for r, _there in legs)
    for _ in range(_HALVINGS):
        middle = (low + high) / 2.0
        low, high = (middle, high) if sum(angles(middle)) < total else (low, middle)
    found = angles((low + high) / 2.0)
    if min(found) < -_ALL:
        raise StepError("one mouth is wider already than all would become", where=where, advice="Leave that dart out.")
    if abs(sum(found) - total) > 1e-9:
        raise StepError("the mouths cannot be equal: one leg is too short", where=where, advice="Choose places further out.")
    # What the bisection leaves over (1e-16) goes to the last, so that the account stays whole.
    return [*found[:-1], total - sum(found[:-1])]
