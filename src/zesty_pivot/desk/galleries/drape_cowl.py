"""The gallery of cowls."""

from __future__ import annotations

from zesty_pivot.desk.galleries.base import Design, GalleryEntry

GALLERY = GalleryEntry(
    "drape.cowl",
    "Cowls",
    {
        "high": Design("High", "to the pit of the neck", {"level": "high"}),
        "mid": Design("Mid", "half way to the bust line", {"level": "mid"}),
        "low": Design("Low", "three quarters of the way", {"level": "low"}),
        "bust": Design("Bust line", "to the bust line", {"level": "bust"}),
        "soft": Design("Soft folds", "no pleats on the shoulder", {"level": "mid", "pleat": "0 cm"}),
        "single": Design("One fold", "the edge alone", {"level": "mid", "folds": 1}),
        "three": Design("Three folds", "two pleats on each shoulder", {"level": "low", "folds": 3}),
        "wide": Design("Wide", "begun far out on the shoulder", {"level": "mid", "widen": "4 cm"}),
        "plain": Design("No facing", "the edge is finished otherwise", {"level": "mid", "facing": "0 cm"}),
    },
    cleared=("depth", "edge", "spread"),
    words=("level", "folds"),
    sizes=("depth", "edge", "spread"),
)
