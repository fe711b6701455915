"""What a check says of a pattern."""

from tests.samples import real_block, real_pattern
from zesty_pivot.core.checks.base import Look
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope


def look(pattern: Pattern | None = None, finish: Finish | None = None, style: str = "Test") -> Look:
    return Look(pattern or real_pattern(), real_pattern(), finish or Finish(), Scope("cm", real_block().measurements), style)


def said(check: str, at: Look) -> list[str]:
    return [finding.message for finding in findings(at) if finding.check == check]
