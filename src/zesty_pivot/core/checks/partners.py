"""22: a shoulder, side seam or style line that is sewn to nothing, where the block sews its edge to a partner."""

from __future__ import annotations

import itertools
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece.names import SEAM_ROLES, words
from zesty_pivot.core.piece.pattern import parts_of

SEWN = (*SEAM_ROLES, "style_line")


def _run(look: Look) -> Iterable[Finding]:
    if not look.block.seams:
        return  # a block of one piece has no partners to lose
    held = {part for seam in look.pattern.seams for part in itertools.chain(parts_of(seam.a), parts_of(seam.b))}
    for piece in look.pattern.pieces:
        for edge, role in piece.roles:
            if role in SEWN and (piece.name, edge) not in held:
                yield Finding(
                    "partners", Severity.WARNING, piece.name, edge,
                    f"the {words(edge)} of the {words(piece.name)} has nothing to be sewn to",
                    1.0, 0.0, "edges", f"Give it a partner: shape the piece that had the {words(role)} beside it as well.",
                )  # fmt: skip


CHECK = Check("partners", "Every seam has a partner", _run)
