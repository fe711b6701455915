"""The gallery of peplums."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import Design, GalleryEntry

GALLERY = GalleryEntry(
    "trim.peplum",
    "Peplums for your waist",
    {
        "quarter": Design("Quarter circle", "a soft flare", {"kind": "circle", "part": 0.25}),
        "half": Design("Half circle", "folds at the sides", {"kind": "circle", "part": 0.5}),
        "full": Design("Full circle", "folds all round", {"kind": "circle", "part": 1.0}),
        "slashed": Design("Slashed", "flared by four slashes a half", {"kind": "slashed"}),
        "gathered": Design("Gathered", "a straight strip, gathered", {"kind": "gathered"}),
        "pleated": Design("Pleated", "knife pleats to the side", {"kind": "pleated"}),
        "shaped": Design("Shaped", "smooth over the hip", {"kind": "shaped"}),
        "dipped": Design("Dipped", "a half circle, longer at the back", {"kind": "circle", "part": 0.5, "hem": "dipped"}),
        "uneven": Design("Uneven", "a half circle, longer on the left", {"kind": "circle", "part": 0.5, "hem": "uneven"}),
    },
    words=("kind", "hem", "part"),
)
