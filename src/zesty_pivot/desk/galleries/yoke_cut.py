"""The gallery of yokes and midriffs."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import GalleryEntry, Variant

GALLERY = GalleryEntry(
    "yoke.cut",
    "Yokes on your pattern",
    {
        "straight": Variant("Straight", "a level seam from armhole to armhole", {"kind": "yoke"}),
        "curved": Variant("Curved", "lowest at the centre, which it leaves square", {"kind": "yoke", "shape": "curved"}),
        "pointed": Variant("Pointed", "a point at the centre", {"kind": "yoke", "shape": "pointed"}),
        "scalloped": Variant("Scalloped", "arcs that hang down", {"kind": "yoke", "shape": "scalloped"}),
        "midriff": Variant("Midriff", "a band round the waist, its waist darts shut", {"kind": "midriff"}),
        "midriff_curved": Variant(
            "Curved midriff", "rising to the centre in a curve", {"kind": "midriff", "shape": "curved", "depth": "-3 cm"}
        ),
        "midriff_pointed": Variant(
            "Pointed midriff", "a point up at the centre", {"kind": "midriff", "shape": "pointed", "depth": "-3 cm"}
        ),
        "midriff_down": Variant(
            "Point down", "a point down at the centre", {"kind": "midriff", "shape": "pointed", "depth": "2 cm"}
        ),
    },
    words=("kind", "shape"),
)
