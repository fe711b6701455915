"""The gallery of peplums."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import GalleryEntry, Variant

GALLERY = GalleryEntry(
    "trim.peplum",
    "Peplums for your waist",
    {
        "quarter": Variant("Quarter circle", "a soft flare", {"kind": "circle", "part": 0.25}),
        "half": Variant("Half circle", "folds at the sides", {"kind": "circle", "part": 0.5}),
        "full": Variant("Full circle", "folds all round", {"kind": "circle", "part": 1.0}),
        "slashed": Variant("Slashed", "flared by four slashes a half", {"kind": "slashed"}),
        "gathered": Variant("Gathered", "a straight strip, gathered", {"kind": "gathered"}),
        "pleated": Variant("Pleated", "knife pleats to the side", {"kind": "pleated"}),
        "shaped": Variant("Shaped", "smooth over the hip", {"kind": "shaped"}),
        "dipped": Variant("Dipped", "a half circle, longer at the back", {"kind": "circle", "part": 0.5, "hem": "dipped"}),
        "uneven": Variant("Uneven", "a half circle, longer on the left", {"kind": "circle", "part": 0.5, "hem": "uneven"}),
    },
    words=("kind", "hem", "part"),
)
