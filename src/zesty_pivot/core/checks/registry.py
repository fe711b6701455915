"""All checks, and all findings of a pattern."""

from __future__ import annotations

from functools import lru_cache

from zesty_pivot.core import checks, faults
from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.discovery import members
from zesty_pivot.core.errors import ZestyError


@lru_cache(maxsize=1)
def all_checks() -> tuple[Check, ...]:
    """Every check, in order of its module's name."""
    found = members(checks, "CHECK")
    return tuple(check for check in found if isinstance(check, Check))


def findings(look: Look, *, at_rest: bool = True) -> tuple[Finding, ...]:
    """What all checks say, the weightiest first; without `at_rest` those that take long are left out.
    Nothing is raised: each check is run alone, and one that fails is a finding itself, as what it would have seen is not
    known."""
    found = [finding for check in all_checks() if at_rest or not check.at_rest for finding in _run(check, look)]
    return tuple(sorted(found, key=lambda finding: finding.severity.rank))


def _run(check: Check, look: Look) -> tuple[Finding, ...]:
    try:
        return tuple(check.run(look))
    except ZestyError as fault:
        return (undone(check.id, f"the check “{check.title}” could not be done: {fault.what}", fault.advice),)
    except Exception as fault:  # noqa: BLE001 - the boundary of a check: the others go on
        reference = faults.caught(fault, f"the check “{check.title}”")
        return (undone(check.id, faults.sentence(f"the check “{check.title}”", reference)),)


def undone(check: str, message: str, advice: str = "") -> Finding:
    """A finding for something that could not be looked at: an error, as nobody has seen that it is right."""
    return Finding(check, Severity.ERROR, "", "", message, 1.0, 0.0, "faults", advice or "Look at this by hand before you cut.")
