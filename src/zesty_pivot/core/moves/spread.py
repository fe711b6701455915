"""Spread: a slash is opened, as a wedge about a hinge or parallel, and the seam is led across the opening."""

from __future__ import annotations

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.cut import part_twice
from zesty_pivot.core.moves.swing import carry, moving_part
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place, mouth_at, point
from zesty_pivot.core.piece.region import slash_fault
from zesty_pivot.core.record import replace


def wedge(piece: Piece, opening: Place, hinge: Place, angle: float) -> Piece:
    """The piece slashed from `opening` to `hinge` and opened there by `angle` radians about the hinge.

    The part with the longer stretch of the centre stays, as in a swing: CF and CB never move. The gap gets a straight run of
    the opening's own edge, with provenance `spread`. Raises GeometryError when the slash is not clear.
    """
    parted, one, two = _slashed(piece, opening, hinge)
    pin = point(piece, hinge)
    moving, sense = moving_part(parted, two, one)
    opened = carry(parted, moving, (), Motion.turn(pin, sense * angle), keep=set())
    return _bridged(opened, one)


def parallel(piece: Piece, first: Place, second: Place, by: Vector) -> Piece:
    """The piece slashed from `first` to `second` and parted by the shift `by` (2,) mm.

    The part from `first` clockwise to `second` is shifted by it, or the other part the other way where that one has the longer
    stretch of the centre; both gaps get a straight run of their edges. Raises GeometryError when the slash is not clear.
    """
    parted, one, two = _slashed(piece, first, second)
    moving, sense = moving_part(parted, two, one)
    opened = carry(parted, moving, (), Motion.shift(sense * by), keep=set())
    for index in sorted((one, two), reverse=True):
        opened = _bridged(opened, index)
    return opened


def _slashed(piece: Piece, first: Place, second: Place) -> tuple[Piece, int, int]:
    if mouth_at(piece, first) or mouth_at(piece, second):
        raise GeometryError("a dart opens where the slash ends", where=piece.name, advice="Move the slash aside.")
    fault = slash_fault(piece, point(piece, first), point(piece, second))
    if fault is not None:
        raise GeometryError(fault, where=piece.name, advice="Choose a place with a clear way.")
    return part_twice(piece, first, second)


def _bridged(piece: Piece, index: int) -> Piece:
    """The gap after a run closed by a straight run of the same edge."""
    start, stop = piece.runs[index].path.end, piece.runs[piece.after(index)].path.start
    if abs(stop - start).max() <= JOIN_TOL:
        return piece
    bridge = Run(piece.runs[index].edge, Path.straight(start, stop), Source("spread", 0.0, 1.0))
    return replace(piece, runs=(*piece.runs[: index + 1], bridge, *piece.runs[index + 1 :]))
