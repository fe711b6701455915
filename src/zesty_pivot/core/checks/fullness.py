"""5: angle lost or gained against the block."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece.names import words

SHOWN_DEG = 1e-6  # less than this is below any printed figure, and no finding


def _run(look: Look) -> Iterable[Finding]:
    for account in look.accounts:
        missing = account.missing_deg
        if abs(missing) > SHOWN_DEG:
            verb = "is unaccounted for" if missing > 0.0 else "has been gained"
            yield Finding(
                "fullness", Severity.ERROR, account.piece, account.pivot,
                f"{abs(missing):.2f}° of fullness round the {words(account.pivot)} {verb}",
                abs(missing), SHOWN_DEG, "deg", "Look for the step that lost it, and give it a place.",
            )  # fmt: skip


CHECK = Check("fullness", "All fullness is accounted for", _run)
