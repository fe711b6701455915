"""Lines of front and back that end on one seam meet there."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.pattern import parts_of
from zesty_pivot.core.quantity import format_length

LIMIT_MM = 1.0  # common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for seam in look.pattern.seams:
        one, two = parts_of(seam.a), parts_of(seam.b)
        if len(one) != 2 or len(two) != 2:
            continue
        first, second = (look.pattern.sewn_length(f"{parts[0][0]}.{parts[0][1]}") for parts in (one, two))
        apart = abs(first - second)
        if apart > LIMIT_MM:
            yield Finding(
                "lines_meet", Severity.WARNING, one[0][0], seam.a,
                f"the lines of {words(one[0][0])} and {words(two[0][0])} miss each other by "
                f"{format_length(apart, look.scope.unit, fine=True)} at the {words(one[0][1])}",
                apart, LIMIT_MM, "mm", "Begin both at the same distance from the same end.",
            )  # fmt: skip


CHECK = Check("lines_meet", "Lines meet across a seam", _run)
