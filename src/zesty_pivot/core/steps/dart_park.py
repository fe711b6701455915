"""dart.park: darts are put away to a harmless place while other work is done, each remembering where it was."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Parked, Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.steps.base import Context, Note, Outcome
from zesty_pivot.core.steps.dart_chain import DartChain
from zesty_pivot.core.steps.dart_move import MoveDart, goal
from zesty_pivot.core.steps.hand import Line, Way, line


class ParkDarts(DartChain):
    """Moves darts out of the way; dart.return brings them back to where they were on the cloth."""

    title: ClassVar[str] = "Park darts"
    summary: ClassVar[str] = "Put darts away to a harmless place while a neckline or seam is drawn; each can be brought back."

    do: Literal["dart.park"] = "dart.park"
    darts: tuple[str, ...] = Field(description="the darts to put away", min_length=1, max_length=12)
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

    def moves(self, pattern: Pattern, context: Context) -> tuple[MoveDart, ...]:
        """Each dart to the place, whole."""
        piece = pattern.piece(self.on)
        return tuple(MoveDart(on=self.on, dart=piece.dart(dart).id, to=self.to) for dart in self.darts)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the darts away. Raises StepError for a dart that lies there already."""
        notes: list[Note] = []
        for move in self.moves(pattern, context):
            piece = pattern.piece(self.on)
            host = goal(move.to, piece, piece.dart(move.dart).pivot, context)[1]
            if host == move.dart:
                what = f"the {words(move.dart)} dart lies at {self.to.words()} already"
                raise StepError(what, where=self.on, advice="Park it elsewhere, or leave it out.")
            outcome = move.apply(pattern, context)
            notes += outcome.notes
            held = _remembering(outcome.pattern.piece(self.on), host or move.dart, parked(piece, move.dart))
            pattern = outcome.pattern.with_piece(held)
        return Outcome(pattern, tuple(notes))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """A mark where each dart is now, then the moves."""
        text = "On the {on}, mark “{mark}” at both ends of the mouth of the {dart} dart."
        on = words(self.on)
        marks = [line("mark_mouth", text, on=on, mark=home_mark(dart), dart=words(dart)) for dart in self.darts]
        return (*marks, *super().by_hand(pattern, context, way))


def home_mark(dart: str) -> str:
    """The name of the mark where a parked dart came from."""
    return f"home of the {words(dart)} dart"


def parked(piece: Piece, dart: str) -> Parked:
    """What has to be remembered of a dart that is put away."""
    index = piece.mouth_run(dart)
    edge, u = places.source_of(piece, Place(index, piece.runs[index].path.length))
    held = piece.dart(dart)
    return Parked(dart, edge, u, piece.angle(dart), held.use, held.hold)


def _remembering(piece: Piece, host: str, entry: Parked) -> Piece:
    return replace(piece, darts=tuple(replace(d, parked=(*d.parked, entry)) if d.id == host else d for d in piece.darts))


STEP = ParkDarts
