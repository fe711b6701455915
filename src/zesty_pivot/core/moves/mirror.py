"""Mirror: turn a piece over, and unfold a half to the whole."""

from __future__ import annotations

import itertools

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.dart import Dart
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.fullness import Fullness, Lies
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece, Point
from zesty_pivot.core.piece.sides import HALF, Side, Sided, Sides
from zesty_pivot.core.record import replace


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
        fullness=tuple(full.turned for full in piece.fullness),
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
    return opened(half, half)


def opened(left: Piece, right: Piece) -> Piece:
    """The whole of two halves drawn on one fold, each for its own side. Raises GeometryError as `unfold` does."""
    on, end = _fold(left)
    other = flip(right, on, end - on)
    first, second = _side(left, left.fold, Side.LEFT), _side(other, right.fold, Side.RIGHT)
    marks = tuple(replace(mark, id=Side.RIGHT.id(mark.id), at=replace(mark.at, is_mirrored=True)) for mark in right.notches)
    named = {mark.id: Sided(plain.id, Side.RIGHT) for mark, plain in zip(marks, right.notches, strict=True)}
    added = [(side.id(pivot), angle) for side, half in ((Side.LEFT, left), (Side.RIGHT, right)) for pivot, angle in half.added]
    return replace(
        left,
        fold=None,
        runs=(*first.runs, *second.runs),
        roles=first.roles + second.roles,
        darts=first.darts + second.darts,
        landmarks={**first.landmarks, **second.landmarks},
        fisheyes=first.fisheyes + second.fisheyes,
        let_in=first.let_in + second.let_in,
        fullness=(*first.fullness, *(full for full in second.fullness if not _at_fold(full))),
        notches=(*left.notches, *marks),
        sides=first.sides.joined(second.sides.known).joined(named),
        added=tuple(added),
    )


def _at_fold(full: Fullness) -> bool:
    """Whether it is a pleat whose folds meet at the fold: each half shows a half of the one."""
    return any(line.lies is Lies.MEET and line.at_fold for line in full.lines)


def _fold(half: Piece) -> tuple[Vector, Vector]:
    """The ends of the straight line that lies on the fold, (2,) mm each."""
    fold = half.fold
    if fold is None:
        advice = "Its centre is a seam: work on the half, or unfold one that lies on the fold."
        raise GeometryError("the piece has no fold to open", where=half.name, advice=advice)
    edge = half.edge(fold)
    lines = {run.source.edge for run in edge.runs}
    over = next((f for f in half.fullness if any(not x.at_fold and {x.start.line, x.stop.line} & lines for x in f.lines)), None)
    if over is not None:
        what = f"{over.taking.value} of the {words(half.name)} go over its centre"
        raise GeometryError(what, where=half.name, advice="Unfold it before they are made, or make them without.")
    on, end = edge.runs[0].path.start, edge.runs[-1].path.end
    line = np.concatenate([run.path.cubics.reshape(-1, 2) for run in edge.runs])
    normal = np.array([-(end - on)[1], (end - on)[0]]) / np.hypot(*(end - on))
    is_open = any(run.mouth for run in edge.runs) or half.runs[half.runs.index(edge.runs[0]) - 1].mouth
    if is_open or np.abs((line - on) @ normal).max() > JOIN_TOL:
        raise GeometryError("the fold is opened by a dart or bent", where=half.name, advice="Cut a seam there instead.")
    if any(np.abs(one.path.end - two.path.start).max() > JOIN_TOL for one, two in itertools.pairwise(edge.runs)):
        what = "an opening is cut into the fold"
        raise GeometryError(what, where=half.name, advice="Leave it on the fold, where both sides are cut at once.")
    return on, end


def one_side(half: Piece, side: Side, on: Vector, towards: Vector) -> Piece:
    """A panel that is not the same on both sides of the body, for one of them: the right one is turned over along the line
    through `on` in the direction `towards`. It has its side in its name, and is cut once."""
    is_right = side is Side.RIGHT
    made = _side(flip(half, on, towards) if is_right else half, None, side)
    marks = (replace(mark, id=side.id(mark.id), at=replace(mark.at, is_mirrored=is_right)) for mark in half.notches)
    return replace(
        made,
        name=side_name(half.name, side),
        notches=tuple(marks),
        sides=made.sides.joined({side.id(mark.id): Sided(mark.id, side) for mark in half.notches}),
        added=tuple((side.id(pivot), angle) for pivot, angle in half.added),
    )


def side_name(name: str, side: Side) -> str:
    """What a panel that is made for one side of the body is called."""
    return f"{name}_{side.value}"


def half_name(piece: Piece) -> str:
    """What a piece is called as a half."""
    side = side_of(piece)
    return piece.name if side is None else piece.name.removesuffix(f"_{side.value}")


def side_of(piece: Piece) -> Side | None:
    """The side of the body that a piece is made for by itself; None for a half, and for one that has both."""
    known = {piece.sides.of(run.edge) for run in piece.runs}
    return known.pop() if len(known) == 1 else None


def as_half(panel: Piece, on: Vector, towards: Vector) -> Piece:
    """A panel for one side as it is drawn for both: `one_side` undone."""
    side = side_of(panel)
    if side is None:
        return panel
    plain = _plain(panel, side, list(panel.runs), {})
    made = plain if side is Side.LEFT else flip(plain, on, towards)
    return replace(made, name=half_name(panel))


