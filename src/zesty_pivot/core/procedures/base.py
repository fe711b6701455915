"""What a procedure looks at, and what it gives back."""

from __future__ import annotations

from dataclasses import dataclass, field

from zesty_pivot.core.conventions.sewing import PLAIN, Sewing
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.quantity.formula import Scope


@dataclass(frozen=True)
class Context:
    """What may be looked at besides the pattern: the untouched block, units with measurements, and how the style sews its
    darts."""

    block: Pattern
    scope: Scope
    sewing: Sewing = PLAIN


@dataclass(frozen=True)
class Note:
    """Something that was done without being asked for by number, with its amount: nothing is corrected silently."""

    text: str
    piece: str
    amount_mm: float | None = None


@dataclass(frozen=True)
class Outcome:
    """The pattern afterwards, and what there is to say."""

    pattern: Pattern
    notes: tuple[Note, ...] = field(default=())

    def then(self, later: Outcome) -> Outcome:
        """What came of something done to this outcome's pattern, with the notes of both."""
        return Outcome(later.pattern, (*self.notes, *later.notes)) if self.notes else later
