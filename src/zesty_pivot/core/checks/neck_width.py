"""8: front and back necklines must begin at the same place of the shoulder, and measure what was written down."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.ledger.girths import around
from zesty_pivot.core.necklines.gape import taken
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import format_length

LIMIT = 1.0  # mm; a pencil line. Common practice, no source.


def _run(look: Look) -> Iterable[Finding]:
    unit = look.scope.unit
    one, two = (_taken(look.pattern, look.block, name) for name in ("front", "back"))
    if one is not None and two is not None and abs(one - two) > LIMIT:
        wide, narrow = ("front", "back") if one > two else ("back", "front")
        yield Finding(
            "neck_width", Severity.WARNING, wide, "neckline:width",
            f"the {wide} neckline takes {format_length(abs(one - two), unit, fine=True)} more of the shoulder than that of the "
            f"{narrow}",
            abs(one - two), LIMIT, "mm", "Let front and back begin at the same place: shape both in one step.",
        )  # fmt: skip
    for measured in look.pattern.measured:
        now = around(look.pattern, measured.role)
        if now is not None and abs(now - measured.mm) > LIMIT:
            way = "longer" if now > measured.mm else "shorter"
            yield Finding(
                "neck_width", Severity.REMARK, "front", f"{measured.role}:measured",
                f"the finished {measured.role} is {format_length(abs(now - measured.mm), unit, fine=True)} {way} than it was "
                f"measured when it was drawn ({format_length(measured.mm, unit)})",
                abs(now - measured.mm), LIMIT, "mm", "Trace the facings again, or undo what changed it.",
            )  # fmt: skip


def _taken(pattern: Pattern, block: Pattern, name: str) -> float | None:
    """How much (mm, along the sewn shoulder) the neckline of a half took of the block's; None where the shoulder is no longer
    the block's, or the piece no plain half."""
    if not pattern.has(name) or not block.has(name) or pattern.piece(name).is_unfolded:
        return None
    drafted = block.piece(name)
    share = taken(pattern.piece(name), drafted)
    return None if share is None else share * sum(r.path.length for r in drafted.runs if drafted.role(r.edge) == "shoulder")


CHECK = Check("neck_width", "Front and back necklines meet", _run)
