"""18: a cowl whose edge is not square to the centre, or that does not hang on the bias."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.moves.grain import fold_direction, turned
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.moves.turned_back import COWL, straight_groups
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import words

LIMIT_DEG = 0.5  # what the eye sees on a fold. Common practice, no source
BIAS_DEG = 45.0


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        flat = laid_open(piece)[0] if piece.turned_back else piece
        lost = next((one.edge for one in piece.turned_back if not straight_groups(flat, one.edge)), None)
        if lost is not None:
            mine = [run for run in flat.runs if flat.sides.name(run.edge) == lost]
            is_bent = any(run.source.edge.endswith(COWL) for run in mine)
            why = "is no longer straight: it cannot be folded back" if is_bent else "was drawn anew: it has no folds"
            yield Finding(
                "cowl", Severity.WARNING, piece.name, lost,
                f"the edge of the {words(piece.name)} {why}, and there is no facing cut in one with it now",
                1.0, 0.0, "present", "Leave one of the two steps out, or make the cowl last.",
            )  # fmt: skip
            continue
        if not piece.hangs:
            continue
        off = _off_square(piece)
        if off is not None and off > LIMIT_DEG:
            yield Finding(
                "cowl", Severity.WARNING, piece.name, "neckline",
                f"the edge of the cowl is {off:.1f}° off the square to the centre: it breaks where it is folded back",
                off, LIMIT_DEG, "deg", "Change the neckline before the cowl, not after it.",
            )  # fmt: skip
        way = fold_direction(piece)
        if way is None or piece.grain is None:
            continue
        lean = abs(abs(math.degrees(turned(piece.grain, way))) - BIAS_DEG)
        if lean > 1.0:
            yield Finding(
                "cowl", Severity.WARNING, piece.name, "grain",
                f"the cowl of the {words(piece.name)} lies {lean:.0f}° off the bias: its folds stand stiff",
                lean, 1.0, "deg", "Lay it on the bias, or choose a soft cloth and fewer folds.",
            )  # fmt: skip


def _off_square(piece: Piece) -> float | None:
    """How far (degrees) the edge is off the square to the centre; None where there is neither."""
    way = fold_direction(piece)
    necks = [edge for edge, role in piece.roles if role == "neckline"]
    if way is None or len(necks) != 1:
        return None
    along = piece.edge(necks[0]).runs[0].path.start_direction
    return abs(90.0 - math.degrees(math.acos(max(-1.0, min(1.0, abs(float(along @ way)))))))


CHECK = Check("cowl", "Cowls are square and on the bias", _run)
