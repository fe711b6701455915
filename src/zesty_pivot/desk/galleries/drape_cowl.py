"""The gallery of cowls."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import GalleryEntry, Variant

GALLERY = GalleryEntry(
    "drape.cowl",
    "Cowls on your pattern",
    {
        "high": Variant("High", "to the pit of the neck", {"level": "high"}),
        "mid": Variant("Mid", "half way to the bust line", {"level": "mid"}),
        "low": Variant("Low", "three quarters of the way", {"level": "low"}),
        "bust": Variant("Bust line", "to the bust line", {"level": "bust"}),
        "soft": Variant("Soft folds", "no pleats on the shoulder", {"level": "mid", "pleat": "0 cm"}),
        "single": Variant("One fold", "the edge alone", {"level": "mid", "folds": 1}),
        "three": Variant("Three folds", "two pleats on each shoulder", {"level": "low", "folds": 3}),
        "wide": Variant("Wide", "begun far out on the shoulder", {"level": "mid", "widen": "4 cm"}),
        "plain": Variant("No facing", "the edge is finished otherwise", {"level": "mid", "facing": "0 cm"}),
    },
    cleared=("depth", "edge", "spread"),
    words=("level", "folds"),
    sizes=("depth", "edge", "spread"),
)
