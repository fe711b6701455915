"""How a digitiser talks: what its lines are made up of and what its buttons mean, as data (.zdigit)."""

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


PLACE = re.compile(r"\{(x|y|button)(?::(\d{1,2}))?\}")
NUMBER, BUTTON = r"[-+]?\d{1,9}(?:\.\d{1,6})?", r"[0-9A-Za-z*#]{1,12}"


class Device(Model):
    """A digitiser's lines: how one is made up, how large its counts are, what its buttons mean.

    `line` is a line with {x}, {y} and {button} where those stand, such as "{x},{y},{button}"; {x:7} is seven characters with
    its sign, for lines without anything between. No expression: what a file says can be read in one pass, whatever it is.
    """

    format: Literal["zesty-pivot/digitiser"] = "zesty-pivot/digitiser"
    version: Literal[1] = 1
    id: str = Field(pattern=r"^[a-z][a-z0-9_]{0,39}$")
    title: str = Field(min_length=1, max_length=120)
    line: str = Field(min_length=1, max_length=200, description="a line with {x}, {y} and {button} in it")
    mm: FiniteFloat = Field(gt=0.0, le=100.0, description="millimetres to a count")
    decimals: int = Field(default=0, ge=0, le=6, description="decimals of a count")
    y_up: bool = True
    buttons: dict[str, Deed]
    speed: int = Field(default=9600, ge=110, le=1_000_000, description="bits a second")
    twice_within_mm: FiniteFloat = Field(
        default=0.4, ge=0.0, le=10.0, description="a place nearer to the one before is the same"
    )

    @model_validator(mode="after")
    def _whole(self) -> Self:
        named = [found[1] for found in PLACE.finditer(self.line)]
        for name in ("x", "y", "button"):
            if named.count(name) != 1:
                raise ValueError(f"line: {{{name}}} stands in it {named.count(name)} times; once is meant")
        if not self.buttons:
            raise ValueError("buttons: none is given")
        return self

    @cached_property
    def pattern(self) -> re.Pattern[str]:
        """The lines' form, with the groups x, y and button; blanks may stand round what stands between them."""
        parts, at = [], 0
        for found in PLACE.finditer(self.line):
            parts.append(_between(self.line[at : found.start()]))
            name, wide = found[1], found[2]
            parts.append(f"(?P<{name}>{f'.{{{wide}}}' if wide else BUTTON if name == 'button' else NUMBER})")
            at = found.end()
        return re.compile("".join([*parts, _between(self.line[at:])]))

    def written(self, x: float, y: float, button: str) -> str:
        """A line as the digitiser sends it; x and y in counts."""

        def value(found: re.Match[str]) -> str:
            if found[1] == "button":
                return button
            number = x if found[1] == "x" else y
            wide = f"+0{found[2]}" if found[2] else ""
            return f"{number:{wide}.{self.decimals}f}"

        return PLACE.sub(value, self.line)


def _between(text: str) -> str:
    """What stands between: any blanks for blanks, and round anything else."""
    plain = text.strip()
    if not plain:
        return r"\s+" if text else ""
    return rf"\s*{re.escape(plain)}\s*"
