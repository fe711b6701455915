"""A finished piece laid otherwise on the paper or the cloth: turned, or turned over."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.record import replace


def moved_piece(piece: FinishedPiece, motion: Motion) -> FinishedPiece:
    """What is drawn of a piece (strokes, holes, words, cut line) after a rigid motion. Words are turned along with it, and stay
    readable where it is turned over. What the seam was cut round by and its darts are not: this is a picture of it."""
    (cos, _), (sin, _) = motion.matrix
    is_over = bool(np.linalg.det(motion.matrix) < 0.0)
    turn = math.atan2(-sin, -cos) if is_over else math.atan2(sin, cos)
    if is_over and abs(turn) > math.pi / 2.0 + 1e-9:
        turn += math.pi
    way = -1.0 if is_over else 1.0  # turned over, what leant to the left leans to the right

    def at(place: tuple[float, float]) -> tuple[float, float]:
        x, y = motion(np.array(place))
        return float(x), float(y)

    return replace(
        piece,
        strokes=tuple(replace(s, paths=tuple(path.moved(motion) for path in s.paths)) for s in piece.strokes),
        circles=tuple(replace(circle, at=at(circle.at)) for circle in piece.circles),
        texts=tuple(replace(text, at=at(text.at), turn=way * text.turn + turn) for text in piece.texts),
        ring=motion(piece.ring), darts=(), opened=(), stretches=(), garment=None,
    )  # fmt: skip


@kept_with
def quarter_turned(piece: FinishedPiece, quarters: int) -> FinishedPiece:
    """A piece turned clockwise by so many quarters about its own origin."""
    return piece if quarters % 4 == 0 else moved_piece(piece, Motion.turn(np.zeros(2), quarters * math.pi / 2.0))
