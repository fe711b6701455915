"""How each dart is sewn: its point set back on the bisector, the way it folds, and the end at its mouth."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.conventions.leg_lines import leg_lines, meeting_point
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.conventions.schools import CAP_UP_TO, FOLDS
from zesty_pivot.core.conventions.sewing import Sewing, setback_of, sewing_of, sewn_point
from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.finish.cap import cap, pointed
from zesty_pivot.core.geometry import Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.open_up import bridge, home_edge
from zesty_pivot.core.piece import Piece, Use, called, dart_key
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.record import record

# A soft pleat is marked this far (mm) from its seam. Common practice, no source.
PLEAT_MARK = 60.0


@record
class SewnDart:
    """A dart as it is sewn, or a tuck or pleat as it is folded. `point` (2,) mm is the sewn point, of tucks and pleats the
    pivot their lines run to; `legs` the lines that are drawn, each from the mouth. `cap` is the edge at the mouth in loop
    order (`cap_parts` with the edges it was traced from), or None when the inside is cut away with `cut_away_mm` on each leg.
    `note` says why another end than the asked one was taken; `called` is what the dart is called by where it opens.
    """

    dart: str
    edge: str
    use: Use
    mouth: tuple[Vector, Vector]
    point: Vector
    setback_mm: float
    legs: tuple[Path, Path]
    fold: str
    cap: Path | None
    cut_away_mm: float
    note: str = ""
    called: str = ""
    cap_parts: tuple[tuple[str, Path], ...] = ()


def sewn_dart(piece: Piece, dart: str, finish: Finish, scope: Scope) -> SewnDart:
    """A dart with its finish. Raises FormulaError for an allowance that cannot be read."""
    own = finish.of_dart(dart_key(piece, dart))
    edge = home_edge(piece, dart)
    fold = own.fold or _away_from_centre(piece, dart, edge, FOLDS[finish.fold].sides.get(piece.role(edge), "after"))
    if piece.dart(dart).use is not Use.DART:
        return _folded(piece, dart, edge, fold)
    sewing = sewing_of(finish, scope)
    setback = setback_of(piece, dart, sewing)
    mouth = piece.mouth(dart)
    point = sewn_point(piece, dart, sewing)
    away = max(0.0, length_mm(finish.cut_away, scope))
    narrow = not _room_inside(mouth, point, away)
    made, note = None, ""
    if narrow or not is_cut_away(piece, dart, finish):
        try:
            asked = finish.extension if own.extension is None else own.extension
            about = meeting_point(point, mouth, piece.dart(dart).shape.bow_mm)
            if asked is None:
                made = cap(piece, dart, about, fold)
            else:
                made = pointed(piece, dart, edge, about, max(0.0, length_mm(asked, scope)))
            note = "too narrow to cut away the inside, so it is folded" if narrow and is_cut_away(piece, dart, finish) else ""
        except GeometryError as fault:
            note = f"no cap can be folded ({fault.what}), so the inside is cut away"
            away = piece.intake(dart) / 4.0 if narrow else away
    legs = leg_lines(piece, dart, point)
    path, parts = (None, ()) if made is None else (made.path, made.parts)
    return SewnDart(dart, edge, Use.DART, mouth, point, setback, legs, fold, path, away, note, called(piece, dart), parts)


def is_cut_away(piece: Piece, dart: str, finish: Finish) -> bool:
    """Whether the inside of a dart is to be cut away: as it was decided, else by its intake and the cloth."""
    own = finish.of_dart(dart_key(piece, dart))
    end = own.end or finish.end
    return end == "cut_away" or (end == "auto" and piece.intake(dart) > CAP_UP_TO[finish.weight].most_mm)


def _folded(piece: Piece, dart: str, edge: str, fold: str) -> SewnDart:
    """A tuck or pleat: its lines run to the pivot, stitched or marked for a while, and its edge is trued by folding."""
    pin, mouth, held = piece.pivot(piece.dart(dart).pivot), piece.mouth(dart), piece.dart(dart)
    long = held.hold.stitched_mm if held.use is Use.TUCK else PLEAT_MARK
    drawn = []
    for end in mouth:
        way = Path.straight(end, pin)
        drawn.append(way.between(0.0, min(long, 0.9 * way.length)))
    note, index = "", piece.mouth_run(dart)
    first, second = piece.runs[index].path, piece.runs[piece.after(index)].path
    try:
        made = cap(piece, dart, pin, fold)
        path, parts = made.path, made.parts
    except GeometryError as fault:
        path = bridge(mouth[0], first.end_direction, mouth[1], second.start_direction)
        parts = ((edge, path),)
        note = f"its edge cannot be trued by folding ({fault.what}), so it runs straight across"
    return SewnDart(
        dart, edge, held.use, mouth, pin, 0.0, (drawn[0], drawn[1]), fold, path, 0.0, note, called(piece, dart), parts
    )


def sewn_length(piece: Piece, dart: str, sewing: Sewing) -> float:
    """How long a dart is from its mouth to its sewn point, mm."""
    return math.dist(np.mean(piece.mouth(dart), axis=0), sewn_point(piece, dart, sewing))


def _away_from_centre(piece: Piece, dart: str, edge: str, fold: str) -> str:
    """The side a dart is pressed to; at a corner with the centre not onto the centre, where no cut edge lies under it."""
    index = piece.mouth_run(dart)
    beside = piece.runs[index if fold == "before" else piece.after(index)].edge
    if piece.role(beside) == "centre" and piece.role(edge) != "centre":
        return "after" if fold == "before" else "before"
    return fold


def _room_inside(mouth: tuple[Vector, Vector], point: Vector, away: float) -> bool:
    """Whether an allowance on each leg leaves something of the intake to cut away at the mouth."""
    half_angle = abs(between(mouth[0] - point, mouth[1] - point)) / 2.0
    return math.dist(mouth[0], mouth[1]) / 2.0 > away / math.cos(half_angle) + 1.0


def worn_outline(piece: Piece, darts: Sequence[SewnDart]) -> NDArray[np.float64]:
    """The outline of the cloth that is seen once a piece is sewn, (k, 2) mm: with `darts` shut, their inside is gone; of tucks
    and pleats what is folded under at the seam."""
    sewn = {dart.dart: dart for dart in darts}
    points: list[NDArray[np.float64]] = []
    for run in piece.runs:
        points.append(run.path.outline)
        if run.mouth is not None and sewn[run.mouth].use is Use.DART:
            down, up = sewn[run.mouth].legs
            points += [down.outline, up.reversed().outline]
        elif run.mouth is not None:
            folded = sewn[run.mouth].cap
            points += [] if folded is None else [folded.outline]
    return np.concatenate(points)
