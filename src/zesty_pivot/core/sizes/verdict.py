"""What came of a style on one body: whether its pattern is sound, and what is wrong with it by name."""

from __future__ import annotations

from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.record import record


@record
class Verdict:
    """Broken steps and errors by name, what is wrong with the latter first; and how many warnings there are."""

    broken: tuple[str, ...] = ()
    errors: tuple[str, ...] = ()
    warnings: int = 0

    @property
    def is_sound(self) -> bool:
        """Whether it can be cut as it is."""
        return not self.broken and not self.errors


def verdict_of(derived: Derived) -> Verdict:
    """What came of it; what somebody accepted is left out."""
    found = [one for one in derived.findings if not one.accepted and one.check != "broken_step"]
    errors = (one for one in found if one.severity is Severity.ERROR)
    return Verdict(
        tuple(f"step {n}, {derived.derivation.said(n)}: {error.what}" for n, error in derived.derivation.broken),
        tuple(f"{one.piece}: {one.message}" if one.piece else one.message for one in errors),
        sum(one.severity is Severity.WARNING for one in found),
    )
