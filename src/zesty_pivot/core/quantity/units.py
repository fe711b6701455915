"""Units of length and how a length is written for people."""

from __future__ import annotations

import re
from fractions import Fraction
from typing import Literal

Unit = Literal["mm", "cm", "in"]

# 1 in = 25.4 mm exactly: the international inch, agreed 1959.
IN = 25.4
MM_PER: dict[str, float] = {"mm": 1.0, "cm": 10.0, "in": IN}

SIXTEENTHS = 16


def inch_fraction(mm: float) -> str:
    """A length in mm as inches with the nearest sixteenth: `5 1/4`, `-3/8`, `0`."""
    sixteenths = round(mm / MM_PER["in"] * SIXTEENTHS)
    sign = "-" if sixteenths < 0 else ""
    whole, rest = divmod(abs(sixteenths), SIXTEENTHS)
    if rest == 0:
        return f"{sign}{whole}"
    part = Fraction(rest, SIXTEENTHS)
    fraction = f"{part.numerator}/{part.denominator}"
    return f"{sign}{whole} {fraction}" if whole else f"{sign}{fraction}"


def format_length(mm: float, unit: Unit, *, fine: bool = False) -> str:
    """A length in mm as text with its unit: `13.0 cm`, `130 mm`, `5 1/8 in`.

    `fine` adds a decimal (or gives inches in decimals), for differences under a millimetre.
    """
    if unit == "in":
        return f"{_unsigned_zero(mm / MM_PER['in'], 3)} in" if fine else f"{inch_fraction(mm)} in"
    decimals = {"mm": 0, "cm": 1}[unit] + (1 if fine else 0)
    return f"{_unsigned_zero(mm / MM_PER[unit], decimals)} {unit}"


def _unsigned_zero(value: float, decimals: int) -> str:
    text = f"{value:.{decimals}f}"
    return text.lstrip("-") if not text.strip("-0.") else text


_TOLD = re.compile(r"(?<![\w/.])((?:\d+ )?\d+(?:[./]\d+)?) (mm|cm|in)\b")

_SMALL = 3.0  # mm; less is told in inches with decimals


def in_unit(text: str, unit: Unit) -> str:
    """A text whose lengths are metric where the unit is, and in inches where that is the unit."""

    def told(found: re.Match[str]) -> str:
        if (found[2] == "in") == (unit == "in"):
            return found[0]
        mm = sum(float(Fraction(part)) for part in found[1].split()) * MM_PER[found[2]]
        return format_length(mm, unit, fine=abs(mm) < _SMALL)

    return _TOLD.sub(told, text)
