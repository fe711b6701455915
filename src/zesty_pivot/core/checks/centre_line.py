"""23: a step or corner in the centre line: it can neither lie on the fold nor be sewn as one line."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.checks.limits import SMOOTH_DEG, STEP_MM
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.with_extras:
        for index, run in enumerate(piece.runs):
            after = piece.runs[piece.after(index)]
            if run.mouth is None and run.edge == after.edge and piece.role(run.edge) == "centre":
                yield from _joint(piece, index, look)


def _joint(piece: Piece, index: int, look: Look) -> Iterable[Finding]:
    gap = math.dist(piece.runs[index].path.end, piece.runs[piece.after(index)].path.start)
    turn = abs(math.degrees(corner(piece, index, look.sewing)))
    if gap > STEP_MM:
        told, value, limit, unit = f"a step of {format_length(gap, look.scope.unit, fine=True)}", gap, STEP_MM, "mm"
    elif turn > SMOOTH_DEG and piece.fold is not None:  # a centre seam is shaped on purpose
        told, value, limit, unit = f"a corner of {turn:.1f}°", turn, SMOOTH_DEG, "deg"
    else:
        return
    yield Finding(
        "centre_line", Severity.WARNING, piece.name, f"{piece.runs[index].edge}:{index}",
        f"the centre of the {words(piece.name)} has {told} in it",
        value, limit, unit, "Begin the slash on another edge, or fold out the same amount along the whole centre.",
    )  # fmt: skip


CHECK = Check("centre_line", "The centre is one line", _run)
