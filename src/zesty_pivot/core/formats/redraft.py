"""Another body under a style: its block drafted again, or another block; what that changed, and what it broke."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.drafting.draft import DraftError
from zesty_pivot.core.drafting.method import Method
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.drafted_block import drafted
from zesty_pivot.core.formats.measures_file import written
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record

LEAST = 0.05  # mm: figures that differ by less are told as the same


def redrafted(block: BlockFile, measures: Mapping[str, float], method: Method | None) -> BlockFile:
    """A drafted block drawn again for measurements in mm, with the settings and the name that it has. The method that a block
    carries inside goes before the one that is given.

    Raises DraftError where the block was not drafted, its method is not known, or it cannot be drawn for this body.
    """
    if block.method is None:
        raise DraftError(
            "this block was not drafted here, so it cannot follow measurements", advice="Draft one in the block view."
        )
    used = block.own_method or method
    if used is None or used.id != block.method:
        advice = "Put its file into your methods folder."
        raise DraftError(f"the drafting method {block.method!r} of this block is not here", advice=advice)
    return drafted(used, measures, block.settings, block.name, is_own=block.own_method is not None)


def with_body(style: Style, block: BlockFile) -> Style:
    """A style over another block: its measurements are the block's from then on; others stay."""
    kept = {name: text for name, text in style.measures.items() if name not in block.measurements}
    return style.model_copy(update={"block": block, "measures": kept})


def with_measures(style: Style, measures: Mapping[str, float], method: Method | None) -> Style:
    """A style for another body: a drafted block is drafted again, and any other keeps its shape, while formulas take the
    measurements (mm). Raises DraftError."""
    if style.block.method is None:
        return style.model_copy(update={"measures": written(measures)})
    return with_body(style, redrafted(style.block, measures, method))


@record
class Change:
    """One line of what another body changed: what, and from what to what."""

    title: str
    says: str
    is_broken: bool = False


def changes(before: Derived, after: Derived) -> list[Change]:
    """What another body under a recipe changed and what it broke: measurements, girths, pieces, steps, findings."""
    unit = after.style.units
    found = [*_steps(before, after), *_findings(before, after)]
    old, new = before.style.scope().measures, after.style.scope().measures
    for name, title in MEASUREMENTS.items():
        one, two = old.get(name), new.get(name)
        if one is not None and two is not None and abs(two - one) > LEAST:
            found.append(Change(title.capitalize(), f"{format_length(one, unit)} → {format_length(two, unit)}"))
    first, second = (girths(each.pattern, each.derivation.block) for each in (before, after))
    for name in ("bust", "waist", "hip", "neck_opening"):
        one, two = getattr(first, name), getattr(second, name)
        if one is not None and two is not None and abs(two - one) > LEAST:
            found.append(Change(f"Finished {words(name)}", f"{format_length(one, unit)} → {format_length(two, unit)}"))
    return found


def _steps(before: Derived, after: Derived) -> list[Change]:
    was = {number for number, _fault in before.derivation.broken}
    broken = dict(after.derivation.broken)
    found = [
        Change(f"Step {number} broke", str(fault), is_broken=True) for number, fault in broken.items() if number not in was
    ]
    return found + [Change(f"Step {number}", "can be done again") for number in sorted(was - set(broken))]


def _findings(before: Derived, after: Derived) -> list[Change]:
    said = {(finding.check, finding.piece, finding.place) for finding in before.findings}
    new = [f for f in after.findings if (f.check, f.piece, f.place) not in said and f.check not in ("broken_step", "idle_step")]
    return [Change("New finding", finding.message, is_broken=True) for finding in new]
