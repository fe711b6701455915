"""Where slashes that let fullness in lie on a piece that was cut or redrawn since: clipped to it, or gone with what was cut
away."""

from __future__ import annotations

import itertools
import math

import numpy as np

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece.edge import Origin
from zesty_pivot.core.piece.fullness import Fullness, LetLine
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place, by_origin, is_joint, origin_of, point, settled
from zesty_pivot.core.piece.region import all_cubics, contains, outline
from zesty_pivot.core.record import replace

LEAST = 5.0  # mm of a slash that must be left on a part for its fullness to go on there. Our own choice


def anchor(piece: Piece, place: Place) -> Origin:
    """Where on the cloth a slash ends. The end of the centre is said on the edge that meets it: a centre goes when a piece is
    unfolded."""
    run = piece.runs[place.run]
    after = piece.runs[piece.after(place.run)]
    if is_joint(piece, place) and piece.role(run.edge) == "centre" != piece.role(after.edge):
        return Origin(after.source.edge, after.source.u0, after.source.is_mirrored)
    return origin_of(piece, place)


def anchored(pattern: Pattern, before: Pattern) -> tuple[Pattern, tuple[Fullness, ...]]:
    """The pattern with all slashes ending on its outlines: those whose places went in the last step are clipped, by where they
    lay on the pattern before it. And the fullness of which nothing is left."""
    known = {full.id: full for piece in pattern.pieces for full in piece.fullness}
    if not known:
        return pattern, ()
    homes = {full.id: piece for piece in before.pieces for full in piece.fullness}
    made = replace(pattern, pieces=tuple(_anchored(piece, homes) for piece in pattern.pieces))
    kept = {full.id for piece in made.pieces for full in piece.fullness}
    return made, tuple(full for id, full in known.items() if id not in kept)


def _anchored(piece: Piece, homes: dict[str, Piece]) -> Piece:
    if not piece.fullness:
        return piece
    found = [_on_piece(piece, full, homes.get(full.id)) for full in piece.fullness]
    kept = tuple(full for full in found if full.own_mm > 0.0 or any(max(line.by) > 0.0 for line in full.lines))
    return piece if kept == piece.fullness else replace(piece, fullness=kept)


def _on_piece(piece: Piece, full: Fullness, home: Piece | None) -> Fullness:
    ends = [at for line in full.lines for at in (line.start, line.stop)] + list(full.stretch or ())
    if home is None or all(_has(piece, at) for at in ends):
        return full
    lines = tuple(line for line in (_clipped(piece, line, home) for line in full.lines) if line is not None)
    kept = full.stretch is not None and all(_has(piece, at) for at in full.stretch)
    if full.own_mm > 0.0 and not kept:
        return replace(full, own_mm=0.0, lines=())
    return replace(full, lines=lines, stretch=full.stretch if kept else None)


def _has(piece: Piece, at: Origin) -> bool:
    try:
        by_origin(piece, at)
    except PlaceError:
        return False
    return True


def _clipped(piece: Piece, line: LetLine, home: Piece) -> LetLine | None:
    """A slash as it goes on across what is left; None where it passes beside it. What it parts the cloth by goes evenly from
    one of its ends to the other, so a clipped end has what it has there."""
    if _has(piece, line.start) and _has(piece, line.stop):
        return line
    try:
        start, stop = (point(home, by_origin(home, at)) for at in (line.start, line.stop))
    except PlaceError:
        return None
    long = math.dist(start, stop)
    towards = (stop - start) / long
    cubics, runs, segments = all_cubics(piece)
    ends: list[tuple[float, Origin]] = [
        (at, anchor(piece, settled(piece, int(runs[k]), piece.runs[runs[k]].path.distance_of(int(segments[k]), t))))
        for k, t, at in with_line(cubics, start, towards, (-JOIN_TOL, long + JOIN_TOL))
        if -JOIN_TOL <= at <= long + JOIN_TOL
    ]
    ends += [(at, own) for at, own in ((0.0, line.start), (long, line.stop)) if _meets(piece, own, start + towards * at)]
    ends.sort(key=lambda end: end[0])
    ring = outline(piece)
    best: LetLine | None = None
    size = LEAST
    for (a, one), (b, two) in itertools.pairwise(ends):
        if b - a > size and contains(ring, np.asarray(start + towards * ((a + b) / 2.0))):
            size = b - a
            near, far = (line.by[0] + (line.by[1] - line.by[0]) * at / long for at in (a, b))
            best = replace(line, start=one, stop=two, by=(near, far))
    return best


def _meets(piece: Piece, at: Origin, there: Vector) -> bool:
    """Whether a place of the cloth is still on a piece, and where it was."""
    return _has(piece, at) and math.dist(point(piece, by_origin(piece, at)), there) < 0.01
