"""HP-GL for a plotter: the sheet in panels of a roll's width."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing


def plotted(derived: Derived, printing: Printing) -> bytes:
    """The style as HP-GL. Raises ZestyError for a roll that is none."""
    from zesty_pivot.core.plotter.frames import Roll, frames
    from zesty_pivot.core.plotter.hpgl import plot

    sheet = derived.sheet
    roll = Roll(printing.roll, printing.roll_length, printing.pens)
    return plot(frames(sheet.laid, (sheet.width, sheet.height), roll))


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    return {"pattern.plt": lambda: plotted(derived, printing)}


EXPORT = Export(
    "plot", "plot as HP-GL", ".plt", _files, lambda _paper: "pattern.plt", order=5,
    tip="For a plotter: pens by kind of line, panels of the roll's width",
)  # fmt: skip
