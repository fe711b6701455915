"""The gallery of gathers."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import Design, GalleryEntry
from zesty_pivot.desk.galleries.leading import fanned

GALLERY = GalleryEntry(
    "fullness.gather",
    "Gathers",
    {
        "light": Design("Light cloth", "1.5 to 1", {"cloth": "light"}),
        "usual": Design("Usual cloth", "2 to 1", {"cloth": "usual"}),
        "sheer": Design("Sheer cloth", "2.5 to 1", {"cloth": "sheer"}),
        "wedge": Design("From one edge", "nothing let in at the far edge", {"cloth": "usual", "far": "0%"}),
        "fan": Design("Radiating", "to a stretch of the edge above", {"cloth": "usual"}, fanned),
        "both": Design("In two edges", "drawn up at the far edge as well", {"cloth": "usual", "far_end": "taken"}),
        "fit": Design("To fit", "as much of its own length as fits it to what it is sewn to", {"fit": True}),
        "shirred": Design("Shirring", "five rows, 1 cm apart", {"cloth": "usual", "rows": 5}),
    },
    cleared=("to", "ratio", "by"),
    words=("cloth", "far_end"),
    sizes=("far", "to", "fit", "rows"),
)
