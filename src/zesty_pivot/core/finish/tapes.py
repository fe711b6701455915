"""Tapes that are wanted on the sheet, as marks on their pieces."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping

import numpy as np

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.mark import Mark
from zesty_pivot.core.piece.pattern import Tape
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import format_length

STILL = 0.05  # mm: a tape that shows more or less than this on the pattern as it is now is not drawn on it
BESIDE = 5.0  # mm from the line to the middle of its words


def is_drawn(tape: Tape, pattern: Pattern, context: Context) -> bool:
    """Whether a tape can be drawn on a pattern: it still shows there what it showed at its place in the recipe."""
    try:
        reading = tape.asked.reading(pattern, context)
    except ZestyError:
        return False
    names = {name for name, _path in reading.lines}
    return abs(reading.mm - tape.mm) <= STILL and bool(names) and not any(pattern.piece(name).fullness for name in names)


def tape_marks(pattern: Pattern, context: Context) -> Mapping[str, tuple[Mark, ...]]:
    """The marks of the tapes that are wanted on the sheet and can be drawn, by piece: a thin line, but for those along a seam,
    and what it shows beside it."""
    found: dict[str, list[Mark]] = defaultdict(list)
    for kept, tape in enumerate(pattern.tapes, start=1):
        if not tape.on_sheet or not is_drawn(tape, pattern, context):
            continue
        lines = tape.asked.reading(pattern, context).lines
        for number, (name, path) in enumerate(lines):
            id = f"tape.{tape.key or kept}.{number}"
            if tape.asked.way != "seam":
                found[name].append(Mark(id, "thin", path))
            if number == 0:
                along = path.direction_at(path.length / 2.0)
                at = path.point_at(path.length / 2.0) + np.array([-along[1], along[0]]) * BESIDE
                text = f"{tape.name} {format_length(tape.mm, context.scope.unit)}"
                found[name].append(Mark(f"{id}.words", "text", at=(float(at[0]), float(at[1])), text=text))
    return {name: tuple(marks) for name, marks in found.items()}
