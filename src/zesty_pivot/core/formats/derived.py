"""A style worked out whole: states, finish, accounts, findings. What every output starts from."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from zesty_pivot.core.checks.base import Finding, Look, Severity
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.finish.piece import FinishedPiece, finish_piece
from zesty_pivot.core.finish.sheet import Sheet, lay
from zesty_pivot.core.formats.block_file import pattern as block_pattern
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger import Girths, girths
from zesty_pivot.core.piece import Extra, Pattern
from zesty_pivot.core.piece.pattern import panel_words
from zesty_pivot.core.recipe import Derivation, Evaluator


@dataclass(frozen=True)
class Derived:
    """A style with its derivation; the rest is worked out when asked for, once."""

    style: Style
    derivation: Derivation

    @property
    def pattern(self) -> Pattern:
        """The pattern after the last step."""
        return self.derivation.pattern

    @cached_property
    def look(self) -> Look:
        """What the checks look at."""
        return look_at(self.style, self.derivation.block, self.pattern)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Broken steps first, then what the checks say."""
        return (*broken_findings(self.derivation), *findings(self.look))

    @cached_property
    def girths(self) -> Girths:
        """The finished girths."""
        return girths(self.pattern, self.derivation.block)

    @cached_property
    def pieces(self) -> tuple[FinishedPiece, ...]:
        """The finished pieces: those of the body, then facings, straps and linings."""
        style, pattern = self.style, self.pattern
        body = [
            finish_piece(piece, style.finish, style.scope(), style.name, panel=panel_words(pattern, piece))
            for piece in pattern.pieces
        ]
        return (*body, *(self._extra(extra) for extra in pattern.extras))

    def _extra(self, extra: Extra) -> FinishedPiece:
        """A facing, strap or lining: cut as it says itself unless the user decided otherwise."""
        finish, name = self.style.finish, extra.piece.name
        asked = finish.cut.get(name, "auto")
        cut = {**finish.cut, name: extra.cut if asked == "auto" else asked}
        cloth = {"lining": "lining", "facing": f"{finish.cloth}, interfacing" if finish.cloth else "self, interfacing"}
        own = finish.model_copy(update={"cut": cut, "cloth": cloth.get(extra.kind, finish.cloth)})
        return finish_piece(extra.piece, own, self.style.scope(), self.style.name)

    @cached_property
    def sheet(self) -> Sheet:
        """The finished pieces on one sheet."""
        return lay(self.pieces)

    @property
    def has_errors(self) -> bool:
        """Whether a finding is an error."""
        return any(finding.severity is Severity.ERROR for finding in self.findings)


def derive(style: Style, evaluator: Evaluator | None = None, progress: Callable[[int, int], None] | None = None) -> Derived:
    """A style worked out. Raises FileError when its block is not sound."""
    worker = evaluator or Evaluator()
    return Derived(style, worker.evaluate(block_pattern(style.block), style.steps, style.scope(), progress))


def look_at(style: Style, block: Pattern, pattern: Pattern) -> Look:
    """What the checks look at for one state of a style."""
    return Look(pattern, block, style.finish, style.scope(), style.name)


def broken_findings(derivation: Derivation) -> tuple[Finding, ...]:
    """A finding for each broken step."""
    return tuple(
        Finding(
            "broken_step",
            Severity.ERROR,
            derivation.states[number].step.on if derivation.states[number].step else "",  # type: ignore[union-attr]
            f"step {number}",
            f"{fault.where}: {fault.what}",
            float(number),
            0.0,
            "step",
            fault.advice or "Change the step, or switch it off.",
        )
        for number, fault in derivation.broken
    )
