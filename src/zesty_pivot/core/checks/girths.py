"""11: the finished bust, waist and hip against the body and the ease that is wanted."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import format_length, length_mm

OFF_MM = 5.0  # from the wanted girth. Common practice, no source.
LESS_MM = 1.0  # than the body. Common practice, no source.


def _run(look: Look) -> Iterable[Finding]:
    found = girths(look.pattern, look.block)
    unit = look.scope.unit
    levels: tuple[tuple[Literal["bust", "waist", "hip"], float | None], ...] = (
        ("bust", found.bust), ("waist", found.waist), ("hip", found.hip),
    )  # fmt: skip
    for name, girth in levels:
        body = look.scope.measures.get(name)
        if body is None or girth is None:
            continue
        title, ease = MEASUREMENTS[name], girth - body
        wanted = look.finish.wearing_ease.get(name)
        asked = None if wanted is None else length_mm(wanted, look.scope)
        if asked is not None and abs(ease - asked) > OFF_MM:
            off = ease - asked
            yield Finding(
                "girths", Severity.WARNING, "", name,
                f"the finished {title} is {format_length(abs(off), unit)} {'wider' if off > 0.0 else 'narrower'} than the body "
                f"with {format_length(asked, unit)} ease",
                abs(off), OFF_MM, "mm", "Take in or let out along the seams, or change the wanted ease.",
            )  # fmt: skip
        elif asked is None and ease < -LESS_MM:
            yield Finding(
                "girths", Severity.WARNING, "", name,
                f"the finished {title} is {format_length(-ease, unit)} smaller than the body",
                -ease, 0.0, "mm", "Only stretch cloth can take that: let out along the seams.",
            )  # fmt: skip


CHECK = Check("girths", "Finished girths fit the body", _run)
