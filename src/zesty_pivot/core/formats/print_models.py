"""When a style was printed, as it stands in its file."""

from typing import Literal

from pydantic import Field

from zesty_pivot.core.quantity.fields import Model

MOST_PRINTS = 60


class Printed(Model):
    """One print: when (ISO 8601, minutes), how, on what, of which variant, how long every edge was (mm, by `piece.edge`)."""

    at: str = Field(min_length=10, max_length=40)
    how: Literal["pdf", "printer", "plotter", "svg", "dxf"]
    on: str = Field(default="", max_length=80)
    variant: str = Field(default="", max_length=200)
    lengths: dict[str, float] = Field(default_factory=dict, max_length=4000)
    outlines: dict[str, str] = Field(default_factory=dict, max_length=2000, description="what tells the outline of each piece")
