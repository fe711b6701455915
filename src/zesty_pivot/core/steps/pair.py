"""What steps share that do a thing to front and back together."""

from __future__ import annotations

from typing import Self

from pydantic import Field, model_validator

from zesty_pivot.core.steps.base import Step


class PairStep(Step):
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
