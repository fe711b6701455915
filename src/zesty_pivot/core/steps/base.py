"""What every step is: parameters from a file, and a pure function from pattern to pattern."""

from __future__ import annotations

from abc import abstractmethod
from typing import ClassVar, Self

from pydantic import Field, model_validator

from zesty_pivot.core import faults
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.quantity.fields import Model


class Step(Model):
    """Root of all steps. `do` is family.verb; `on` the piece; a step that is `off` is passed over."""

    title: ClassVar[str]
    summary: ClassVar[str]

    do: str
    on: str = Field(description="the piece, such as front or back", min_length=1)
    off: bool = Field(default=False, description="passed over while true")
    name: str = Field(default="", max_length=120, description="the user's own name for the step")

    @abstractmethod
    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern after this step. Raises a ZestyError when it cannot be done; never changes its input."""

    @abstractmethod
    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """What a person does with paper, from `pattern` as it lies before this step. Raises as `apply` does."""

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The marks that must be made on the fresh trace of the block before anything is cut."""
        return ()

    @abstractmethod
    def words(self) -> str:
        """What the step does, in a few words of the trade, for its card."""

    def said(self) -> str:
        """Its words, for whoever shows them; its name in the file where a fault of the program hides them."""
        try:
            return self.words()
        except Exception as fault:  # noqa: BLE001 - a boundary: the words of a step cost no more than themselves
            faults.caught(fault, f"the words of “{self.title}”")
            return self.do


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
