"""How a digitiser talks: the form of its lines and what its buttons mean, as data (.zdigit)."""

from __future__ import annotations

import re
from functools import cached_property
from typing import Literal, Self

from pydantic import Field, FiniteFloat, model_validator

from zesty_pivot.core.quantity.fields import Model

KIND = "digitiser"
SUFFIX = ".zdigit"

Deed = Literal["line", "curve", "corner", "notch", "hole", "point", "leg", "grain", "close", "next", "back", "ignore"]
DEEDS: dict[str, str] = {
    "line": "a place on a straight edge",
    "curve": "a place on a curve",
    "corner": "a corner",
    "notch": "a notch at the edge",
    "hole": "a drill hole",
    "point": "a point inside, such as the bust point",
    "leg": "a place of a line inside, such as a dart's leg",
    "grain": "an end of the grain line",
    "close": "the outline is closed",
    "next": "the piece is finished",
    "back": "the last place is taken back",
    "ignore": "nothing",
}


class Device(Model):
    """A digitiser's lines: an expression with the groups x, y and button; how large its counts are; what its buttons mean."""

    format: Literal["zesty-pivot/digitiser"] = "zesty-pivot/digitiser"
    version: Literal[1] = 1
    id: str = Field(pattern=r"^[a-z][a-z0-9_]{0,39}$")
    title: str = Field(min_length=1, max_length=120)
    line: str = Field(min_length=1, max_length=300, description="a regular expression with the groups x, y and button")
    mm: FiniteFloat = Field(gt=0.0, le=100.0, description="millimetres to a count")
    y_up: bool = True
    buttons: dict[str, Deed]
    speed: int = Field(default=9600, ge=110, le=1_000_000, description="bits a second")
    twice_within_mm: FiniteFloat = Field(
        default=0.4, ge=0.0, le=10.0, description="a place nearer to the one before is the same"
    )

    @model_validator(mode="after")
    def _whole(self) -> Self:
        try:
            groups = set(re.compile(self.line).groupindex)
        except re.error as fault:
            raise ValueError(f"line: {fault}") from None
        if missing := {"x", "y", "button"} - groups:
            raise ValueError(f"line: the group {sorted(missing)[0]!r} is missing")
        if not self.buttons:
            raise ValueError("buttons: none is given")
        return self

    @cached_property
    def pattern(self) -> re.Pattern[str]:
        """The lines' form."""
        return re.compile(self.line)
