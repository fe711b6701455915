"""The gallery of pleats."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import Design, GalleryEntry
from zesty_pivot.desk.galleries.leading import at_the_fold, fanned

GALLERY = GalleryEntry(
    "fullness.pleat",
    "Pleats",
    {
        "knife": Design("Knife", "folds that all point one way", {"kind": "knife"}),
        "box": Design("Box", "two folds that point away from each other", {"kind": "box", "count": 1}),
        "inverted": Design("Inverted", "two folds that meet", {"kind": "inverted", "count": 1}),
        "accordion": Design("Accordion", "many narrow folds, all one way", {"kind": "accordion", "count": 4}),
        "graded": Design(
            "Graded",
            "each deeper than the one before",
            {"kind": "knife", "count": 3, "last": "12 mm"},
            lambda _step, _piece: ({}, {"count": 2}, {"count": 2, "last": "8 mm"}),
        ),
        "tapered": Design("Tapered", "to nothing at the far edge", {"kind": "knife", "far": "0%"}),
        "fan": Design("Fan", "radiating to a stretch of the edge above", {"kind": "knife", "count": 2}, fanned),
        "fold": Design("On the centre", "half an inverted pleat on the fold", {"kind": "inverted", "count": 1}, at_the_fold),
        "stitched": Design("Stitched", "stitched down by 6 cm, then free", {"kind": "knife", "stitched": "6 cm"}),
    },
    cleared=("to",),
    else_cleared=("start", "stop"),
    words=("kind",),
    sizes=("last", "far", "to", "stitched"),
)
