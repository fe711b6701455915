"""A low or wide neckline stands off the body: some of its edge belongs in the bust dart."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.necklines.gape import suggested
from zesty_pivot.core.piece import Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    unit = look.scope.unit
    for piece in look.pattern.pieces:
        drafted = look.block.drafted(piece)
        if "bust_point" not in piece.landmarks or piece.is_unfolded or drafted is piece:
            continue
        if not {"neckline", "shoulder"} <= {role for _edge, role in piece.roles}:
            continue
        if any(pivot == "bust_point" and angle > 0.0 for pivot, angle in piece.added):
            continue  # some was taken out already
        wanted = suggested(piece, drafted)
        if wanted <= 0.0:
            continue
        darts = [dart for dart in piece.darts if dart.pivot == "bust_point" and dart.use is Use.DART]
        mend = Mend(f"Take {format_length(wanted, unit, fine=True)} out", step={"do": "neck.gape", "on": piece.name})
        yield Finding(
            "neck_gape", Severity.REMARK, piece.name, "neckline:gape",
            f"a neckline this low or wide gapes on the {words(piece.name)} by some {format_length(wanted, unit, fine=True)}",
            wanted, 0.0, "mm", "Take it out of the edge and pivot it into the bust dart, or leave it: the choice is yours.",
            mend if darts else None,
        )  # fmt: skip


CHECK = Check("neck_gape", "Necklines lie close", _run)
