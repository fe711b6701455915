"""The fraction table that people make by hand before they begin to draft."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.measure.names import MEASUREMENTS
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record

PARTS = (2, 4, 6, 8, 12)  # half, quarter, sixth, eighth, twelfth


@record
class Fractions:
    """One measurement with its fractions, mm; `parts` in the order of PARTS."""

    name: str
    whole: float
    parts: tuple[float, ...]


def fraction_table(known: Mapping[str, float]) -> list[Fractions]:
    """A row for each measurement (mm) that is known, in the order of the chart."""
    return [Fractions(name, known[name], tuple(known[name] / part for part in PARTS)) for name in MEASUREMENTS if name in known]


def told(row: Fractions, unit: Unit) -> list[str]:
    """A row as it is written: the whole and its parts, to a millimetre or a sixteenth of an inch."""
    return [format_length(mm, unit) for mm in (row.whole, *row.parts)]
