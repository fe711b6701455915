"""A tape that was asked to hold shows what it was asked to."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.finish.tapes import is_drawn
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import format_length

WITHIN = 1.0  # mm, as much as seam partners may differ by. Common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    unit = look.scope.unit
    context = Context(look.block, look.scope, look.sewing)
    for tape in look.pattern.tapes:
        if tape.on_sheet and not is_drawn(tape, look.pattern, context):
            yield Finding(
                "tape_holds", Severity.REMARK, tape.on, f"tape:{tape.name}",
                f"the tape “{tape.name}” is left off the sheet: a later step changed what it measures",
                1.0, 0.0, "tapes",
                "Measure at the end of the recipe, or leave it off the sheet.",
            )  # fmt: skip
        if tape.hold_mm is None or abs(tape.mm - tape.hold_mm) <= WITHIN:
            continue
        shown, asked = (format_length(mm, unit, fine=abs(tape.mm - tape.hold_mm) < 5.0) for mm in (tape.mm, tape.hold_mm))
        yield Finding(
            "tape_holds", Severity.WARNING, tape.on, f"tape:{tape.name}",
            f"the tape “{tape.name}” shows {shown}, it was to hold {asked}",
            tape.mm, tape.hold_mm, "mm",
            "Change the steps before it until it does, or what it is asked to hold.",
        )  # fmt: skip


CHECK = Check("tape_holds", "Tapes hold what they were asked to", _run)
