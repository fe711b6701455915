"""A style worked out whole: states, finish, accounts, findings. What every output starts from."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core import faults
from zesty_pivot.core.checks.base import Finding, Look, Severity
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.finish.hand import finishing_by_hand
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.sheet import Sheet, lay
from zesty_pivot.core.formats import accepted
from zesty_pivot.core.formats.block_file import pattern as block_pattern
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.formats.title_block import title_rows
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.ledger import Girths, girths
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context, with_tapes
from zesty_pivot.core.procedures.hand import Way
from zesty_pivot.core.recipe import Derivation, Evaluator, State
from zesty_pivot.core.recipe.hand import Section, hand_sheet
from zesty_pivot.core.record import record


@record
class Derived:
    """A style with its derivation; the rest is worked out when asked for, once. Not `at_rest` is one of many that follow each
    other fast: checks that take long are left out of its findings."""

    style: Style
    derivation: Derivation
    at_rest: bool = True

    @property
    def pattern(self) -> Pattern:
        """The pattern after the last step."""
        return self.derivation.pattern

    @property
    def context(self) -> Context:
        """What its steps may look at."""
        return Context(self.derivation.block, self.style.scope(), self.derivation.sewing)

    @cached_property
    def look(self) -> Look:
        """What the checks look at."""
        return look_at(self.style, self.derivation.block, self.pattern)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Broken steps first, then those that change nothing; then what the checks say. What was accepted says why."""
        found = (*step_findings(self.derivation), *findings(self.look, at_rest=self.at_rest))
        return accepted.told(found, self.style.accepted)

    @cached_property
    def girths(self) -> Girths:
        """The finished girths; none where a fault of the program hides them."""
        try:
            return girths(self.pattern, self.derivation.block)
        except Exception as fault:  # noqa: BLE001 - a boundary: the rest of the style is told all the same
            faults.caught(fault, "the girths")
            return Girths(None, None, None, None)

    @property
    def pieces(self) -> tuple[FinishedPiece, ...]:
        """The finished pieces: those of the body, then facings, straps and linings."""
        return self.look.finished

    @cached_property
    def sheet(self) -> Sheet:
        """The finished pieces on one sheet: front and back as they lie on the table, then facings, straps and linings."""
        return lay(self.sheet_pieces, title_rows(self.style))

    @cached_property
    def sheet_pieces(self) -> tuple[FinishedPiece, ...]:
        """The finished pieces in their order on the sheet."""
        left = self.style.table.left
        first = {piece.name for piece in self.pattern.pieces if piece.body.value == left}
        own = {piece.name for piece in self.pattern.pieces}
        return tuple(sorted(self.pieces, key=lambda piece: (piece.name not in first, piece.name not in own)))

    def by_hand(self, way: Way) -> tuple[Section, ...]:
        """The hand sheet: the recipe step by step, then what is done with each piece until it can be cut."""
        steps = hand_sheet(self.derivation, self.style.scope(), way)
        try:
            rest = finishing_by_hand(
                self.pieces, self.pattern.pieces, self.style.finish, self.look.scope, len(self.derivation.states)
            )
        except ZestyError:
            return steps  # a finding tells what of the finish cannot be worked out
        return (*steps, *rest)

    @property
    def has_errors(self) -> bool:
        """Whether a finding that nobody accepted is an error."""
        return any(finding.severity is Severity.ERROR and not finding.accepted for finding in self.findings)


def derive(
    style: Style,
    evaluator: Evaluator | None = None,
    progress: Callable[[int, int], None] | None = None,
    *,
    at_rest: bool = True,
) -> Derived:
    """A style worked out. Raises FileError when its block is not sound, and nothing but ZestyErrors."""
    worker = evaluator or Evaluator()
    try:
        derivation = worker.evaluate(block_pattern(style.block), style.steps, style.scope(), progress, style.sewing())
    except ZestyError:
        raise
    except Exception as fault:
        reference = faults.caught(fault, "working out the style")
        raise ZestyError(faults.sentence("working it out", reference), advice=faults.ADVICE) from fault
    return Derived(style, derivation, at_rest)


def unworked(style: Style, why: ZestyError) -> Derived:
    """A style that cannot be worked out at all: its block, and every step broken for that reason."""
    block = block_pattern(style.block)
    fault = StepError(why.what, where=why.where, advice=why.advice)
    broken = (State(block, step, error=fault, serial=-number) for number, step in enumerate(style.steps, start=1))
    return Derived(style, Derivation(block, (State(block), *broken)))


def look_at(style: Style, block: Pattern, pattern: Pattern) -> Look:
    """What the checks look at for one state of a style."""
    return Look(pattern, block, style.finish, with_tapes(style.scope(), pattern), style.title)


def step_findings(derivation: Derivation) -> tuple[Finding, ...]:
    """A finding for each broken step, an error; and for each that changes nothing, a remark."""
    return (*(_broken(derivation, *one) for one in derivation.broken), *(_idle(derivation, n) for n in derivation.idle))


def _broken(derivation: Derivation, number: int, fault: StepError) -> Finding:
    return Finding(
        "broken_step", Severity.ERROR, _piece_of(derivation, number), f"step {number}", f"{fault.where}: {fault.what}",
        float(number), 0.0, "step", fault.advice or "Change the step, or switch it off.",
    )  # fmt: skip


def _idle(derivation: Derivation, number: int) -> Finding:
    said = derivation.said(number)
    return Finding(
        "idle_step", Severity.REMARK, _piece_of(derivation, number), f"step {number}",
        f"step {number}, {said}, changes nothing on this pattern",
        float(number), 0.0, "step", "Take it out, or leave it for sizes where it does.",
    )  # fmt: skip


def _piece_of(derivation: Derivation, number: int) -> str:
    step = derivation.states[number].step
    return step.on if step is not None else ""
