"""What a check looks at and what it says."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from contextlib import suppress
from enum import StrEnum
from typing import Any

from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.conventions.sewing import Sewing, sewing_of
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.whole import finishing
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.ledger import Account, SeamAccount, accounts, seam_accounts
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.record import record


class Severity(StrEnum):
    """How much a finding weighs: an error will not sew, a warning asks for a look, a remark only tells."""

    ERROR = "error"
    WARNING = "warning"
    REMARK = "remark"

    @property
    def rank(self) -> int:
        """0 for what stops sewing, 1 for what shows, 2 for what is good to know."""
        return (Severity.ERROR, Severity.WARNING, Severity.REMARK).index(self)


@record
class Mend:
    """What would mend a finding: a step to add (its JSON object), or a change of the finish options."""

    title: str
    step: dict[str, Any] | None = None
    finish: dict[str, Any] | None = None


@record
class Finding:
    """One finding: the rule, its place, the value against the limit (in `unit`), and what to do. `accepted` is the reason
    why it may stay, where one was given."""

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
    accepted: str = ""


@record
class Look:
    """What checks may look at. Everything is worked out once and shared."""

    pattern: Pattern
    block: Pattern
    finish: Finish
    scope: Scope
    style: str = ""

    @cached_property
    def sewing(self) -> Sewing:
        """How the style sews its darts."""
        return sewing_of(self.finish, self.scope)

    @cached_property
    def accounts(self) -> tuple[Account, ...]:
        """The fullness accounts."""
        return accounts(self.pattern, self.block)

    @cached_property
    def tallies(self) -> tuple[Account, ...]:
        """The same without where darts sit, for what shows figures from moment to moment."""
        return accounts(self.pattern, self.block, in_words=False)

    @cached_property
    def finished(self) -> tuple[FinishedPiece, ...]:
        """The pieces as they are drawn and cut: for checks at rest only, as it takes some tens of milliseconds."""
        return tuple(self.finishing())

    def finishing(self) -> Iterator[FinishedPiece]:
        """The same one by one, for what has to do something else in between; they are kept for `finished`."""
        return finishing(self.pattern, self.finish, self.scope, self.style, self.block)

    @cached_property
    def seams(self) -> tuple[SeamAccount, ...]:
        """The seam accounts, with the intended ease of the finish; an ease that cannot be worked out is none, and a finding of
        its own."""
        ease: dict[str, float] = {}
        for edge, text in self.finish.ease.items():
            with suppress(ZestyError):
                ease[edge] = length_mm(text, self.scope)
        return seam_accounts(self.pattern, ease)


@record
class Check:
    """A rule: its id, a title for people, and the function that looks. One that needs the finished pieces waits until nothing
    changes from moment to moment (`at_rest`)."""

    id: str
    title: str
    run: Callable[[Look], Iterable[Finding]]
    at_rest: bool = False
