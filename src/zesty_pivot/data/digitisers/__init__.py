"""The digitisers that are known: how each talks, one file a device."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

from zesty_pivot.core.formats import digitiser_file
from zesty_pivot.core.intake.digitiser.device import SUFFIX, Device

ORDER = ("tenths", "inches", "named")


@lru_cache(maxsize=1)
def shipped() -> tuple[Device, ...]:
    """All that ship, in order."""
    folder = files("zesty_pivot.data.digitisers")
    return tuple(digitiser_file.from_text((folder / f"{id}{SUFFIX}").read_text(encoding="utf-8"), id) for id in ORDER)
