"""All shapes of necklines by their names."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from types import MappingProxyType

from zesty_pivot.core import necklines
from zesty_pivot.core.discovery import members
from zesty_pivot.core.errors import PlaceError, one_of
from zesty_pivot.core.necklines.base import NeckShape


@lru_cache(maxsize=1)
def all_shapes() -> Mapping[str, NeckShape]:
    """Every shape by its name, in the order in which they are shown."""
    found = [shape for shape in members(necklines, "SHAPE") if isinstance(shape, NeckShape)]
    return MappingProxyType({shape.name: shape for shape in sorted(found, key=lambda shape: shape.order)})


def shape_of(name: str) -> NeckShape:
    """A shape by its name. Raises PlaceError with the near name."""
    found = all_shapes().get(name)
    if found is None:
        what, advice = one_of("neckline", name, all_shapes())
        raise PlaceError(what, advice=advice)
    return found
