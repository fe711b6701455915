"""Mirror: turn a piece over, unfold a half to the whole, and fold the whole again."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.dart import Dart
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.names import RIGHT, SIDES
from zesty_pivot.core.piece.piece import Piece, Point


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
        dart, shape=replace(shape, bend_mm=-shape.bend_mm), hold=replace(hold, before_mm=hold.after_mm, after_mm=hold.before_mm)
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
    first, second = _side(half, fold, 0), _side(other, fold, 1)
    return replace(
        half,
        fold=None,
        runs=(*first.runs, *second.runs),
        roles=first.roles + second.roles,
        darts=first.darts + second.darts,
        landmarks={**first.landmarks, **second.landmarks},
        fisheyes=first.fisheyes + second.fisheyes,
        notches=(*half.notches, *(replace(mark, id=mark.id + RIGHT, edge=mark.edge + RIGHT) for mark in half.notches)),
        grain=half.grain,
    )


def _sided(source: Source, mark: str) -> Source:
    """The provenance of a side: that of the drawn half stays as it was, so all that goes by it is found again."""
    return replace(source, edge=source.edge + mark) if mark == RIGHT else source


def _side(half: Piece, fold: str, which: int) -> Piece:
    """One side of the whole: its runs from the fold round to the fold again, every name marked with its side."""
    mark = SIDES[which]
    indices = [index for index, run in enumerate(half.runs) if run.edge == fold]
    last = next(index for index in indices if half.runs[half.after(index)].edge != fold)
    order = [(last + 1 + step) % len(half.runs) for step in range(len(half.runs) - len(indices))]
    runs = tuple(
        replace(
            run, edge=run.edge + mark, mouth=None if run.mouth is None else run.mouth + mark, source=_sided(run.source, mark)
        )
        for run in (half.runs[i] for i in order)
    )
    known = dict(half.roles)
    return replace(
        half,
        runs=runs,
        roles=tuple((name, known[name.removesuffix(mark)]) for name in dict.fromkeys(run.edge for run in runs)),
        darts=tuple(
            replace(
                d,
                id=d.id + mark,
                pivot=d.pivot + mark,
                group=d.group + mark if d.group else "",
                parked=tuple(replace(p, id=p.id + mark, edge=p.edge + (mark if mark == RIGHT else "")) for p in d.parked),
            )
            for d in half.darts
        ),
        landmarks={name + mark: at for name, at in half.landmarks.items()},
        fisheyes=tuple(replace(eye, id=eye.id + mark) for eye in half.fisheyes),
    )


def halved(whole: Piece, like: Piece) -> Piece:
    """The drawn half of an unfolded piece back on the fold: `unfold` undone.

    `like` is the half it came from; its fold edge is laid back. Raises GeometryError when the two sides are no
    longer mirror images within JOIN_TOL.
    """
    mark = SIDES[0]
    mine = [run for run in whole.runs if run.edge.endswith(mark)]
    fold = like.edge(like.fold or "centre")
    on, end = fold.runs[0].path.start, fold.runs[-1].path.end
    image = Motion.reflect(on, end - on)
    theirs = [run for run in whole.runs if run.edge.endswith(SIDES[1])]
    same = len(mine) == len(theirs) and all(
        one.path.cubics.shape == other.path.cubics.shape
        and np.abs(image(one.path.reversed().cubics) - other.path.cubics).max() <= JOIN_TOL
        for one, other in zip(mine, reversed(theirs), strict=True)
    )
    if not same:
        raise GeometryError("the two sides differ", where=whole.name, advice="Keep the piece unfolded.")
    runs = [replace(run, edge=run.edge.removesuffix(mark), mouth=run.mouth and run.mouth.removesuffix(mark)) for run in mine]
    return replace(
        like,
        runs=(*runs, *fold.runs),
        darts=tuple(
            replace(
                d,
                id=d.id.removesuffix(mark),
                pivot=d.pivot.removesuffix(mark),
                group=d.group.removesuffix(mark),
                parked=tuple(replace(p, id=p.id.removesuffix(mark)) for p in d.parked),
            )
            for d in whole.darts
            if d.id.endswith(mark)
        ),
        landmarks={name.removesuffix(mark): at for name, at in whole.landmarks.items() if name.endswith(mark)},
        fisheyes=tuple(replace(eye, id=eye.id.removesuffix(mark)) for eye in whole.fisheyes if eye.id.endswith(mark)),
        grain=whole.grain,
    )
