"""A strapless top edge must hold on to the body: its girth against the measured over-bust."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    pieces = look.pattern.pieces
    roles = {role for piece in pieces for _edge, role in piece.roles}
    if look.pattern.covers_shoulders or "neckline" not in roles or any(extra.kind == "strap" for extra in look.pattern.extras):
        return
    tops = [(piece, edge) for piece in pieces for edge, role in piece.roles if role == "neckline"]
    # What is left of the armhole is edge too.
    tops += [(piece, edge) for piece in pieces for edge, role in piece.roles if role == "armhole"]
    girth = sum(piece.times * finished_length(piece, edge) for piece, edge in tops)
    unit, body = look.scope.unit, look.scope.measures.get("over_bust")
    if body is None:
        yield Finding(
            "stays_up", Severity.REMARK, "", "top edge", f"the strapless edge is {format_length(girth, unit)} round in all",
            girth, 0.0, "present", "Measure the over-bust to check that the edge stays up.",
        )  # fmt: skip
    elif girth > body:
        over = girth - body
        yield Finding(
            "stays_up", Severity.WARNING, "", "top edge",
            f"the strapless edge is {format_length(over, unit)} wider than the over-bust: it cannot stay up",
            over, 0.0, "mm", "Tighten it at the style lines, by 1 in in all to start with, or add straps.",
        )  # fmt: skip


CHECK = Check("stays_up", "A strapless edge stays up", _run)
