"""Corrections by hand: a corner that was dragged takes both of its edges along, a place of an edge bends the edge."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.corners import shaped
from zesty_pivot.core.intake.hints import Hints
from zesty_pivot.core.intake.inside import distance_of
from zesty_pivot.core.intake.loops import clockwise
from zesty_pivot.core.intake.traced import Array, Point, TracedPaper, TracedPiece
from zesty_pivot.core.record import replace

AT_CORNER = 6.0  # mm from a corner that a place is the corner
ENDS = 2.0  # mm of an edge beside its corners that cannot be bent by itself
FARTHEST = 60.0  # mm from the outline that a place may be pulled from


def pulled_paper(paper: TracedPaper, hints: Hints) -> TracedPaper:
    """The pieces with what was dragged on them."""
    pulls: Mapping[int, Sequence[tuple[Point, Point]]] = {
        number: one.pulls for number, one in hints.pieces.items() if one.pulls
    }
    if not pulls:
        return paper
    pieces = tuple(pulled(piece, pulls.get(number, ())) for number, piece in enumerate(paper.pieces))
    return replace(paper, pieces=pieces)


def pulled(piece: TracedPiece, pulls: Sequence[tuple[Point, Point]]) -> TracedPiece:
    """A piece whose outline was dragged from one place to another, in the order of dragging, mm. A straight edge stays straight
    when its corner moves; where an edge is bent its ends and their directions stay. What is dragged from far off the outline,
    or would leave none, is left as it was."""
    if not pulls:
        return piece
    shape = shaped(piece.outline, piece.strays or None)
    stretches = [path.cubics.copy() for path in shape.stretches]
    for at, to in pulls:
        _pull(stretches, np.array(at), np.array(to))
    try:
        outline = clockwise(Path(np.concatenate(stretches)))
    except GeometryError:
        return piece
    return replace(piece, outline=outline, strays=0.0)


def _pull(stretches: list[Array], at: Array, to: Array) -> None:
    way = to - at
    count = len(stretches)
    near = min(range(count), key=lambda k: math.dist(stretches[k][0, 0], at))
    if math.dist(stretches[near][0, 0], at) <= AT_CORNER:
        after, before = stretches[near], stretches[near - 1]
        share = _shares(after)
        after += (1.0 - share)[..., None] * way
        before += _shares(before)[..., None] * way
        after[0, 0] = before[-1, 3]
        return
    paths = [Path(cubics) for cubics in stretches]
    places = [distance_of(path, at) for path in paths]
    index = min(range(count), key=lambda k: math.dist(paths[k].point_at(places[k]), at))
    path, where = paths[index], places[index]
    if math.dist(path.point_at(where), at) > FARTHEST or not ENDS < where < path.length - ENDS:
        return
    one, two = path.split_at(where)
    first, last = one.cubics.copy(), two.cubics.copy()
    first += _eased(_shares(first))[..., None] * way
    last += _eased(1.0 - _shares(last))[..., None] * way
    # The handles beside the place go along with it, those at the far ends stay: no new corner, the ends' directions kept.
    first[-1, 2] += (1.0 - _eased(_shares(one.cubics))[-1, 2]) * way
    last[0, 1] += (1.0 - _eased(1.0 - _shares(two.cubics))[0, 1]) * way
    first[0, 1], last[-1, 2] = one.cubics[0, 1], two.cubics[-1, 2]
    if len(first) == 1:
        first[0, 2] = one.cubics[0, 2] + way
    if len(last) == 1:
        last[0, 1] = two.cubics[0, 1] + way
    last[0, 0] = first[-1, 3]
    stretches[index] = np.concatenate([first, last])


def _shares(cubics: Array) -> Array:
    """How far along a chain each control point belongs, 0 to 1: (n, 4)."""
    lengths = Path(cubics).lengths
    starts = np.concatenate([[0.0], np.cumsum(lengths)])
    found: Array = (starts[:-1, None] + lengths[:, None] * np.array([0.0, 1.0, 2.0, 3.0]) / 3.0) / max(float(starts[-1]), 1e-9)
    return found


def _eased(share: Array) -> Array:
    """From nothing to one, level at both ends."""
    return np.asarray(share * share * (3.0 - 2.0 * share))
