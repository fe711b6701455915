"""All checks, and all findings of a pattern."""

from __future__ import annotations

from functools import lru_cache

from zesty_pivot.core import checks
from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.discovery import members

_ORDER = {Severity.ERROR: 0, Severity.WARNING: 1, Severity.REMARK: 2}


@lru_cache(maxsize=1)
def all_checks() -> tuple[Check, ...]:
    """Every check, in order of its module's name."""
    found = members(checks, "CHECK")
    return tuple(check for check in found if isinstance(check, Check))


def findings(look: Look) -> tuple[Finding, ...]:
    """What all checks say, the weightiest first. Nothing is raised: checks collect and go on."""
    found = [finding for check in all_checks() for finding in check.run(look)]
    return tuple(sorted(found, key=lambda finding: _ORDER[finding.severity]))
