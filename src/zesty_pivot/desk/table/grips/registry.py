"""All handles by the kind of their step."""

from __future__ import annotations

from functools import lru_cache

from zesty_pivot.core.discovery import members
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.table import grips
from zesty_pivot.desk.table.grips.base import Grips


@lru_cache(maxsize=1)
def all_grips() -> dict[type[Step], Grips]:
    """The handles of every kind of step that has some."""
    return {found.step: found for found in members(grips, "GRIPS") if isinstance(found, Grips)}
