"""How large a unit of a file is, where the file does not say: what each would make of its largest piece."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.intake.pieces import traced
from zesty_pivot.core.quantity import MM_PER
from zesty_pivot.core.record import record

PIXEL = 25.4 / 96.0  # mm; CSS Values and Units, absolute lengths (from memory)
USUAL = (300.0, 1000.0)  # mm, across a half bodice from corner to corner, a child's to a hip-length one. Common practice
CHOICES = {"mm": 1.0, "cm": 10.0, "in": 25.4, "px": PIXEL}


@record
class UnitChoice:
    """A unit that a file may be in: its name, how many mm it is, and how large the largest piece would be, mm."""

    name: str
    mm: float
    wide: float
    high: float

    @property
    def is_usual(self) -> bool:
        """Whether that is the size of a bodice block."""
        return USUAL[0] <= float(np.hypot(self.wide, self.high)) <= USUAL[1]


def choices(drawing: Drawing) -> list[UnitChoice]:
    """What each unit would make of the largest piece of a drawing, the likeliest unit first: where it is as large as half a
    bodice."""
    found = []
    for name, mm in CHOICES.items():
        try:
            largest = max(traced(drawing.in_mm(mm)).pieces, key=lambda piece: float(piece.region.area))
        except FileError:
            continue
        wide, high = (float(size) for size in largest.ring.max(axis=0) - largest.ring.min(axis=0))
        found.append(UnitChoice(name, mm, wide, high))
    return sorted(found, key=lambda one: not one.is_usual)


def scale(drawing: Drawing, unit: str | None) -> float:
    """How many mm a unit of the drawing is: as asked, else as the file says.

    Raises FileError where neither tells, with what each unit would make of it.
    """
    if unit:
        return CHOICES[unit] if unit in CHOICES else MM_PER[unit]
    if drawing.mm is not None:
        return drawing.mm
    told = ", ".join(
        f"in {one.name} its largest piece is {one.wide / 10.0:.0f} x {one.high / 10.0:.0f} cm" for one in choices(drawing)
    )
    raise FileError(f"it does not say its unit ({told})", advice="Say which: --unit mm, cm, in or px.")
