"""What all have in common that comes in and knows its own size."""

from __future__ import annotations

from zesty_pivot.core.intake.hints import Hints
from zesty_pivot.core.intake.photo.picture import Flat
from zesty_pivot.core.intake.units import UnitChoice


class BroughtIn:
    """Nothing lies under it, there is no unit to choose, and nobody has said anything of its pieces."""

    @property
    def under(self) -> Flat | None:
        """The picture that lies under it: none."""
        return None

    @property
    def units(self) -> list[UnitChoice]:
        """The units that it may be in: none to choose."""
        return []

    @property
    def hints(self) -> Hints:
        """What it says of its pieces as a person would: nothing."""
        return Hints()
