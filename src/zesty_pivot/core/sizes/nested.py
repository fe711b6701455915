"""Sizes of a style over each other: the point of each piece that lies on itself, and how evenly seams grow."""

from __future__ import annotations

import itertools
import statistics
from collections.abc import Iterator, Sequence

from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import CORNERS, LANDMARKS
from zesty_pivot.core.piece.piece import corner_of
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.jumps import stands_out
from zesty_pivot.core.sizes.sized import Sized

POINTS = (*CORNERS, *LANDMARKS)  # that pieces may be laid on each other at, in this order
FIRST = ("neck_point", "shoulder_tip", "centre_neck", "centre_waist", "underarm")  # what is taken where a piece has no other
OFF_MM = 1.0  # by which a seam's growth must lie off its neighbours' at least to be marked: our own choice, no source


def point_of(piece: Piece, point: str) -> Vector | None:
    """A corner or a point inside by its name, (2,) mm; of a whole piece the left one."""
    for name in (point, f"{point}.left"):
        if name in piece.landmarks:
            return piece.pivot(name)
    return corner_of(piece, point)


@record(eq=False)
class NestedLine:
    """One size of a piece: the number of the size from 0, the piece, and its shift (2,) mm."""

    number: int
    piece: Piece
    shift: Vector


@record(eq=False)
class NestedPiece:
    """A piece in all sizes that have it. `point` lies on itself; empty is where its outline begins. The base's piece lies where
    it is."""

    name: str
    point: str
    lines: tuple[NestedLine, ...]


def points_of(sizes: Sequence[Sized]) -> tuple[str, ...]:
    """The points that at least one piece has in every size that has the piece."""
    pieces = [[piece for _number, piece in found] for found in _by_name(sizes).values()]
    return tuple(
        point for point in POINTS if any(all(point_of(one, point) is not None for one in piece) for piece in pieces)
    )  # fmt: skip


def nested(sizes: Sequence[Sized], point: str, base: int = 0) -> tuple[NestedPiece, ...]:
    """Every piece in all its sizes, laid on each other at a point, or at another one where a piece has not got it. `base` is
    the number of the size whose pieces stay where they are."""
    return tuple(_nested(name, found, point, base) for name, found in _by_name(sizes).items())


def _by_name(sizes: Sequence[Sized]) -> dict[str, list[tuple[int, Piece]]]:
    found: dict[str, list[tuple[int, Piece]]] = {}
    for number, size in enumerate(sizes):
        for piece in size.pattern.with_extras if size.pattern is not None else ():
            found.setdefault(piece.name, []).append((number, piece))
    return found


def _nested(name: str, found: list[tuple[int, Piece]], point: str, base: int) -> NestedPiece:
    pieces = [piece for _number, piece in found]
    known = [one for one in (point, *FIRST, *POINTS) if all(point_of(piece, one) is not None for piece in pieces)]
    at = known[0] if known else ""
    spots = [_spot(piece, at) for piece in pieces]
    still = next((spot for (number, _piece), spot in zip(found, spots, strict=True) if number == base), spots[0])
    lines = (NestedLine(number, piece, still - spot) for (number, piece), spot in zip(found, spots, strict=True))
    return NestedPiece(name, at, tuple(lines))


def _spot(piece: Piece, point: str) -> Vector:
    found = point_of(piece, point) if point else None
    return piece.runs[0].path.start if found is None else found


# Growth.


@record
class SeamGrowth:
    """How long a seam is in each size, mm, sewn; None where the size has not got it. `is_odd` of each size: whether the seam
    grows into it unlike before and after. `steps` is by how much it grows into each, mm, as if all sizes lay equally far apart:
    what grows evenly has the same everywhere."""

    piece: str
    edge: str
    mm: tuple[float | None, ...]
    is_odd: tuple[bool, ...]
    steps: tuple[float | None, ...]

    @property
    def has_odd(self) -> bool:
        """Whether it is to be looked at."""
        return any(self.is_odd)


def growth(sizes: Sequence[Sized]) -> tuple[SeamGrowth, ...]:
    """All seams and edges, in the order of the pieces. Sizes of one group follow each other; people follow nobody."""
    found: dict[tuple[str, str], list[float | None]] = {}
    for number, size in enumerate(sizes):
        for piece in size.pattern.with_extras if size.pattern is not None else ():
            for edge in piece.edges:
                row = found.setdefault((piece.name, edge.id), [None] * len(sizes))
                row[number] = edge.sewn_length
    runs = list(_following(sizes))
    return tuple(SeamGrowth(piece, edge, tuple(mm), *_stepped(sizes, mm, runs)) for (piece, edge), mm in found.items())


def _following(sizes: Sequence[Sized]) -> Iterator[list[int]]:
    """The numbers of sizes that follow each other."""
    for group, numbers in itertools.groupby(range(len(sizes)), lambda n: sizes[n].wearer.group):
        if group:
            yield list(numbers)


def _stepped(
    sizes: Sequence[Sized], mm: Sequence[float | None], runs: Sequence[Sequence[int]]
) -> tuple[tuple[bool, ...], tuple[float | None, ...]]:
    """Which sizes a seam grows into unevenly, and by how much it grows into each."""
    odd, into = [False] * len(sizes), list[float | None]([None] * len(sizes))
    for numbers in runs:
        known = [(n, length) for n in numbers if (length := mm[n]) is not None]
        steps = [two[1] - one[1] for one, two in itertools.pairwise(known)]
        larger = [_bust(sizes[two]) - _bust(sizes[one]) for (one, _a), (two, _b) in itertools.pairwise(known)]
        if steps and min(larger) > 0.0:  # as much as it would grow if all sizes lay equally far apart
            usual = statistics.median(larger)
            steps = [step / by * usual for step, by in zip(steps, larger, strict=True)]
        for n, (at, _mm) in enumerate(known[1:]):
            odd[at], into[at] = stands_out(steps, n, OFF_MM), steps[n]
    return tuple(odd), tuple(into)


def _bust(size: Sized) -> float:
    return dict(size.wearer.lengths).get("bust", 0.0)
