"""The gallery of gathers."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import GalleryEntry, Variant
from zesty_pivot.desk.galleries.leading import fanned

GALLERY = GalleryEntry(
    "fullness.gather",
    "Gathers on your pattern",
    {
        "light": Variant("Light cloth", "1.5 to 1", {"cloth": "light"}),
        "usual": Variant("Usual cloth", "2 to 1", {"cloth": "usual"}),
        "sheer": Variant("Sheer cloth", "2.5 to 1", {"cloth": "sheer"}),
        "wedge": Variant("From one edge", "nothing let in at the far edge", {"cloth": "usual", "far": "0%"}),
        "fan": Variant("Radiating", "to a stretch of the edge above", {"cloth": "usual"}, fanned),
        "both": Variant("In two edges", "drawn up at the far edge as well", {"cloth": "usual", "far_end": "taken"}),
        "fit": Variant("To fit", "as much of its own length as fits it to what it is sewn to", {"fit": True}),
        "shirred": Variant("Shirring", "five rows, 1 cm apart", {"cloth": "usual", "rows": 5}),
    },
    cleared=("to", "ratio", "by"),
    words=("cloth", "far_end"),
    sizes=("far", "to", "fit", "rows"),
)
