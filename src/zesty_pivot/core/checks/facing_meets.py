"""A facing follows the finished edge: when the garment changes after it was traced, it no longer does."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LIMIT = 0.5  # mm beyond the shade. Common practice, no source.


def _run(look: Look) -> Iterable[Finding]:
    unit = look.scope.unit
    for extra in look.pattern.extras:
        for follow in extra.follows:
            name = words(extra.piece.name)
            try:
                goal = look.pattern.sewn_length(follow.along) - follow.shorter_mm
            except PlaceError:
                yield Finding(
                    "facing_meets", Severity.WARNING, extra.of[0], f"{extra.piece.name}:{follow.edge}",
                    f"the {name} follows an edge that is no longer there",
                    1.0, 0.0, "present", "Move the facing's step to the end of the recipe.",
                )  # fmt: skip
                continue
            off = abs(extra.piece.edge(follow.edge).sewn_length - goal)
            if off > LIMIT:
                yield Finding(
                    "facing_meets", Severity.WARNING, extra.of[0], f"{extra.piece.name}:{follow.edge}",
                    f"the {name} is {format_length(off, unit, fine=True)} off the edge that it follows",
                    off, LIMIT, "mm", "Move the facing's step to the end of the recipe.",
                )  # fmt: skip


CHECK = Check("facing_meets", "Facings follow their edges", _run)
