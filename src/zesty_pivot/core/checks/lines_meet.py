"""Lines of front and back that end on one seam meet there: at the same share of it where one side is eased to the other."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.checks.limits import SEAM_MM
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    for seam in look.pattern.seams:
        if len(seam.a.parts) != 2 or len(seam.b.parts) != 2:
            continue
        one, two = seam.a.parts[0], seam.b.parts[0]
        first, second = (look.pattern.edge_length(part) for part in (one, two))
        whole, other = (sum(look.pattern.edge_length(part) for part in end.parts) for end in (seam.a, seam.b))
        apart = abs(first - second * whole / other)
        if apart > SEAM_MM:
            yield Finding(
                "lines_meet", Severity.WARNING, one.piece, str(seam.a),
                f"the lines of {words(one.piece)} and {words(two.piece)} miss each other by "
                f"{format_length(apart, look.scope.unit, fine=True)} at the {words(one.edge)}",
                apart, SEAM_MM, "mm", "Begin both at the same distance from the same end.",
            )  # fmt: skip


CHECK = Check("lines_meet", "Lines meet across a seam", _run)
