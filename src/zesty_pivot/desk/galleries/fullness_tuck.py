"""The gallery of tucks."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import Design, GalleryEntry
from zesty_pivot.desk.galleries.leading import fanned

GALLERY = GalleryEntry(
    "fullness.tuck",
    "Tucks",
    {
        "plain": Design("Tucks", "stitched all the way across", {"kind": "plain"}),
        "pin": Design("Pin tucks", "3 mm deep, close together", {"kind": "pin", "count": 5}),
        "blind": Design("Blind tucks", "each meets the stitching of the next", {"kind": "blind"}),
        "released": Design("Released", "stitched over 8 cm, then free", {"kind": "plain", "stitched": "8 cm"}),
        "pin_released": Design("Pin, released", "stitched over 8 cm, then free",
                                {"kind": "pin", "count": 5, "stitched": "8 cm"}),
        "fanned": Design("Fanned", "radiating to a stretch of the edge above", {"kind": "plain"}, fanned),
    },
    cleared=("to",),
    words=("kind",),
    sizes=("stitched", "to"),
)  # fmt: skip
