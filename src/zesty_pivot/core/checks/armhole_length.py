"""13: the armhole's length against the block, and against the measured arm."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import format_length

LIMIT = 10.0  # mm; more asks for another sleeve. Common practice, no source.


def _run(look: Look) -> Iterable[Finding]:
    now, before = _armhole(look.pattern), _armhole(look.block)
    if now is None or before is None:
        return
    unit, arm = look.scope.unit, look.scope.measures.get("armhole")
    if arm is not None and now < arm:
        yield Finding(
            "armhole_length", Severity.WARNING, "front", "armhole:arm",
            f"the armhole measures {format_length(now, unit)}, smaller than the arm girth of {format_length(arm, unit)}",
            now, arm, "mm", "Lower the underarm.",
        )  # fmt: skip
    if abs(now - before) > LIMIT:
        way = "longer" if now > before else "shorter"
        yield Finding(
            "armhole_length", Severity.REMARK, "front", "armhole:block",
            f"the armhole is {format_length(abs(now - before), unit)} {way} than the block's: {format_length(now, unit)}",
            abs(now - before), LIMIT, "mm",
            "A sleeve drafted for the block no longer fits; on a sleeveless style this may be intended.",
        )  # fmt: skip


def _armhole(pattern: Pattern) -> float | None:
    """The whole armhole of one arm, front and back; None where shoulders are gone or the two sides differ."""
    total = 0.0
    for name in ("front", "back"):
        pieces = pattern.come_from(name)
        roles = {role for piece in pieces for _edge, role in piece.roles}
        if not {"armhole", "shoulder"} <= roles:
            return None
        lengths = [piece.edge(edge).sewn_length for piece in pieces for edge, role in piece.roles if role == "armhole"]
        if any(piece.is_unfolded for piece in pieces):
            if len(lengths) != 2 or abs(lengths[0] - lengths[1]) > 0.5:
                return None
            lengths = lengths[:1]
        total += sum(lengths)
    return total


CHECK = Check("armhole_length", "The armhole fits the arm", _run)
