"""What a check looks at and what it says."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Any

from zesty_pivot.core.finish.options import Finish
from zesty_pivot.core.ledger import Account, SeamAccount, accounts, seam_accounts
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope, length_mm


class Severity(StrEnum):
    """How much a finding weighs: an error will not sew, a warning asks for a look, a remark only tells."""

    ERROR = "error"
    WARNING = "warning"
    REMARK = "remark"


@dataclass(frozen=True)
class Mend:
    """What would mend a finding: a step to add (its JSON object), or a change of the finish options."""

    title: str
    step: dict[str, Any] | None = None
    finish: dict[str, Any] | None = None


@dataclass(frozen=True)
class Finding:
    """One finding: the rule, its place, the value against the limit (in `unit`), and what to do."""

    check: str
    severity: Severity
    piece: str
    place: str
    message: str
    value: float
    limit: float
    unit: str
    advice: str
    mend: Mend | None = None


@dataclass(frozen=True)
class Look:
    """What checks may look at. Everything is worked out once and shared."""

    pattern: Pattern
    block: Pattern
    finish: Finish
    scope: Scope
    style: str = ""

    @cached_property
    def accounts(self) -> tuple[Account, ...]:
        """The fullness accounts."""
        return accounts(self.pattern, self.block)

    @cached_property
    def seams(self) -> tuple[SeamAccount, ...]:
        """The seam accounts, with the intended ease of the finish."""
        ease = {edge: length_mm(text, self.scope) for edge, text in self.finish.ease.items()}
        return seam_accounts(self.pattern, ease)


@dataclass(frozen=True)
class Check:
    """A rule: its id, a title for people, and the function that looks."""

    id: str
    title: str
    run: Callable[[Look], Iterable[Finding]]
