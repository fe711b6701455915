"""Measurement names and the fraction table that people make beside the chart."""

from __future__ import annotations

from collections.abc import Mapping

# Names as files use them, with the trade's words. Definitions follow ISO 8559-1 where it has the
# measurement; the names themselves are common practice, no source.
MEASUREMENTS: dict[str, str] = {
    "bust": "full bust",
    "under_bust": "under-bust",
    "waist": "waist",
    "hip": "hip",
    "shoulder": "shoulder width, tip to tip",
    "sh_bp": "shoulder to bust point",
    "sh_under_bust": "shoulder to under-bust",
    "fwl": "front waist length",
    "bwl": "back waist length",
    "span": "bust span",
    "across_chest": "across chest",
    "across_back": "across back",
    "armhole": "armhole round",
    "hip_depth": "hip depth",
    "head": "head girth",
    "neck": "neck girth",
}

DIVISORS = (2, 4, 6, 8, 12)


def fraction_table(measures: Mapping[str, float]) -> dict[str, tuple[float, ...]]:
    """Each measurement (mm) divided by 2, 4, 6, 8 and 12 (mm), in the order of `DIVISORS`.

    Source: common practice, no source.
    """
    return {name: tuple(value / divisor for divisor in DIVISORS) for name, value in measures.items()}
