"""Fronts of many kinds."""

from functools import lru_cache

from tests.samples import move, worked
from zesty_pivot.core.piece import Pattern

# Blocks with other darts than the file has: what steps make of it is a block of its own.
MADE = {
    "one dart": [{"do": "dart.merge", "on": "front", "darts": ["waist", "shoulder"]}],
    "two darts": [],
    "four darts": [move("shoulder", "mid_armhole", "50%"), move("waist", "side_bust", "50%")],
}


@lru_cache(maxsize=8)
def front(name: str) -> Pattern:
    return worked(MADE[name]).pattern
