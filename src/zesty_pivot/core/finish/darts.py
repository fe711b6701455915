"""How each dart is sewn: its point set back on the bisector, the way it folds, and the end at its mouth."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.finish.cap import cap
from zesty_pivot.core.finish.options import DartFinish, Finish
from zesty_pivot.core.finish.schools import FOLDS, LARGE_INTAKE, SETBACKS
from zesty_pivot.core.geometry import Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.quantity import Scope, length_mm


@dataclass(frozen=True)
class SewnDart:
    """A dart as it is sewn. `point` (2,) mm is the sewn point; `cap` the edge at the mouth in loop order, or None
    when the inside is cut away with `cut_away_mm` on each leg. `note` says why another end than the asked one was taken.
    """

    dart: str
    edge: str
    mouth: tuple[Vector, Vector]
    point: Vector
    setback_mm: float
    fold: str
    cap: Path | None
    cut_away_mm: float
    note: str = ""

    @property
    def legs(self) -> tuple[Path, Path]:
        """The stitching lines, each from the mouth to the sewn point."""
        return Path.straight(self.mouth[0], self.point), Path.straight(self.mouth[1], self.point)


def home_edge(piece: Piece, dart: str) -> str:
    """The edge whose habits a dart follows; at a corner with the centre the other edge, as the centre lies still."""
    index = piece.mouth_run(dart)
    before, after = piece.runs[index].edge, piece.runs[piece.after(index)].edge
    return after if piece.role(before) == "centre" and before != after else before


def sewn_dart(piece: Piece, dart: str, finish: Finish, scope: Scope) -> SewnDart:
    """A dart with its finish. Raises FormulaError for a set-back or allowance that cannot be read."""
    own = finish.darts.get(f"{piece.name}.{dart}", DartFinish())
    intake = piece.intake(dart)
    setback = length_mm(own.setback, scope) if own.setback is not None else SETBACKS[finish.setback].distance(intake)
    mouth = piece.mouth(dart)
    point = sewn_point(piece, dart, setback)
    edge = home_edge(piece, dart)
    fold = own.fold or _away_from_centre(piece, dart, edge, FOLDS[finish.fold].sides.get(piece.role(edge), "after"))
    end = own.end or finish.end
    away = max(0.0, length_mm(finish.cut_away, scope))
    narrow = not _room_inside(mouth, point, away)
    made, note = None, ""
    if end == "cap" or narrow or (end == "auto" and intake <= LARGE_INTAKE):
        try:
            made = cap(piece, dart, point, fold)
            note = "too narrow to cut away inside, so it is folded" if narrow and end == "cut_away" else ""
        except GeometryError as fault:
            note = f"no cap can be folded ({fault.what}), so the inside is cut away"
            away = intake / 4.0 if narrow else away
    return SewnDart(dart, edge, mouth, point, setback, fold, made, away, note)


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


def sewn_point(piece: Piece, dart: str, setback: float) -> Vector:
    """The sewn point: `setback` mm from the pivot on the bisector of the mouth, at most nine tenths of the way."""
    pin = piece.pivot(piece.dart(dart).pivot)
    first, second = piece.mouth(dart)
    out = np.asarray((first + second) / 2.0 - pin)
    depth = math.hypot(out[0], out[1])
    distance = min(max(setback, 0.0), 0.9 * depth)
    found: Vector = pin + out * (distance / depth)
    return found
