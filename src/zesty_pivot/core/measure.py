"""Measurement names."""

from __future__ import annotations

# Names as files use them, with the trade's words. Definitions follow ISO 8559-1 where it has the
# measurement; the names themselves are common practice, no source.
MEASUREMENTS: dict[str, str] = {
    "bust": "full bust",
    "over_bust": "over-bust, above the full bust",
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
