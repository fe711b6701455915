"""Join: the two legs of a shut dart become one line, or two pieces are taped along partner edges."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import ANGLE_NOISE, JOIN_TOL, Motion, Path, between
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.piece.piece import Piece, Point, well_begun
from zesty_pivot.core.piece.region import arc
from zesty_pivot.core.record import replace

# Angles under this (radians) are a shut dart: at a leg of 1 m it is a gap of 1e-6 mm.
SHUT = 1e-9

_HEAL_GAP = 1e-8  # mm; two halves of one split curve meet this closely, two drafted points hardly ever
_HEAL_TURN = 1e-7  # radians


def shut(piece: Piece, dart: str) -> Piece:
    """The piece without a dart that has been swung shut; its two legs are one line, the seam runs on.

    Where both sides are halves of one split curve they become one run again.

    Raises GeometryError when the dart is still open.
    """
    if abs(piece.angle(dart)) > SHUT:
        raise GeometryError(f"the dart {dart!r} is still open", where=piece.name, advice="Swing it shut first.")
    index = piece.mouth_run(dart)
    run = replace(piece.runs[index], mouth=None)
    runs = (*piece.runs[:index], run, *piece.runs[index + 1 :])
    darts = tuple(other for other in piece.darts if other.id != dart)
    return healed(replace(piece, runs=runs, darts=darts), index)


def healed(piece: Piece, index: int) -> Piece:
    """The piece with the runs on both sides of a joint made one, when they are parts of one smooth line."""
    after = piece.after(index)
    first, second = piece.runs[index], piece.runs[after]
    if after == 0 or first.mouth is not None or not _continues(first, second):
        return piece
    source = replace(first.source, u1=second.source.u1)
    one = Run(first.edge, Path.chain([first.path, second.path]), source, second.mouth)
    return replace(piece, runs=(*piece.runs[:index], one, *piece.runs[after + 1 :]))


def _continues(first: Run, second: Run) -> bool:
    if first.edge != second.edge or first.source.line != second.source.line:
        return False
    if abs(first.source.u1 - second.source.u0) > ANGLE_NOISE:
        return False
    rates = [(run.source.u1 - run.source.u0) / run.path.length for run in (first, second)]
    if abs(rates[0] - rates[1]) > 1e-9 * abs(rates[0]):
        return False
    gap = float(np.hypot(*(second.path.start - first.path.end)))
    return gap <= _HEAL_GAP and abs(between(first.path.end_direction, second.path.start_direction)) <= _HEAL_TURN


def pieces(fixed: Piece, moving: Piece, edges: tuple[str, str], name: str) -> Piece:
    """Two pieces taped along partner edges (one of `fixed`, one of `moving`): `moving` is laid so that its
    edge's end points meet the other's, and both edges disappear.

    Raises GeometryError when the edges are not one run each, or differ in length by more than JOIN_TOL times 100.
    """
    here, there = fixed.edge(edges[0]), moving.edge(edges[1])
    if len(here.runs) != 1 or len(there.runs) != 1:
        raise GeometryError("only whole edges without darts can be taped", where=name)
    one, two = here.runs[0].path, there.runs[0].path
    if abs(one.length - two.length) > JOIN_TOL * 100.0:
        raise GeometryError(
            f"the edges differ by {abs(one.length - two.length):.3f} mm", where=name, advice="Make them equal first."
        )
    motion = Motion.lay((two.end, two.start), (one.start, one.end))
    laid = moved(moving, motion)
    at, start = fixed.runs.index(here.runs[0]), moving.runs.index(there.runs[0])
    taken = arc(moving, moving.after(start), (start - 1) % len(moving.runs))
    inserted = tuple(laid.runs[index] for index in taken)
    known = {**dict(moving.roles), **dict(fixed.roles)}
    runs = well_begun((*fixed.runs[:at], *inserted, *fixed.runs[at + 1 :]), known)
    return replace(
        fixed,
        name=name,
        runs=runs,
        roles=tuple((edge, known[edge]) for edge in dict.fromkeys(run.edge for run in runs)),
        darts=fixed.darts + tuple(dart for dart in moving.darts if not fixed.has_dart(dart.id)),
        landmarks={**laid.landmarks, **fixed.landmarks},
        fold=fixed.fold or moving.fold,
        grain=fixed.grain or laid.grain,
        fisheyes=fixed.fisheyes + laid.fisheyes,
        fullness=fixed.fullness + moving.fullness,
        added=fixed.added + moving.added,
        let_in=fixed.let_in + moving.let_in,
        taken=fixed.taken + moving.taken,
        sides=fixed.sides.joined(moving.sides.known),
    )


def moved(piece: Piece, motion: Motion) -> Piece:
    """The piece after a rigid motion."""

    def at(point: Point) -> Point:
        x, y = motion(np.array(point))
        return float(x), float(y)

    return replace(
        piece,
        runs=tuple(replace(run, path=run.path.moved(motion)) for run in piece.runs),
        landmarks={name: at(point) for name, point in piece.landmarks.items()},
        grain=(at(piece.grain[0]), at(piece.grain[1])) if piece.grain else None,
        fisheyes=tuple(eye.moved(motion) for eye in piece.fisheyes),
    )
