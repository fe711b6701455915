"""What slashes that let cloth in are at the edges they end on: how long the edge is on the paper, and once it is taken up."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from zesty_pivot.core.geometry import Motion, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.folded_edge import NOTHING, Parting
from zesty_pivot.core.piece.fullness import Fullness, Taking
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place, along, by_origin, is_joint, point, sewn_distance
from zesty_pivot.core.record import record


@record
class LaidEnd:
    """Where fullness meets an edge: how long the edge is on the paper and once it is taken up (mm), from the first to the last
    slash; the points of both there, and the way out of the piece at the middle. `held` tells whether it is taken up there."""

    edge: str
    open_mm: float
    sewn_mm: float
    start: Vector
    stop: Vector
    middle: Vector
    outwards: Vector
    held: bool

    @property
    def taken_mm(self) -> float:
        """How much is taken up."""
        return self.open_mm - self.sewn_mm


def ends_of(
    piece: Piece, made: Piece, full: Fullness, slashes: Sequence[Parting], motions: Sequence[Motion]
) -> Iterator[LaidEnd]:
    """What the slashes' ends are on the paper, for each edge on which something is let in."""
    for which in (0, 1):
        edges = [edge_parted(piece, slash.places[which]) for slash in slashes]
        for edge in dict.fromkeys(edges):
            mine = [k for k, name in enumerate(edges) if name == edge]
            if all(slashes[k].line.by[which] <= NOTHING for k in mine):
                continue
            first, last = mine[0], mine[-1]
            if full.stretch is not None and which == 0:
                yield gathered_end(piece, made, full, edge)
                continue
            sewn = abs(_along(piece, slashes[last].places[which], edge) - _along(piece, slashes[first].places[which], edge))
            start, stop = motions[first](slashes[first].ends[which]), motions[last + 1](slashes[last].ends[which])
            out = unit(stop - start if which == 0 else start - stop)
            if full.taking is Taking.GATHERS:  # half a strip to either side belongs to them
                sewn *= len(mine) / max(1.0, len(mine) - 1.0)
            open_mm = sewn + _grown(piece, made, edge)
            outwards = np.array([out[1], -out[0]])
            yield LaidEnd(edge, open_mm, sewn, start, stop, (start + stop) / 2.0, outwards, full.held[which])


def gathered_end(piece: Piece, made: Piece, full: Fullness, edge: str) -> LaidEnd:
    """The gathered stretch of an edge, from where gathers start to where they stop."""
    assert full.stretch is not None
    there = [by_origin(piece, at) for at in full.stretch]
    sewn = abs(_along(piece, there[1], edge) - _along(piece, there[0], edge))
    start, stop = (by_origin(made, at) for at in full.stretch)
    begin, end = sorted((_along(made, start, edge), _along(made, stop, edge)))
    a, b = point(made, start), point(made, stop)
    middle = along(made, edge, (begin + end) / 2.0)
    out = made.runs[middle.run].path.direction_at(middle.at)
    return LaidEnd(edge, sewn + _grown(piece, made, edge), sewn - full.own_mm, a, b, point(made, middle),
                   np.array([out[1], -out[0]]), held=True)  # fmt: skip


def edge_parted(piece: Piece, place: Place) -> str:
    """The edge that a slash parts; at the end of the centre the edge that meets it there."""
    edge = piece.runs[place.run].edge
    if is_joint(piece, place) and piece.role(edge) == "centre":
        return piece.runs[piece.after(place.run)].edge
    return edge


def _along(piece: Piece, place: Place, edge: str) -> float:
    """The sewn distance (mm) of a place from the beginning of an edge; nothing for the joint before it."""
    return sewn_distance(piece, place) if piece.runs[place.run].edge == edge else 0.0


def _grown(piece: Piece, made: Piece, edge: str) -> float:
    """How much longer an edge is on the paper, mm."""
    return made.edge(edge).sewn_length - piece.edge(edge).sewn_length
