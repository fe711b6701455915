"""22: a shoulder, side seam or style line that is sewn to nothing, where the block sews its edge to a partner."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece.names import SEAM_ROLES, words
from zesty_pivot.core.piece.refs import EdgeRef

SEWN = (*SEAM_ROLES, "style_line")


def _run(look: Look) -> Iterable[Finding]:
    if not look.block.seams:
        return  # a block of one piece has no partners to lose
    held = {part for seam in look.pattern.seams for part in seam.parts}
    for piece in look.pattern.pieces:
        for edge, role in piece.roles:
            if role in SEWN and EdgeRef(piece.name, edge) not in held:
                yield Finding(
                    "partners", Severity.WARNING, piece.name, edge,
                    f"the {words(edge)} of the {words(piece.name)} is not sewn to anything",
                    1.0, 0.0, "edges", f"Give it a partner: cut the piece beside its {words(role)} in the same way.",
                )  # fmt: skip


CHECK = Check("partners", "Every seam has a partner", _run)
