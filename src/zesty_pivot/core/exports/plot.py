"""HP-GL for a plotter: the sheet in panels of a roll's width."""

from __future__ import annotations

from typing import TYPE_CHECKING

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing

if TYPE_CHECKING:
    from zesty_pivot.core.finish.sheet import Sheet
    from zesty_pivot.core.plotter.frames import Frame


def framed(sheet: Sheet, printing: Printing) -> tuple[Frame, ...]:
    """A sheet in what the plotter draws at once. Raises ZestyError for a roll that is none."""
    from zesty_pivot.core.plotter.frames import Roll, frames

    roll = Roll(printing.roll, printing.roll_length, printing.pens)
    return frames(sheet.laid, (sheet.width, sheet.height), roll)


def plotted(sheet: Sheet, printing: Printing) -> bytes:
    """A sheet as HP-GL. Raises ZestyError for a roll that is none."""
    from zesty_pivot.core.plotter.hpgl import plot

    return plot(framed(sheet, printing))


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    return {"pattern.plt": lambda: plotted(derived.sheet, printing)}


EXPORT = Export(
    "plot", "plot as HP-GL", ".plt", _files, lambda _paper: "pattern.plt", order=5,
    tip="For a plotter: pens by kind of line, panels of the roll's width",
)  # fmt: skip
