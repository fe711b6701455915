"""Packed pages as they stand in a style's file."""

from typing import Literal

from pydantic import Field

from zesty_pivot.core.quantity.fields import Model

MOST = 24  # plans of one style


class PiecePut(Model):
    """Where a piece lies: turned clockwise by so many degrees about its own origin, then shifted (mm) over pages that begin at
    multiples of their step."""

    piece: str = Field(min_length=1, max_length=200)
    turn: Literal[0, 90, 180, 270] = 0
    x: float = Field(ge=-200_000.0, le=200_000.0)
    y: float = Field(ge=-200_000.0, le=200_000.0)


class KeptPages(Model):
    """Pieces packed for one paper. `across`: the paper lies across."""

    variant: str = Field(default="", max_length=200)
    paper: str = Field(min_length=1, max_length=40)
    edge: float = Field(ge=0.0, le=100.0)
    overlap: float = Field(ge=0.0, le=100.0)
    apart: bool = False
    across: bool = False
    puts: tuple[PiecePut, ...] = Field(max_length=500)

    @property
    def key(self) -> tuple[str, str, float, float, bool]:
        """What it was packed for: one plan is kept for each."""
        return self.variant, self.paper, self.edge, self.overlap, self.apart
