"""What every step is: parameters from a file, and a pure function from pattern to pattern."""

from abc import abstractmethod
from typing import ClassVar, Self

from pydantic import Field, model_validator

from zesty_pivot.core import faults
from zesty_pivot.core.piece import Side, called, dart_id
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.quantity.fields import Model, with_darts


class Step(Model):
    """Root of all steps. `do` is family.verb; `on` the piece; a step that is `off` is passed over."""

    title: ClassVar[str]
    summary: ClassVar[str]
    half_by_half: ClassVar[bool] = False  # worked on halves: a whole piece is taken side by side
    over_shoulders: ClassVar[bool] = False  # draws edges over the shoulders: joined yokes are taken apart for it

    do: str
    on: str = Field(description="the piece, such as front or back", min_length=1)
    off: bool = Field(default=False, description="passed over while true")
    name: str = Field(default="", max_length=120, description="the user's own name for the step")
    group: str = Field(default="", max_length=60, description="neighbours with the same are one card of the recipe")

    @abstractmethod
    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern after this step. Raises a ZestyError when it cannot be done; never changes its input."""

    def apply_half(self, pattern: Pattern, context: Context) -> Outcome:
        """What is done on one side of a whole piece: `apply` without what is said of the whole. Raises as `apply` does."""
        return self.apply(pattern, context)

    def readied(self, pattern: Pattern) -> Pattern:
        """The pattern as it is taken side by side: a step that is not the same on both sides unfolds its piece. Raises as
        `apply` does."""
        return pattern

    def for_side(self, side: Side, half: Pattern, context: Context) -> Self:
        """The step as it is done on one side of a whole piece, to its half. Raises as `apply` does."""
        return self

    def settled(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern after this step, once its sides are put together, with what is said of the whole."""
        return Outcome(pattern)

    @abstractmethod
    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """What a person does with paper, from `pattern` as it lies before this step. Raises as `apply` does."""

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The marks that must be made on the fresh trace of the block before anything is cut."""
        return ()

    @abstractmethod
    def words(self) -> str:
        """What the step does, in a few words of the trade, for its card."""

    def with_ids(self, pattern: Pattern) -> Self:
        """The step with the darts that it names by station named by their ids; `pattern` is the one before it."""
        if not pattern.has(self.on):
            return self
        piece = pattern.piece(self.on)
        return with_darts(self, lambda name: dart_id(piece, name))

    def said(self, pattern: Pattern | None = None) -> str:
        """Its words, for whoever shows them; its name in the file where a fault of the program hides them. `pattern` is the one
        before it: darts are called by where they open there."""
        try:
            return (self if pattern is None else self._with_names(pattern)).words()
        except Exception as fault:  # noqa: BLE001 - a boundary: the words of a step cost no more than themselves
            faults.caught(fault, f"the words of “{self.title}”")
            return self.do

    def _with_names(self, pattern: Pattern) -> Self:
        if not pattern.has(self.on):
            return self
        piece = pattern.piece(self.on)

        def now(name: str) -> str:
            id = dart_id(piece, name)
            return called(piece, id) if piece.has_dart(id) else name

        return with_darts(self, now)


class FrontAndBackStep(Step):
    """A step on one piece and the one that goes with it."""

    on: str = Field(default="front", description="the piece that leads", min_length=1)
    other: str = Field(default="back", description="the piece that goes with it; empty for none")

    @model_validator(mode="after")
    def _two(self) -> Self:
        if self.other == self.on:
            raise ValueError("front and back are two pieces")
        return self

    def names(self) -> list[str]:
        """Both, or the one."""
        return [name for name in (self.on, self.other) if name]
