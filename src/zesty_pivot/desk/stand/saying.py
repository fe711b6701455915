"""What is said beside the figure: how far it is, what is not worn, what of the form is estimated."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.measure import BY_NAME, MEASUREMENTS
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.desk.stand.trying_on import PAPER, TryingOn

ODD_MM = 5.0  # that a length of the form may lie off what was asked for


def progress(trying: TryingOn) -> str:
    """How far it is, in a sentence; nothing when it is done."""
    found = [shown for _wanted, shown in trying.shown() if shown is not None]
    if trying.fault:
        return trying.fault
    if trying.work.is_at_work:
        return "The cloth settles…" if found else "The pattern is being sewn…"
    if trying.done < 1.0:
        return "Stopped before it lay still."
    return "" if all(shown.rests for shown in found) else "It moved a little still when it was left."


def nothing_told(trying: TryingOn) -> str:
    """What is said where it tells nothing."""
    if trying.on == PAPER:
        return "Paper is looked at: a cone at the point of each dart that is shut."
    is_known = any(isinstance(shown, Fitting) and shown.done >= 1.0 for _wanted, shown in trying.shown())
    return "It lies as it should, as far as a form can tell." if is_known else "Not yet."


def said(trying: TryingOn, length: Callable[[float], str]) -> str:
    """How far it is, and what there is to know of the first that stands there; `length` says mm in words."""
    lines = [progress(trying)]
    first = next((shown for _wanted, shown in trying.shown() if shown is not None), None)
    if isinstance(first, Fitting) and not trying.fault:
        if first.worn.left_out:
            lines.append(f"Not worn: {', '.join(first.worn.left_out)}.")
        if first.worn.taken_up:
            lines.append(f"Sewn as wide as they are finished, without springing out: {', '.join(first.worn.taken_up)}.")
        if first.form.guessed:
            lines.append(f"Estimated for the form: {', '.join(BY_NAME[one.name].short for one in first.form.guessed)}.")
        for one in first.form.lengths:
            if abs(one.mm - one.asked) > ODD_MM:
                by = f"{length(abs(one.mm - one.asked))} too {'long' if one.mm > one.asked else 'short'}"
                lines.append(f"{MEASUREMENTS[one.name].capitalize()} of the form came out {by}.")
    return "\n".join(filter(None, lines))
