"""7: a neckline that is wide and deep together slips; a narrow shoulder strap slips off."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.necklines.gape import shares
from zesty_pivot.core.piece import Piece, Side
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

STRAP = 30.0  # mm of shoulder under which a strap slips. Common practice, no source.

# From these shares of the shoulder and of the way to the bust line a neckline is wide, and deep. Common practice says that they
# trade against each other; the figures are our own choice.
WIDE, DEEP = 0.6, 0.5


def _run(look: Look) -> Iterable[Finding]:
    unit = look.scope.unit
    for piece in look.pattern.pieces:
        roles = {role for _edge, role in piece.roles}
        drafted = look.block.drafted(piece)
        if drafted is piece or not _is_changed(piece, drafted):
            continue
        down, out = shares(piece, drafted)
        if out > WIDE and down > DEEP and "shoulder" in roles:
            yield Finding(
                "neck_depth", Severity.REMARK, piece.name, "neckline:wide",
                f"the {words(piece.name)} neckline is wide and deep: it may slip off the shoulders",
                100.0 * out, 100.0 * WIDE, "%", "Make it narrower or shallower, or hold it by a strap behind.",
            )  # fmt: skip
        for edge, left in _shoulders(piece):
            if left < STRAP:
                yield Finding(
                    "neck_depth", Severity.WARNING, piece.name, f"{edge}:strap",
                    f"{format_length(left, unit)} of the {words(edge)} is left: a strap this narrow slips",
                    left, STRAP, "mm", f"Leave {format_length(STRAP, unit)} or more, or hold it by lingerie loops.",
                )  # fmt: skip


def _is_changed(piece: Piece, drafted: Piece) -> bool:
    """Whether the neckline is another than the block's."""
    mine = [run.source.line for run in piece.runs if piece.role(run.edge) == "neckline"]
    theirs = {run.source.line for run in drafted.runs if drafted.role(run.edge) == "neckline"}
    return bool(mine) and not set(mine) & theirs


def _shoulders(piece: Piece) -> list[tuple[str, float]]:
    """The shoulders with their sewn lengths; of a panel the whole shoulder cannot be told."""
    if piece.of and piece.of != piece.name:
        return []
    ids = [edge for edge, role in piece.roles if role == "shoulder"]
    if piece.is_unfolded:
        lengths = [(edge, piece.edge(edge).sewn_length) for edge in ids]
        return lengths[:1] if len(lengths) == len(Side) and abs(lengths[0][1] - lengths[1][1]) < 0.01 else lengths
    return [(edge, piece.edge(edge).sewn_length) for edge in ids]


CHECK = Check("neck_depth", "Necklines and straps stay on the shoulder", _run)
