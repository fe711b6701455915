"""Width that a princess line took from the shoulder or armhole must be given back outside: the step people forget most."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece import Pattern, StyleLine
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LIMIT_MM = 1.0  # common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for line in look.pattern.lines:
        lost = dict(line.taken).get("top", 0.0) - line.given
        edge = _edge_above(look.pattern, line)
        if edge is None or lost <= LIMIT_MM:
            continue
        amount = format_length(lost, look.scope.unit, fine=True)
        what = f"the {words(line.of)} {edge} lost {amount} to the {words(line.id)} line"
        yield Finding(
            "given_back", Severity.WARNING, line.panels[1], line.id,
            f"{what}, and the width is not given back at the outer edge",
            lost, LIMIT_MM, "mm", f"Let the line give it back, or the {edge} stays {amount} shorter.",
        )  # fmt: skip


def _edge_above(pattern: Pattern, line: StyleLine) -> str | None:
    """The edge that the line begins on, where width can be given back outside it; None elsewhere."""
    if not pattern.has(line.panels[1]):
        return None
    side = pattern.piece(line.panels[1])
    last = max((index for index, run in enumerate(side.runs) if run.edge == line.id), default=None)
    if last is None:
        return None
    role = side.role(side.runs[side.after(last)].edge)
    return words(role) if role in ("shoulder", "armhole") else None


CHECK = Check("given_back", "Width taken at the top is given back", _run)
