"""A trim that could no longer follow its edge is as it was: it does not fit."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece.names import words


def _run(look: Look) -> Iterable[Finding]:
    for extra in look.pattern.extras:
        if extra.lost:
            yield Finding(
                "trims_follow", Severity.ERROR, extra.of[0], extra.piece.name,
                f"the {words(extra.piece.name)} no longer fits: {extra.lost}",
                1.0, 0.0, "present", "Change the trim's step, or move it to the end of the recipe.",
            )  # fmt: skip


CHECK = Check("trims_follow", "Trims follow their edges", _run)
