"""Findings that were accepted with a reason: told with it from then on, until they get worse."""

from collections.abc import Iterable

from pydantic import Field

from zesty_pivot.core.checks.base import Finding
from zesty_pivot.core.quantity.fields import Model
from zesty_pivot.core.record import replace

WORSE = 1e-6  # of what is asked of a value, or of 1: less than this is no change
NOT_OF_THE_PATTERN = ("broken_step", "faults")  # a step that cannot be done is mended or taken out


class Accepted(Model):
    """A finding by its check, piece and place, why it may stay, and how bad it was then."""

    check: str = Field(min_length=1, max_length=60)
    piece: str = Field(default="", max_length=120)
    place: str = Field(default="", max_length=240)
    reason: str = Field(min_length=1, max_length=500)
    value: float
    limit: float


def may_be(finding: Finding) -> bool:
    """Whether a finding can be accepted at all."""
    return finding.check not in NOT_OF_THE_PATTERN


def accept(finding: Finding, reason: str) -> Accepted:
    """A finding accepted as it is now."""
    return Accepted(
        check=finding.check, piece=finding.piece, place=finding.place, reason=reason, value=finding.value, limit=finding.limit
    )  # fmt: skip


def is_of(one: Accepted, finding: Finding) -> bool:
    """Whether something that was accepted is this finding, however bad it is now."""
    return (one.check, one.piece, one.place) == (finding.check, finding.piece, finding.place)


def is_worse(finding: Finding, than: Accepted) -> bool:
    """Whether a finding is further from its limit than it was when it was accepted, or on its other side: what was too short
    is too long."""
    now, then = finding.value - finding.limit, than.value - than.limit
    return now * then < 0.0 or abs(now) > abs(then) + WORSE * max(1.0, abs(finding.limit))


def told(findings: Iterable[Finding], accepted: Iterable[Accepted]) -> tuple[Finding, ...]:
    """The findings with the reasons of those that were accepted and are no worse; they come last of their weight."""
    known = tuple(accepted)
    if not known:
        return tuple(findings)
    made = []
    for finding in findings:
        mine = next((one for one in known if is_of(one, finding) and not is_worse(finding, one)), None)
        made.append(finding if mine is None or not may_be(finding) else replace(finding, accepted=mine.reason))
    return tuple(sorted(made, key=lambda one: (one.severity.rank, bool(one.accepted))))
