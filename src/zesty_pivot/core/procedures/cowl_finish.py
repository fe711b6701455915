"""What makes a cowl hang and wear well: shoulder pleats, the facing cut in one, the bias, a stay, the back's neck."""

from __future__ import annotations

from typing import Literal

import numpy as np

from zesty_pivot.core.errors import GeometryError, StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.grain import grain_along
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.moves.let_lines import anchor
from zesty_pivot.core.moves.neckline import neck_source
from zesty_pivot.core.piece import Extra, Fullness, LetLine, Lies, Pattern, Piece, Run, Taking, TurnedBack
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.into_panels import free_name
from zesty_pivot.core.procedures.strips import RAW, straight_strip
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

STAY = 10.0  # mm, the width of a stay tape. Common practice, no source
USUAL_PLEAT, LEAST_PLEAT = 15.0, 4.0  # mm deep. Common practice, no source
USUAL_END, MOST_FACING = 40.0, 300.0  # mm of a facing along the shoulder, and at the centre. Common practice, no source
INSIDE = 8.0  # mm of the shoulder that stays clear before the first pleat and behind the last. Our own choice


def pleated_shoulder(
    pattern: Pattern, piece: Piece, folds: int, deep: float | None, context: Context
) -> tuple[Piece, list[float]]:  # fmt: skip
    """The piece with a pleat on the shoulder for each fold beyond the edge's, level across to the centre, and how far from the
    shoulder point (mm) they lie; of no given depth as deep as usual, where there is room for it.

    Raises StepError where the shoulder has no room for them.
    """
    if folds == 1:
        return piece, []
    unit_ = context.scope.unit
    edge = next(id for id, role in piece.roles if role == "shoulder")
    long = 0.0
    for run in piece.edge(edge).runs:  # up to a dart, if one opens there
        long += run.path.length
        if run.mouth is not None:
            break
    each = long / folds
    is_usual = deep is None
    if deep is None:
        deep = USUAL_PLEAT if each - USUAL_PLEAT >= INSIDE else 0.0 if each - INSIDE < LEAST_PLEAT else each - INSIDE
    if deep < 0.0 or (deep > 0.0 and each - deep < INSIDE):
        room = max(0.0, each - INSIDE)
        what = f"{folds - 1} shoulder pleats of {format_length(deep, unit_)} on {format_length(long, unit_)} of the shoulder"
        raise StepError(
            what, where=piece.name, advice=f"Make them up to {format_length(room, unit_)} deep, or take fewer folds."
        )
    anchors = [each * (number + 1) for number in range(folds - 1)]
    if deep == 0.0:
        return piece, anchors
    lines = []
    for at in anchors:
        begin = places.along(piece, edge, at)
        end = _level_on_centre(piece, places.point(piece, begin))
        lines.append(LetLine(anchor(piece, begin), anchor(piece, end), (2.0 * deep, 2.0 * deep), Lies.BEFORE))
    taken = {full.id for other in pattern.pieces for full in other.fullness}
    name = next(f"{piece.name}.cowl{number or ''}" for number in range(99) if f"{piece.name}.cowl{number or ''}" not in taken)
    full = Fullness(name, Taking.PLEATS, tuple(lines), style="shoulder pleat", held=(True, False))
    made = replace(piece, fullness=(*piece.fullness, full))
    if is_usual:
        try:
            laid_open(made)
        except GeometryError:  # a dart beside them: the folds are soft
            return piece, anchors
    return made, anchors


def _level_on_centre(piece: Piece, point: Vector) -> places.Place:
    """The place of the centre straight across from a point."""
    edge = piece.edge(piece.fold or "centre")
    first, last = edge.runs[0].path.start, edge.runs[-1].path.end
    along = float((point - first) @ unit(last - first))
    return places.along(piece, edge.id, min(max(along, 0.0), edge.sewn_length))


