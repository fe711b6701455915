"""A lay: where every piece lies on the cloth, how long it is, and whether it can be cut."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import shapely
from shapely import affinity

from zesty_pivot.core.finish.moved import moved_piece
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.kept import cached_property, kept_with
from zesty_pivot.core.nest.cloth import Cloth
from zesty_pivot.core.nest.cut_pieces import CutPiece, fold_line
from zesty_pivot.core.record import record, replace

NEAR = 0.01  # mm: nearer than the gap by no more than this is no fault


@record
class OnCloth:
    """A cut piece turned by so many degrees (counted from x towards y) about its frame's origin, then shifted to (x, y) mm."""

    key: str
    turn: float
    x: float
    y: float
    is_locked: bool = False


@record
class LayPlan:
    """Pieces on a cloth; y from the edge (or the fold) of what may be cut from. `places` are in the order of `pieces`."""

    cloth: Cloth
    pieces: tuple[CutPiece, ...]
    places: tuple[OnCloth, ...]

    @cached_property
    def shapes(self) -> tuple[shapely.Polygon, ...]:
        """The outline of each piece where it lies."""
        return tuple(placed(piece, place) for piece, place in zip(self.pieces, self.places, strict=True))

    @property
    def length(self) -> float:
        """Mm of cloth from the first piece to the last."""
        if not self.shapes:
            return 0.0
        return float(max(shape.bounds[2] for shape in self.shapes) - min(0.0, *(shape.bounds[0] for shape in self.shapes)))

    @property
    def bought(self) -> float:
        """Mm of cloth to buy."""
        return self.cloth.bought(self.length)

    @property
    def cost(self) -> float:
        """What it costs, by the price of a metre."""
        return self.bought / 1000.0 * self.cloth.price

    @property
    def area(self) -> float:
        """Mm² of cloth in the pieces, both layers of folded cloth counted."""
        return sum(float(shape.area) for shape in self.shapes) * (2.0 if self.cloth.is_folded else 1.0)

    @property
    def whole(self) -> float:
        """Mm² of the cloth that is laid, as wide as it is once it has shrunk."""
        return self.length * self.cloth.width * (1.0 - self.cloth.shrinks[1])

    @property
    def used(self) -> float:
        """The share of the cloth that is in the pieces."""
        return self.area / self.whole if self.whole else 0.0

    @cached_property
    def clashes(self) -> frozenset[str]:
        """The pieces that lie on each other, nearer than the gap, off the cloth, or off the fold that they belong to."""
        if not self.shapes:
            return frozenset()
        found: set[str] = set()
        tree, gap = shapely.STRtree(self.shapes), self.cloth.gap
        for n, m in zip(*tree.query(self.shapes, predicate="dwithin", distance=max(gap - NEAR, 0.0)), strict=True):
            if n != m and (gap > NEAR or self.shapes[n].intersection(self.shapes[m]).area > NEAR):
                found |= {self.pieces[n].key, self.pieces[m].key}
        for piece, shape in zip(self.pieces, self.shapes, strict=True):
            _left, low, _right, high = shape.bounds
            at_fold = abs(low) > 2.0 * NEAR + 0.2 if piece.is_at_fold else low < -NEAR - (0.2 if self.cloth.is_folded else 0.0)
            if at_fold or high > self.cloth.usable + NEAR or shape.bounds[0] < -NEAR:
                found.add(piece.key)
        return frozenset(found)

    @cached_property
    def laid(self) -> tuple[Laid, ...]:
        """The pieces as they are drawn, with their lines, in mm of the cloth."""
        found: list[Laid] = []
        for piece, place in zip(self.pieces, self.places, strict=True):
            found += [Laid(drawn, place.x, place.y) for drawn in _drawn(piece, place.turn)]
        return tuple(found)


@kept_with
def _drawn(piece: CutPiece, turn: float) -> tuple[FinishedPiece, ...]:
    """A cut piece with its lines, turned by so many degrees: both halves where it is opened."""
    motion = piece.motion.then(Motion.turn(np.zeros(2), math.radians(turn)))
    whole = moved_piece(piece.piece, motion)
    if not piece.is_opened:
        return (whole,)
    start, stop = fold_line(piece.piece)
    return whole, _half(moved_piece(piece.piece, Motion.reflect(start, stop - start).then(motion)))


def _half(piece: FinishedPiece) -> FinishedPiece:
    """The other half of an opened piece: its lines, its words only once."""
    return replace(piece, texts=(), strokes=tuple(stroke for stroke in piece.strokes if stroke.kind != "grain"))


def placed(piece: CutPiece, place: OnCloth) -> shapely.Polygon:
    """The outline of a piece where it lies."""
    return affinity.translate(affinity.rotate(piece.shape, place.turn, origin=(0.0, 0.0)), place.x, place.y)


def plan_of_places(cloth: Cloth, pieces: Sequence[CutPiece], places: Sequence[OnCloth]) -> LayPlan:
    """A plan with its places in the order of the pieces."""
    known = {place.key: place for place in places}
    return LayPlan(cloth, tuple(pieces), tuple(known[piece.key] for piece in pieces))
