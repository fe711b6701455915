"""The lines a dart is sewn along: straight, bowed, or bent on the way to the pivot."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Motion, Path, between, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Piece

Legs = tuple[Path, Path]

EVEN_MOST = 0.9  # of the way from the mouth to the point that even legs may run side by side: they have to come together


def leg_lines(piece: Piece, dart: str, point: Vector) -> Legs:
    """The stitching lines, each from the mouth to the sewn point (2,) mm; both equally long where the legs are.

    A bowed leg is the quadratic curve whose middle lies `bow_mm` from the straight line. A bent leg runs straight to the
    bend, which both sides hold turned about the pivot by half the dart's angle, and from there to the point. Even legs run side
    by side from a mouth at the waist, and then to the point.
    """
    shape, mouth = piece.dart(dart).shape, piece.mouth(dart)
    if shape.bend_mm:
        pin, half = piece.pivot(piece.dart(dart).pivot), piece.angle(dart) / 2.0
        at = bend(piece, dart)
        lips = (Motion.turn(pin, -half)(at), Motion.turn(pin, half)(at))
        return Path.straight(mouth[0], lips[0], point), Path.straight(mouth[1], lips[1], point)
    if shape.bow_mm:
        return _bowed(mouth[0], point, mouth[1], shape.bow_mm), _bowed(mouth[1], point, mouth[0], shape.bow_mm)
    if shape.even_mm and piece.role(piece.dart_edge(dart)) == "waist":
        axis = point - (mouth[0] + mouth[1]) / 2.0
        up = unit(axis) * min(shape.even_mm, EVEN_MOST * float(np.hypot(*axis)))
        return Path.straight(mouth[0], mouth[0] + up, point), Path.straight(mouth[1], mouth[1] + up, point)
    return Path.straight(mouth[0], point), Path.straight(mouth[1], point)


def meeting_point(point: Vector, mouth: tuple[Vector, Vector], bow_mm: float) -> Vector:
    """Where the legs' lines at the mouth meet: the point about which the intake is folded for its cap. `point` (2,) mm is the
    sewn point, which is itself the answer for straight legs."""
    if not bow_mm:
        return point
    along = _bowed(mouth[0], point, mouth[1], bow_mm).start_direction
    axis = unit((mouth[0] + mouth[1]) / 2.0 - point)
    gap = mouth[0] - point
    cross = float(along[0] * axis[1] - along[1] * axis[0])
    reach = float(gap[0] * along[1] - gap[1] * along[0]) / -cross
    found: Vector = point + axis * reach
    return found


def bend(piece: Piece, dart: str) -> Vector:
    """The bend of a bent dart, on its axis, (2,) mm."""
    pin, shape = piece.pivot(piece.dart(dart).pivot), piece.dart(dart).shape
    out = np.asarray(np.mean(piece.mouth(dart), axis=0) - pin)
    along = unit(out)
    across = np.array([-along[1], along[0]])  # clockwise about the pivot, y runs down
    leg = float(np.mean(piece.legs(dart)))
    found: Vector = pin + along * (leg * shape.bend_at) + across * shape.bend_mm
    return found


def _bowed(start: Vector, point: Vector, other: Vector, bow: float) -> Path:
    """A leg bowed away from the other mouth end by `bow` mm at its middle."""
    along = unit(point - start)
    across = np.array([-along[1], along[0]])
    if between(along, other - start) > 0.0:
        across = -across
    control = (start + point) / 2.0 + across * (2.0 * bow)
    return Path(np.array([[start, start + (control - start) * (2.0 / 3.0), point + (control - point) * (2.0 / 3.0), point]]))
