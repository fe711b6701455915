"""A garment's lower edge raised by a length all round: along side seams, panel seams and centres, and the legs of darts."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.shaping import ended_at
from zesty_pivot.core.piece import Pattern, Piece, Run, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.lower_edge import LOWER
from zesty_pivot.core.record import replace


def raised(pattern: Pattern, names: Sequence[str], by: float) -> Pattern:
    """The pattern with the waist or hem of the pieces that come from `names` cut off `by` mm higher; darts keep their angle.

    Raises StepError where a seam or a dart that opens there is not so long.
    """
    for piece in pattern.pieces:
        mine = piece.name in names or piece.of in names or piece.body.value in names
        if mine and any(role in LOWER for _edge, role in piece.roles):
            pattern = pattern.with_piece(_raised(piece, by))
    return pattern


def _raised(piece: Piece, by: float) -> Piece:
    runs = list(piece.runs)
    lower = [index for index, run in enumerate(piece.runs) if piece.role(run.edge) in LOWER]
    for index in lower:
        before, after = (index - 1) % len(runs), piece.after(index)
        start = _end(piece, runs, index, before, by, at_start=True)
        stop = _end(piece, runs, index, after, by, at_start=False)
        runs[index] = replace(runs[index], path=ended_at(piece.runs[index].path, start, stop))
    return replace(piece, runs=tuple(runs))


def _end(piece: Piece, runs: list[Run], index: int, beside: int, by: float, *, at_start: bool) -> Vector:
    """Where an end of a lower run comes to lie; what is sewn up from it is cut off."""
    run = piece.runs[index]
    end = run.path.start if at_start else run.path.end
    dart = piece.runs[beside].mouth if at_start else run.mouth
    if dart is not None:
        pin = piece.pivot(piece.dart(dart).pivot)
        if float(np.hypot(*(pin - end))) < by + 10.0:
            what = f"the {words(dart)} dart of the {words(piece.name)} is not so long"
            raise StepError(what, where=piece.name, advice="Raise it less.")
        return np.asarray(end + unit(pin - end) * by)
    if piece.role(piece.runs[beside].edge) in LOWER:  # the middle of a whole piece
        way = piece.runs[beside if at_start else index].path.end_direction
        return np.asarray(end + np.array([-way[1], way[0]]) * by)
    other = runs[beside]
    if other.path.length < by + 10.0:
        barring = piece.runs[(beside - 1) % len(runs)].mouth if at_start else other.mouth
        what = f"the {words(other.edge)} of the {words(piece.name)} is not so long"
        if barring is not None:
            what = f"the {dart_words(piece, barring)} dart opens in the {words(other.edge)} too near the {words(run.edge)}"
        raise StepError(what, where=piece.name, advice="Raise it less." if barring is None else "Raise it less, or move it.")
    if at_start:
        path, source = other.path.split_at(other.path.length - by)[0], other.source.parted(1.0 - by / other.path.length)[0]
        runs[beside] = replace(other, path=path, source=source)
        return path.end
    path, source = other.path.split_at(by)[1], other.source.parted(by / other.path.length)[1]
    runs[beside] = replace(other, path=path, source=source)
    return path.start
