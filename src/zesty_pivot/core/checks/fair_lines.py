"""A princess line bends over the bust in one fair curve: not too tightly, and not to and fro."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.geometry.fairness import bends, tightest
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LEAST_RADIUS = 20.0  # mm; a seam that bends more tightly puckers. Common practice, no source
MOST_BENDS = 5  # over the bust, a hollow above and below it, and out of both. Our own choice

# What is seen of a bend: so much turn (radians) and so far from straight (mm). Our own choice.
_TURN, _STANDS_OFF = math.radians(3.0), 0.8


def _run(look: Look) -> Iterable[Finding]:
    pattern, unit = look.pattern, look.scope.unit
    for line in pattern.lines:
        for name in line.panels if line.angles else ():
            if not pattern.has(name):
                continue
            runs = [run for run in pattern.piece(name).runs if run.edge == line.id]
            if not runs or any(run.mouth for run in runs[:-1]):  # what opens in it is told by its own corner
                continue
            paths = [run.path for run in runs]
            radius, at = tightest(paths)
            where = f"{format_length(at, unit)} along the seam of the {words(name)}"
            if radius < LEAST_RADIUS:
                what = "has a corner" if radius == 0.0 else f"bends in a radius of {format_length(radius, unit, fine=True)}"
                yield Finding(
                    "fair_lines", Severity.WARNING, name, line.id, f"the princess line {what} {where}", radius, LEAST_RADIUS,
                    "mm", "Round it over more, or take less in so near to the point.",
                )  # fmt: skip
                continue
            count = len(bends(paths, _TURN, _STANDS_OFF))
            if count > MOST_BENDS:
                yield Finding(
                    "fair_lines", Severity.REMARK, name, line.id,
                    f"the princess line of the {words(name)} bends to and fro {count} times", count, MOST_BENDS, "bends",
                    "Ask for intakes that change little from level to level, or round it over more.",
                )  # fmt: skip


CHECK = Check("fair_lines", "Princess lines are fair curves", _run)