def halved(whole: Piece, fold: str = "centre") -> tuple[Piece, Piece]:
    """The two halves of an unfolded piece, both as a half is drawn, with the line between them as their `fold`: what `opened`
    puts together again.

    Raises GeometryError when something of one side lies on the other.
    """
    sides = whole.sides
    leads_over = any(sides.of(dart.pivot) is not sides.of(whole.dart_edge(dart.id)) for dart in whole.darts)
    turns = sum(sides.of(run.edge) is not sides.of(whole.runs[k - 1].edge) for k, run in enumerate(whole.runs))
    if leads_over or turns != len(Side) or any(sides.of(run.edge) is None for run in whole.runs):
        what = "a dart or an edge lies across the centre"
        raise GeometryError(what, where=whole.name, advice="Take it back to its own side first.")
    left, right = (_half_of(whole, side, fold) for side in Side)
    line = right.runs[-1].path
    turned = flip(right, line.start, line.end - line.start)
    return left, replace(turned, runs=turned.runs[1:] + turned.runs[:1], roles=turned.roles[1:] + turned.roles[:1])


def _half_of(whole: Piece, side: Side, fold: str) -> Piece:
    """One side of an unfolded piece as it lies, its names as on a half, closed along the centre."""
    sides = whole.sides
    first = next(k for k, run in enumerate(whole.runs) if sides.of(run.edge) is side is not sides.of(whole.runs[k - 1].edge))
    ring = (whole.runs[first:] + whole.runs[:first])[: sum(sides.of(run.edge) is side for run in whole.runs)]
    line = Path.straight(ring[-1].path.end, ring[0].path.start)
    up = Source(f"{whole.of or whole.name}.{fold}", 0.0, 1.0)  # the left side is walked up the centre
    made = _plain(whole, side, [*ring, Run(fold, line, up if side is Side.LEFT else up.turned())], {fold: "centre"})
    return replace(made, fold=fold)


def _plain(piece: Piece, side: Side, ring: list[Run], more: dict[str, str]) -> Piece:
    """What is on one side of a piece, along the runs of a ring, with its names as on a half; `more` are further roles."""
    sides = piece.sides
    runs = [
        Run(sides.name(run.edge), run.path, replace(run.source, is_mirrored=False), run.mouth and sides.name(run.mouth))
        for run in ring
    ]
    known = {**{sides.name(id): role for id, role in piece.roles}, **more}

    def dart_of(dart: Dart) -> Dart:
        away = tuple(replace(p, id=sides.name(p.id), home=replace(p.home, is_mirrored=False)) for p in dart.parked)
        id, pivot, group = (sides.name(name) for name in (dart.id, dart.pivot, dart.group))
        return replace(dart, id=id, pivot=pivot, group=group, parked=away)

    def is_mine(id: str) -> bool:
        return sides.of(id) is side

    marks = [mark for mark in piece.notches if (sides.of(mark.id) is Side.RIGHT) == (side is Side.RIGHT)]
    return replace(
        piece,
        runs=tuple(runs),
        roles=tuple((name, known[name]) for name in dict.fromkeys(run.edge for run in runs)),
        darts=tuple(dart_of(dart) for dart in piece.darts if is_mine(dart.pivot)),
        landmarks={sides.name(id): at for id, at in piece.landmarks.items() if is_mine(id)},
        fisheyes=tuple(replace(eye, id=sides.name(eye.id)) for eye in piece.fisheyes if is_mine(eye.id)),
        fullness=tuple(
            replace(full.with_origins(lambda at: replace(at, is_mirrored=False)), id=sides.name(full.id))
            for full in piece.fullness
            if is_mine(full.id) or _at_fold(full)
        ),
        notches=tuple(replace(mark, id=sides.name(mark.id), at=replace(mark.at, is_mirrored=False)) for mark in marks),
        added=tuple((sides.name(pivot), angle) for pivot, angle in piece.added if is_mine(pivot)),
        let_in=tuple(replace(entry, pivot=sides.name(entry.pivot)) for entry in piece.let_in if is_mine(entry.pivot)),
        sides=HALF,
    )


def _side(half: Piece, fold: str | None, side: Side) -> Piece:
    """One side of the whole: its runs from the fold round to the fold again, everything with its side. The provenance of the
    drawn half stays as it was, so all that goes by it is found again."""
    indices = [index for index, run in enumerate(half.runs) if run.edge == fold]
    last = next((index for index in indices if half.runs[half.after(index)].edge != fold), -1)
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
    names += [pivot for pivot, _angle in half.added]  # it may lie in what has been cut away
    names += [entry.pivot for entry in half.let_in]
    names += [full.id for full in half.fullness]

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
        fullness=tuple(
            replace(full.with_origins(lambda at: replace(at, is_mirrored=is_mirrored)), id=side.id(full.id))
            for full in half.fullness
        ),
        let_in=tuple(replace(entry, pivot=side.id(entry.pivot)) for entry in half.let_in),
        sides=Sides({side.id(name): Sided(name, side) for name in names}),
    )
