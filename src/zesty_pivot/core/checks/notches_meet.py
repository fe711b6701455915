"""17: the notches of two panels meet, the ease between them and nowhere else."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.finish.balance import MEETS, notch_distances
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    for seam in look.seams:
        a, b = seam.a.only, seam.b.only
        if a is None or b is None or look.pattern.piece(a.piece).role(a.edge) != "style_line":
            continue
        here, there = (_from_the_top(look.pattern.piece(part.piece), part.edge) for part in (a, b))
        names = f"{words(a.piece)} and {words(b.piece)}"
        pieces = [look.pattern.piece(part.piece) for part in (a, b)]
        called = {piece.sides.name(mark.id): mark.name for piece in pieces for mark in piece.notches}
        for id in dict.fromkeys([*here, *there]):
            title = f"{words(called[id])} notch"
            if id not in here or id not in there:
                yield Finding(
                    "notches_meet", Severity.WARNING, a.piece, str(seam.a), f"the {title} of {names} has no partner",
                    1.0, 0.0, "notches", "Cut both panels alike, or leave the notch out.",
                )  # fmt: skip
                continue
            late = there[id] - here[id]
            off = max(-late, late - max(seam.ease_mm, 0.0), 0.0)
            if off > MEETS:
                amount = format_length(off, look.scope.unit, fine=True)
                yield Finding(
                    "notches_meet", Severity.WARNING, a.piece, str(seam.a), f"the {title} of {names} misses by {amount}",
                    off, MEETS, "mm", "Change one panel so that both are alike from the ends to the notch.",
                )  # fmt: skip


def _from_the_top(piece: Piece, edge: str) -> dict[str, float]:
    """The notches of a line, counted from where its provenance begins."""
    runs = piece.edge(edge).runs
    found = notch_distances(piece, edge, from_end=runs[0].source.u0 > runs[-1].source.u1)
    return {piece.sides.name(id): at for id, at in found.items()}  # of a whole piece as on its half


CHECK = Check("notches_meet", "Panels' notches meet", _run)
