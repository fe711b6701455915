"""Mirror: turn a piece over, and unfold a half to the whole."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.dart import Dart
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.piece.piece import Piece, Point
from zesty_pivot.core.piece.sides import Side, Sided, Sides


def flip(piece: Piece, on: Vector, towards: Vector) -> Piece:
    """The piece turned over along the line through `on` in the direction `towards`; twice is nothing.

    The ring stays clockwise, so it is walked the other way: a mouth that opened after a run now opens after
    the next one.
    """
    motion = Motion.reflect(on, towards)
    count = len(piece.runs)
    turned: list[Run] = []
    for index in reversed(range(count)):
        run = piece.runs[index]
        opens = piece.runs[(index - 1) % count].mouth
        turned.append(Run(run.edge, run.path.moved(motion).reversed(), run.source.turned(), opens))

    def at(point: Point) -> Point:
        x, y = motion(np.array(point))
        return float(x), float(y)

    return replace(
        piece,
        runs=tuple(turned),
        roles=tuple(reversed(piece.roles)),
        landmarks={name: at(point) for name, point in piece.landmarks.items()},
        grain=(at(piece.grain[0]), at(piece.grain[1])) if piece.grain else None,
        darts=tuple(_turned_over(dart) for dart in piece.darts),
        fisheyes=tuple(eye.moved(motion) for eye in piece.fisheyes),
    )


def _turned_over(dart: Dart) -> Dart:
    """A dart's own lines on the other side of the paper: it bends the other way, and before and after are exchanged."""
    shape, hold = dart.shape, dart.hold
    return replace(
        dart,
        beside=-dart.beside,
        shape=replace(shape, bend_mm=-shape.bend_mm),
        hold=replace(hold, before_mm=hold.after_mm, after_mm=hold.before_mm),
    )


def unfold(half: Piece) -> Piece:
    """A half on the fold opened to the whole. Edges and darts of the drawn half end in `.left`, those of the
    other in `.right`, as worn for a front lying right side up.

    Raises GeometryError when the piece has no fold, or its fold is bent, or opened by a dart or a keyhole: unfolded
    that would be a hole in the piece.
    """
    fold = half.fold
    if fold is None:
        raise GeometryError("the piece has no fold to open", where=half.name)
    edge = half.edge(fold)
    on, end = edge.runs[0].path.start, edge.runs[-1].path.end
    line = np.concatenate([run.path.cubics.reshape(-1, 2) for run in edge.runs])
    normal = np.array([-(end - on)[1], (end - on)[0]]) / np.hypot(*(end - on))
    opened = any(run.mouth for run in edge.runs) or half.runs[half.runs.index(edge.runs[0]) - 1].mouth
    if opened or np.abs((line - on) @ normal).max() > JOIN_TOL:
        raise GeometryError("the fold is opened by a dart or bent", where=half.name, advice="Cut a seam there instead.")
    if any(np.abs(one.path.end - two.path.start).max() > JOIN_TOL for one, two in itertools.pairwise(edge.runs)):
        what = "an opening is cut into the fold"
        raise GeometryError(what, where=half.name, advice="Leave it on the fold, where both sides are cut at once.")
    other = flip(half, on, end - on)
    first, second = _side(half, fold, Side.LEFT), _side(other, fold, Side.RIGHT)
    marks = tuple(replace(mark, id=Side.RIGHT.id(mark.id), at=replace(mark.at, is_mirrored=True)) for mark in half.notches)
    sided = {mark.id: Sided(plain.id, Side.RIGHT) for mark, plain in zip(marks, half.notches, strict=True)}
    return replace(
        half,
        fold=None,
        runs=(*first.runs, *second.runs),
        roles=first.roles + second.roles,
        darts=first.darts + second.darts,
        landmarks={**first.landmarks, **second.landmarks},
        fisheyes=first.fisheyes + second.fisheyes,
        notches=(*half.notches, *marks),
        sides=first.sides.joined(second.sides.known).joined(sided),
        grain=half.grain,
    )


def _side(half: Piece, fold: str, side: Side) -> Piece:
    """One side of the whole: its runs from the fold round to the fold again, everything with its side. The provenance of the
    drawn half stays as it was, so all that goes by it is found again."""
    indices = [index for index, run in enumerate(half.runs) if run.edge == fold]
    last = next(index for index in indices if half.runs[half.after(index)].edge != fold)
    order = [(last + 1 + step) % len(half.runs) for step in range(len(half.runs) - len(indices))]
    is_mirrored = side is Side.RIGHT
    runs = tuple(
        Run(side.id(run.edge), run.path, replace(run.source, is_mirrored=is_mirrored), run.mouth and side.id(run.mouth))
        for run in (half.runs[i] for i in order)
    )
    known = {side.id(edge): role for edge, role in half.roles}
    names = [edge for edge, _role in half.roles if edge != fold]
    names += [*(dart.id for dart in half.darts), *half.landmarks, *(eye.id for eye in half.fisheyes)]
    names += [dart.group for dart in half.darts if dart.group]

    def dart_of(dart: Dart) -> Dart:
        away = tuple(replace(p, id=side.id(p.id), home=replace(p.home, is_mirrored=is_mirrored)) for p in dart.parked)
        group = side.id(dart.group) if dart.group else ""
        return replace(dart, id=side.id(dart.id), pivot=side.id(dart.pivot), group=group, parked=away)

    return replace(
        half,
        runs=runs,
        roles=tuple((name, known[name]) for name in dict.fromkeys(run.edge for run in runs)),
        darts=tuple(dart_of(dart) for dart in half.darts),
        landmarks={side.id(name): at for name, at in half.landmarks.items()},
        fisheyes=tuple(replace(eye, id=side.id(eye.id)) for eye in half.fisheyes),
        sides=Sides({side.id(name): Sided(name, side) for name in names}),
    )
