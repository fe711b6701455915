"""14: a grain line that does not run along the fold that the piece is cut on."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.conventions.options import is_on_fold
from zesty_pivot.core.finish.piece import cut_order
from zesty_pivot.core.moves.grain import fold_direction, turned
from zesty_pivot.core.piece.names import words

LIMIT_DEG = 1.0  # about 5 mm in 30 cm, which the eye sees in stripes. Common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.with_extras:
        way = fold_direction(piece)
        if way is None or piece.grain is None or not is_on_fold(cut_order(piece, look.finish)):
            continue
        off = abs(math.degrees(turned(piece.grain, way)))
        if off > LIMIT_DEG and not (piece.hangs and abs(off - 45.0) <= LIMIT_DEG):  # a cowl is cut on the bias
            yield Finding(
                "grain", Severity.WARNING, piece.name, "grain",
                f"the grain line of the {words(piece.name)} lies {off:.1f}° off the fold that it is cut on",
                off, LIMIT_DEG, "deg", "Cut it as a pair, or lay its grain along the fold.",
            )  # fmt: skip


CHECK = Check("grain", "Grain and fold agree", _run)
