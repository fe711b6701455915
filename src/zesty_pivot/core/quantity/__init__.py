"""Lengths, shares and units as people write them; millimetres and plain ratios inside."""

from zesty_pivot.core.quantity.formula import Scope, distance_mm, is_share, length_mm, share_of, with_unit
from zesty_pivot.core.quantity.units import MM_PER, Unit, format_length, in_unit, inch_fraction

__all__ = [
    "MM_PER", "Scope", "Unit", "distance_mm", "format_length", "in_unit", "inch_fraction", "is_share", "length_mm", "share_of",
    "with_unit",
]  # fmt: skip
