"""Cutting panels by hand: the procedure of a princess line with its figures."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.moves.panel_shape import NOTCH_APART, Shaped
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.hand import Line, line
from zesty_pivot.core.quantity import Unit, format_length

# Less than this (mm) is not worth a line. Our own choice.
NOTHING = 0.05

_ENDS = {"top": "at the upper end", "bottom": "at the lower end"}


def panels_by_hand(
    on: str, start: str, end: str, pins: Sequence[str], made: Shaped, smooth_mm: float, mend: str, unit: Unit
) -> tuple[Line, ...]:
    """Draw, notch, cut, take in, round, walk."""
    points = " and ".join(words(pin) for pin in pins)
    text = (
        "On the {on}, tape the darts shut that are not on the line. Draw the line from {start} through the {points} to {end}."
    )
    found = [line("princess", text, on=words(on), points=points, start=start, end=end)]
    long = made.panels.stretches(False)
    text = (
        "Mark notches across it {above} down from its upper end, and {apart} above and below that. Number both panels, cut "
        "along the line and along the legs of the darts on it: each line is {total} long."
    )
    total = sum(path.length for path in long)
    marks = [mark.at.u * total for mark in made.panels.centre.notches if mark.id == f"{made.panels.edge}.bust"]
    figures = {"above": marks[-1] if marks else long[0].length, "apart": NOTCH_APART, "total": total}
    found.append(line("princess_cut", text, **{key: format_length(mm, unit, fine=True) for key, mm in figures.items()}))
    for name, mm in made.taken.items():
        if abs(mm) > NOTHING and name in made.natural:
            text = "Take {half} {off} each panel {where} and draw both lines on in a smooth curve."
            half = format_length(abs(mm) / 2.0, unit, fine=True)
            where = _ENDS.get(name, f"at the {words(name)} line")
            found.append(line("intake", text, half=half, off="off" if mm > 0.0 else "on to", where=where))
    text = (
        "Round the corner at the point over {smooth} to either side. Walk the panels from the {other} end and draw the side's "
        "{mend} end {by} {way}."
    )
    other = "lower" if mend == "upper" else "upper"
    by, way = format_length(abs(made.extended), unit, fine=True), "longer" if made.extended >= 0.0 else "shorter"
    found.append(line("round", text, smooth=format_length(smooth_mm, unit), other=other, mend=mend, by=by, way=way))
    return tuple(found)
