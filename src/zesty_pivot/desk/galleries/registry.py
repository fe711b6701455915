"""All galleries: those found in this folder."""

from __future__ import annotations

from functools import lru_cache

from zesty_pivot.core.discovery import members
from zesty_pivot.desk import galleries
from zesty_pivot.desk.galleries.base import GalleryEntry


@lru_cache(maxsize=1)
def all_galleries() -> dict[str, GalleryEntry]:
    """The galleries by the step's `do`."""
    return {entry.do: entry for entry in members(galleries, "GALLERY") if isinstance(entry, GalleryEntry)}
