"""17: the notches of two panels meet, the ease between them and nowhere else."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.finish.walk import MEETS, walk
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.pattern import parts_of
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    for seam in look.seams:
        ((one, edge), *more), ((two, _other), *others) = parts_of(seam.a), parts_of(seam.b)
        if more or others or look.pattern.piece(one).role(edge) != "style_line":
            continue
        for notch in walk(look.pattern, seam.a, seam.b, ("top", "bottom")).notches:
            names = f"{words(one)} and {words(two)}"
            if notch.difference_mm is None:
                if notch.title.endswith("notch"):
                    yield Finding(
                        "notches_meet", Severity.WARNING, one, seam.a, f"the {notch.title} of {names} has no partner",
                        1.0, 0.0, "notches", "Cut both panels alike, or leave the notch out.",
                    )  # fmt: skip
                continue
            off = max(-notch.difference_mm, notch.difference_mm - max(seam.ease_mm, 0.0), 0.0)
            if off > MEETS and notch.title.endswith("notch"):
                amount = format_length(off, look.scope.unit, fine=True)
                yield Finding(
                    "notches_meet", Severity.WARNING, one, seam.a, f"the {notch.title} of {names} misses by {amount}",
                    off, MEETS, "mm", "Change one panel so that both are alike from the ends to the notch.",
                )  # fmt: skip


CHECK = Check("notches_meet", "Panels' notches meet", _run)
