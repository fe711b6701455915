"""How large a unit of a file is, where the file does not say: what each would make of its largest piece."""

from __future__ import annotations

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.quantity import MM_PER
from zesty_pivot.core.record import record

PIXEL = 25.4 / 96.0  # mm; CSS Values and Units, absolute lengths (from memory)
USUAL = (300.0, 800.0)  # mm, the length of a bodice half from a child's to a hip-length one. Common practice, no source
CHOICES = {"mm": 1.0, "cm": 10.0, "in": 25.4, "px": PIXEL}


@record
class UnitChoice:
    """A unit that a file may be in: its name, how many mm it is, and how large everything in the file would be, mm."""

    name: str
    mm: float
    wide: float
    high: float

    @property
    def is_usual(self) -> bool:
        """Whether that is the size of a bodice block."""
        return USUAL[0] <= max(self.wide, self.high) <= 3.0 * USUAL[1] and min(self.wide, self.high) >= 0.3 * USUAL[0]


def choices(drawing: Drawing) -> list[UnitChoice]:
    """What each unit would make of a drawing, the likeliest first: where a piece is as long as a bodice half is."""
    sizes = []
    for line in drawing.lines:
        low, high = line.path.cubics.reshape(-1, 2).min(axis=0), line.path.cubics.reshape(-1, 2).max(axis=0)
        sizes.append((low, high))
    wide, high = (float(max(top[axis] for _low, top in sizes) - min(low[axis] for low, _top in sizes)) for axis in (0, 1))
    found = [UnitChoice(name, mm, wide * mm, high * mm) for name, mm in CHOICES.items()]
    return sorted(found, key=lambda one: not one.is_usual)


def scale(drawing: Drawing, unit: str | None) -> float:
    """How many mm a unit of the drawing is: as asked, else as the file says.

    Raises FileError where neither tells, with what each unit would make of it.
    """
    if unit:
        return CHOICES[unit] if unit in CHOICES else MM_PER[unit]
    if drawing.mm is not None:
        return drawing.mm
    told = ", ".join(f"in {one.name} it is {one.wide / 10.0:.0f} x {one.high / 10.0:.0f} cm" for one in choices(drawing))
    raise FileError(f"it does not say its unit ({told})", advice="Say which: --unit mm, cm, in or px.")