def faced(piece: Piece, deep: float, end: float | None, context: Context) -> Piece:
    """The piece with a facing cut in one with its edge, at its end as deep as the shoulder has room where no depth is given.
    Raises StepError for a depth that cannot be."""
    if deep == 0.0:
        return piece
    unit_ = context.scope.unit
    neck = piece.edge(next(id for id, role in piece.roles if role == "neckline"))
    shoulder = piece.edge(next(id for id, role in piece.roles if role == "shoulder")).runs[0].path.length
    shoulder = min([shoulder, *(_first_fold(piece, line) for full in piece.fullness for line in full.lines)])
    end = min(USUAL_END, 0.9 * shoulder) if end is None else end
    room = min(piece.edge(piece.fold or "centre").sewn_length - 10.0, MOST_FACING)
    for mm, most, what in ((deep, room, "at the centre"), (end, shoulder, "along the shoulder")):
        if not 5.0 <= mm <= most:
            said = f"a facing {format_length(mm, unit_)} deep {what}"
            advice = f"Enter 0.5 cm to {format_length(most, unit_)}, or 0 at the centre for none."
            raise StepError(said, where=piece.name, advice=advice)
    return replace(piece, turned_back=(TurnedBack(neck.id, deep, end),))


def _first_fold(piece: Piece, line: LetLine) -> float:
    """How far along the shoulder (mm) the cloth of a pleat begins to lie."""
    return places.sewn_distance(piece, places.by_origin(piece, line.start)) - line.by[0] / 2.0


def on_grain(piece: Piece, grain: Literal["bias", "straight"]) -> Piece:
    """The piece with its grain line at 45 degrees to the centre, or along it."""
    edge = piece.edge(piece.fold or "centre")
    up = unit(edge.runs[-1].path.end - edge.runs[0].path.start)
    out = np.array([-up[1], up[0]])
    way = up if grain == "straight" else unit(up + out)
    return replace(piece, grain=grain_along(piece, np.asarray(way)))


def on_bias(piece: Piece) -> Piece:
    """The piece with its grain line turned by 45 degrees."""
    own = np.array([0.0, -1.0]) if piece.grain is None else unit(np.subtract(piece.grain[1], piece.grain[0]))
    return replace(piece, grain=grain_along(piece, np.asarray(unit(own + np.array([-own[1], own[0]])))))


def widened(pattern: Pattern, name: str, by: float, context: Context) -> Pattern:
    """The pattern with the neckline of a piece begun `by` mm further out on the shoulder, in a curve from its centre. Raises
    StepError where a dart opens there, or there is no such neckline."""
    piece = pattern.piece(name)
    roles = dict(piece.roles)
    if piece.is_unfolded or not {"neckline", "shoulder", "centre"} <= set(roles.values()):
        what = f"the {words(name)} is not a half with a neckline and a shoulder"
        raise StepError(what, where=name, advice="Name the half that goes with it, or none.")
    neck, shoulder = (next(id for id, role in piece.roles if role == its) for its in ("neckline", "shoulder"))
    if any(run.mouth is not None for run in piece.edge(neck).runs):
        raise StepError(f"a dart opens in the neckline of the {words(name)}", where=name, advice="Move it away first.")
    first = piece.edge(shoulder).runs[0]
    if by > first.path.length - 5.0:
        room = format_length(first.path.length - 5.0, context.scope.unit)
        what = f"the {words(name)} has {room} of the shoulder before a dart"
        raise StepError(what, where=name, advice="Begin less far out, or move that dart away.")
    path = first.path.split_at(by)[1]
    start = piece.edge(neck).runs[0].path.start
    end = path.start
    up = unit(piece.edge(next(id for id, role in piece.roles if role == "centre")).runs[-1].path.end_direction)
    out = np.array([-up[1], up[0]])
    reach = abs(float((end - start) @ out))
    into = np.array([-path.start_direction[1], path.start_direction[0]])
    curve = Path(np.array([[start, start + out * reach * 0.55, end + into * 0.6 * abs(float((end - start) @ up)), end]]))
    runs: list[Run] = [Run(neck, curve, neck_source(piece, "cowl_back", pointed=False))]
    runs.append(replace(first, path=path, source=first.source.parted(by / first.path.length)[1]))
    rest = [run for run in piece.runs if run.edge != neck and run is not first]
    return pattern.with_piece(replace(piece, runs=(*runs, *rest)))


def shoulder_stay(pattern: Pattern, name: str) -> Pattern:
    """The pattern with a stay for the shoulder of a piece: a tape of its length."""
    piece = pattern.piece(name)
    long = sum(piece.edge(id).sewn_length for id, role in piece.roles if role == "shoulder")
    strip = straight_strip(free_name(pattern, f"{name}_shoulder_stay"), long, STAY, "along", (), (), RAW)
    return replace(pattern, extras=(*pattern.extras, Extra(strip, "stay", (name,), cut="pair")))
