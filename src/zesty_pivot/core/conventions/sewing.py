"""Where a dart is sewn to. Truing, corners, folding, caps, girths, hand sheets and marks all ask here.

The cloth is sewn to the sewn point, not to the pivot: a seam that is smooth with the dart shut about the pivot has a corner of
several degrees when it is shut along its new legs, from the mouth's ends to a point set back. Common practice, no source.
"""

from __future__ import annotations

import math
from collections.abc import Collection
from contextlib import suppress
from dataclasses import field

import numpy as np

from zesty_pivot.core.conventions.leg_lines import Legs, bend, leg_lines, meeting_point
from zesty_pivot.core.conventions.options import DartFinish, Finish
from zesty_pivot.core.conventions.schools import SETBACKS
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry import Motion, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Body, DartRef, Piece, Use, called
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.record import record, replace

POINT = "*point."  # how the names of points that darts are sewn to begin; names of files cannot
FURTHEST = 0.9  # of the way from the pivot to the mouth: a dart keeps a tenth of its length to sew. Our own choice


@record
class OwnPoint:
    """What was decided for one dart otherwise than its style: a set-back in mm, or a school."""

    setback_mm: float | None = None
    school: str | None = None


@record
class Sewing:
    """How a style sews its darts: the school of the set-back, the intake (mm) above which a dart is a large one (None: as the
    school has it), and what was decided for single darts."""

    school: str = "graded"
    large_mm: float | None = None
    own: tuple[tuple[DartRef, OwnPoint], ...] = field(default=())

    def of(self, piece: Piece, dart: str) -> OwnPoint:
        """What was decided for one dart."""
        if not self.own:
            return OwnPoint()
        ref = DartRef(piece.name, called(piece, dart))
        return next((own for at, own in self.own if at == ref), OwnPoint())

    def by_school(self, name: str, intake_mm: float) -> float:
        """The set-back in mm of a school for a dart of this intake."""
        return SETBACKS[name].distance(intake_mm, self.large_mm)


PLAIN = Sewing()  # a style that decides nothing


def sewing_of(finish: Finish, scope: Scope) -> Sewing:
    """How a style with this finish sews. A length that cannot be worked out is left to the school; a check tells of it."""
    large = None
    own: list[tuple[DartRef, OwnPoint]] = []
    with suppress(ZestyError):
        large = None if finish.large_dart is None else length_mm(finish.large_dart, scope)
    for key, decided in finish.darts.items():
        found = _own(decided, scope)
        if found != OwnPoint():
            own.append((DartRef.read(key), found))
    return Sewing(finish.setback, large, tuple(own))


def _own(decided: DartFinish, scope: Scope) -> OwnPoint:
    with suppress(ZestyError):
        if decided.setback is not None:
            return OwnPoint(setback_mm=length_mm(decided.setback, scope))
    return OwnPoint(school=decided.school)


def setback_of(piece: Piece, dart: str, sewing: Sewing) -> float:
    """How far a dart is sewn from its pivot, mm: its own set-back or school; else the point that the block brought, the
    pivot itself on the back, whose darts are sewn to their own tips, or where it is the tip; and the style's school on the
    front."""
    held = piece.dart(dart)
    if held.use in (Use.TUCK, Use.PLEAT):
        return 0.0  # folded along lines to the pivot
    own = sewing.of(piece, dart)
    if own.setback_mm is not None:
        return own.setback_mm
    if own.school is not None:
        return sewing.by_school(own.school, piece.intake(dart))
    if held.extended_mm > 0.0:
        return held.extended_mm
    return 0.0 if piece.body is Body.BACK or held.at_tip else sewing.by_school(sewing.school, piece.intake(dart))


def sewn_point(piece: Piece, dart: str, sewing: Sewing) -> Vector:
    """The point a dart is sewn to, (2,) mm: set back from the pivot on the bisector of the mouth, at most nine tenths of the
    way; of a bent dart on the line to its bend. A point that the block brought beside the bisector stays beside it."""
    return _point(piece, dart, piece.mouth(dart), sewing)


def _point(piece: Piece, dart: str, mouth: tuple[Vector, Vector], sewing: Sewing) -> Vector:
    """The sewn point of a dart with its mouth at these places."""
    held = piece.dart(dart)
    pin = piece.pivot(held.pivot)
    out = np.asarray((mouth[0] + mouth[1]) / 2.0 - pin)
    if held.shape.bend_mm:
        out = bend(piece, dart) - pin
    depth = math.hypot(out[0], out[1])
    distance = min(max(setback_of(piece, dart, sewing), 0.0), FURTHEST * depth)
    way = out / depth
    if held.beside and distance == held.extended_mm:
        way = Motion.turn(np.zeros(2), held.beside)(way)
    found: Vector = pin + way * distance
    return found


def sewn_legs(piece: Piece, dart: str, sewing: Sewing) -> Legs:
    """The lines a dart is sewn along, each from the mouth to the sewn point."""
    return leg_lines(piece, dart, sewn_point(piece, dart, sewing))


def closing_point(piece: Piece, dart: str, sewing: Sewing) -> Vector:
    """The point about which one leg turns onto the other at the mouth, (2,) mm: the sewn point; where the legs are bowed,
    where their lines at the mouth meet; where they bend, the pivot that both sides of the bend were turned about."""
    return closing_point_of(piece, dart, piece.mouth(dart), sewing)


def closing_point_of(piece: Piece, dart: str, mouth: tuple[Vector, Vector], sewing: Sewing) -> Vector:
    """The closing point of a dart if its mouth had these ends."""
    held = piece.dart(dart)
    if held.shape.bend_mm:
        return piece.pivot(held.pivot)
    return meeting_point(_point(piece, dart, mouth, sewing), mouth, held.shape.bow_mm)


def closing_angle(piece: Piece, dart: str, sewing: Sewing) -> float:
    """The angle (radians) by which one side of a mouth turns about the closing point when the dart is sewn."""
    point, (first, second) = closing_point(piece, dart, sewing), piece.mouth(dart)
    return between(first - point, second - point)


def at_sewn_points(piece: Piece, chosen: Collection[str], sewing: Sewing) -> Piece:
    """The piece with some darts ending where they close: one pin each, where each is sewn to."""
    pins = {POINT + dart: closing_point(piece, dart, sewing) for dart in chosen}
    landmarks = {**piece.landmarks, **{name: (float(at[0]), float(at[1])) for name, at in pins.items()}}
    darts = tuple(replace(dart, pivot=POINT + dart.id) if dart.id in chosen else dart for dart in piece.darts)
    return replace(piece, landmarks=landmarks, darts=darts)
