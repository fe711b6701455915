"""How the user laid the pieces on the table: kept with the style, of no meaning for the pattern."""

from typing import Literal

from pydantic import Field

from zesty_pivot.core.quantity.fields import Model

Left = Literal["back", "front"]


class PieceLay(Model):
    """A piece where it was put: so far (mm) from where it would lie by itself, turned clockwise by so many degrees."""

    x: float = Field(default=0.0, ge=-20_000.0, le=20_000.0)
    y: float = Field(default=0.0, ge=-20_000.0, le=20_000.0)
    turn: Literal[0, 90, 180, 270] = 0


class TableLay(Model):
    """Which of front and back lies on the left, and the pieces that were put somewhere else than they lie by themselves."""

    left: Left = "back"
    pieces: dict[str, PieceLay] = Field(default_factory=dict, max_length=200)
