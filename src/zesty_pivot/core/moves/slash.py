"""Slash and close: a wedge of cloth is folded out of an edge, to a hinge on another edge or to a pivot."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.cut import part_twice
from zesty_pivot.core.moves.swing import carry, moving_part
from zesty_pivot.core.piece import Dart, Piece, Place
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.place import mouth_at, point
from zesty_pivot.core.piece.region import contains, crosses, slash_fault
from zesty_pivot.core.record import replace


def fold_out(piece: Piece, first: Place, second: Place, hinge: Place) -> tuple[Piece, float]:
    """The piece with the wedge between two places of one run folded out about a hinge elsewhere on the outline, and the jog
    (mm) that is left in the edge where the sides of the wedge are not equally long.

    The part with the longer stretch of the centre stays, the other swings in. Raises GeometryError when a
    side of the wedge is not clear, or a mouth opens at an end.
    """
    if first.run != second.run or second.at <= first.at:
        raise GeometryError("a dart opens inside the wedge", where=piece.name, advice="Move the slash aside.")
    if mouth_at(piece, second) or mouth_at(piece, hinge):
        raise GeometryError("a dart opens where the slash ends", where=piece.name, advice="Move the slash aside.")
    pin = point(piece, hinge)
    for side in (first, second):
        fault = slash_fault(piece, point(piece, side), pin)
        if fault is not None:
            raise GeometryError(fault, where=piece.name, advice="Choose a place with a clear way.")
    near, far = point(piece, first), point(piece, second)
    _refuse_pivots(piece, near, far, pin)
    angle, jog = between(near - pin, far - pin), abs(math.dist(near, pin) - math.dist(far, pin))
    if hinge.run == second.run:
        raise GeometryError("the hinge lies on the edge that is slashed", where=piece.name, advice="Choose a hinge elsewhere.")
    parted, index, two = part_twice(piece, second, hinge)
    run = parted.runs[index]
    kept, _wedge = run.path.split_at(first.at)
    short = replace(run, path=kept, source=run.source.parted(first.at / run.path.length)[0])
    parted = replace(parted, runs=(*parted.runs[:index], short, *parted.runs[index + 1 :]))
    moving, sense = moving_part(parted, two, index)
    return carry(parted, moving, (), Motion.turn(pin, -sense * angle), keep=set()), jog


def wedge_out(piece: Piece, first: Place, second: Place, pivot: str, dart: str) -> Piece:
    """The piece with the wedge between two places of one run and a pivot cut out: an open dart whose mouth they are.

    Raises GeometryError when a side of the wedge is not clear, or a mouth opens inside it.
    """
    if first.run != second.run or second.at <= first.at:
        raise GeometryError("a dart opens inside the wedge", where=piece.name, advice="Move the slash aside.")
    if mouth_at(piece, second) or mouth_at(piece, first):
        raise GeometryError("a dart opens where the slash ends", where=piece.name, advice="Move the slash aside.")
    for side in (first, second):
        crossed = crosses(piece, point(piece, side), piece.pivot(pivot))
        if crossed is not None:
            raise GeometryError(f"the slash crosses {crossed}", where=piece.name, advice="Choose a place with a clear way.")
    _refuse_pivots(piece, point(piece, first), point(piece, second), piece.pivot(pivot))
    parted, one, two = part_twice(piece, first, second)
    if two != one + 1:
        raise GeometryError("the wedge is too near the end of its edge", where=piece.name, advice="Move the slash inwards.")
    runs = (*parted.runs[:one], replace(parted.runs[one], mouth=dart), *parted.runs[two + 1 :])
    return replace(parted, runs=runs, darts=(*parted.darts, Dart(dart, pivot)))


def _refuse_pivots(piece: Piece, near: Vector, far: Vector, tip: Vector) -> None:
    """Raises GeometryError when a pivot that darts are led to lies in the wedge that would be taken out."""
    wedge = np.array([near, far, tip])
    for name in dict.fromkeys(dart.pivot for dart in piece.darts):
        pin = piece.pivot(name)
        if math.dist(pin, tip) > JOIN_TOL and contains(wedge, pin):
            what = f"the {words(name)} lies in what would be folded out"
            raise GeometryError(what, where=piece.name, advice="Take the slash past it, or to it.")
