"""The gallery of necklines in the form of the step; the panel Neck has them larger, with front and back matched."""

from __future__ import annotations

from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.steps.neck_shape import ShapeNeck
from zesty_pivot.desk.galleries.base import Design, GalleryEntry

STAYS = ("do", "on", "other", "off", "name", "side")

GALLERY = GalleryEntry(
    "neck.shape",
    "Necklines",
    {name: Design(shape.title, shape.hint, {"shape": name}) for name, shape in all_shapes().items()},
    cleared=tuple(key for key in ShapeNeck.model_fields if key not in STAYS),
    words=("shape",),
)
