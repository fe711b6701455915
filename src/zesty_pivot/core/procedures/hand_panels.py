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
    found.append(line("princess_cut", text, **{key: format_length(mm, unit) for key, mm in figures.items()}))
    for name, mm in made.taken.items():
        if abs(mm) > NOTHING and name in made.natural:
            text = "Take in {amount} more {where}, {each}, and draw both lines on in a smooth curve."
            if mm < 0.0:
                text = "Let out {amount} {where}, {each}, and draw both lines on in a smooth curve."
            amount, where = format_length(abs(mm), unit), _ENDS.get(name, f"at the {words(name)} line")
            found.append(line("intake", text, amount=amount, where=where, each=off_each(made, name, unit)))
    text = (
        "Round the corner at the point over {smooth} to either side. Walk the panels from the {other} end. At the {mend} end "
        "draw one edge across both: {each}."
    )
    other = "lower" if mend == "upper" else "upper"
    smooth = format_length(smooth_mm, unit)
    found.append(line("round", text, smooth=smooth, other=other, mend=mend, each=ends_mended(made, unit)))
    return tuple(found)


def ends_mended(made: Shaped, unit: Unit, *, fine: bool = False) -> str:
    """`the centre panel's is 1.2 mm shorter and the side panel's 1.8 mm longer`."""
    each = (f"{format_length(abs(by), unit, fine=fine)} {'longer' if by >= 0.0 else 'shorter'}" for by in made.extended)
    return "the centre panel's is {} and the side panel's {}".format(*each)


def off_each(made: Shaped, name: str, unit: Unit, *, fine: bool = False) -> str:
    """`half on each panel`, `all on the side panel`, or both amounts."""
    whole = made.taken[name]
    centre = made.off_centre.get(name, whole / 2.0)
    if abs(centre - whole / 2.0) <= NOTHING:
        return "half on each panel"
    if abs(centre) <= NOTHING or abs(centre - whole) <= NOTHING:
        return f"all on the {'side' if abs(centre) <= NOTHING else 'centre'} panel"
    each = []
    for panel, mm in (("centre", centre), ("side", whole - centre)):
        each.append(f"{format_length(abs(mm), unit, fine=fine)} {'off' if mm > 0.0 else 'on to'} the {panel} panel")
    return " and ".join(each)
