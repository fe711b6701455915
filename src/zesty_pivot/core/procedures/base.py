"""What a procedure looks at, and what it gives back."""

from __future__ import annotations

from dataclasses import field

from zesty_pivot.core.conventions.sewing import PLAIN, Sewing
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.quantity.formula import Scope
from zesty_pivot.core.record import record, replace


@record
class Context:
    """What may be looked at besides the pattern: the untouched block, units with measurements, and how the style sews its
    darts."""

    block: Pattern
    scope: Scope
    sewing: Sewing = PLAIN

    def at(self, pattern: Pattern) -> Context:
        """The same where a pattern lies on the table: formulas may use the tapes that were kept of it."""
        return self if not pattern.tapes else replace(self, scope=with_tapes(self.scope, pattern))


def with_tapes(scope: Scope, pattern: Pattern) -> Scope:
    """The measurements, and what the named tapes of a pattern show (mm) beside them."""
    found = {tape.key: tape.mm for tape in pattern.tapes if tape.key}
    return Scope(scope.unit, {**found, **scope.measures}) if found else scope


@record
class Note:
    """Something that was done without being asked for by number, with its amount: nothing is corrected silently."""

    text: str
    piece: str
    amount_mm: float | None = None


@record
class Outcome:
    """The pattern afterwards, and what there is to say."""

    pattern: Pattern
    notes: tuple[Note, ...] = field(default=())

    def then(self, later: Outcome) -> Outcome:
        """What came of something done to this outcome's pattern, with the notes of both."""
        return Outcome(later.pattern, (*self.notes, *later.notes)) if self.notes else later
