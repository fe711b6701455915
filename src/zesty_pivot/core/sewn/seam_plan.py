"""Which points of the cloth are sewn to each other: outlines sampled at places that partners share, darts along their legs.

Of partners that differ in length points meet by their share of the sewn length, which eases the longer one in evenly.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.conventions.sewing import Sewing, sewn_legs
from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.piece import EdgeRef, Piece, SeamSide, Use
from zesty_pivot.core.piece.refs import Seam
from zesty_pivot.core.record import record, replace

NEAR = 1.0  # mm: ends of runs that lie so near each other on partners are one place
CLOSE = 0.35  # of a step: a sample so near the end of a run is left out

Points = NDArray[np.float64]


@record(eq=False)
class SewnLine:
    """A line of the cloth as sampled points (their numbers), and what it is: an `edge` by its id, a `dart`, a `fisheye`."""

    piece: str
    kind: str
    id: str
    points: tuple[int, ...]


@record(eq=False)
class SeamPlan:
    """Pieces without their fullness, darts cut out along the lines they are sewn by. `places` are all points (n, 2) mm where
    they lie on their own piece, `of` the piece of each; `rings` the outline of each piece and its holes as numbers of points;
    `sewn` gives each point the number of the point that it comes to lie on, the least of all that do. `lines` are what can be
    drawn."""

    pieces: tuple[Piece, ...]
    places: Points
    of: NDArray[np.int64]
    rings: tuple[tuple[tuple[int, ...], ...], ...]
    sewn: NDArray[np.int64]
    lines: tuple[SewnLine, ...]


def seam_plan(pieces: Sequence[Piece], seams: Iterable[Seam], sewing: Sewing, step: float) -> SeamPlan:
    """Pieces with all the seams between them that are wholly among them, sampled about every `step` mm."""
    return _Planning(tuple(replace(piece, fullness=()) for piece in pieces), sewing, step).plan(seams)


@record(eq=False)
class _SideRun:
    """A run in a side of a seam: the piece and run by number, where it begins in the side, its length, mm."""

    piece: int
    run: int
    start: float
    length: float
    is_turned: bool

    def at(self, distance: float) -> float:
        """The distance in the run of a distance in the side."""
        inside = min(max(distance - self.start, 0.0), self.length)
        return self.length - inside if self.is_turned else inside


class _Planning:
    """Places are asked for along runs first; then every run is sampled, and what was asked for at one place is one point."""

    def __init__(self, pieces: tuple[Piece, ...], sewing: Sewing, step: float) -> None:
        self._pieces, self._sewing, self._step = pieces, sewing, step
        self._number = {piece.name: n for n, piece in enumerate(pieces)}
        self._asked: dict[tuple[int, int], set[float]] = {}
        self._meet: list[list[tuple[int, int, float]]] = []
        self._places: list[tuple[float, float]] = []
        self._of: list[int] = []
        self._to: list[int] = []
        self._tips: dict[tuple[int, float, float], int] = {}
        self._sampled: dict[tuple[int, int], list[tuple[float, int]]] = {}
        for n, piece in enumerate(pieces):
            for k, run in enumerate(piece.runs):
                self._asked[n, k] = {0.0, run.path.length}

    def plan(self, seams: Iterable[Seam]) -> SeamPlan:
        sewn = [seam for seam in seams if all(self._has(part) for part in seam.parts)]
        for seam in sewn:
            self._pair(self._side(seam.a), self._side(seam.b))
        taken = {(stretch.piece, stretch.run) for seam in sewn for s in (seam.a, seam.b) for stretch in self._side(s)}
        for key in self._asked:
            self._sample(key, is_free=key not in taken)
        for places in self._meet:
            first, *others = (self._point_at(*place) for place in places)
            for other in others:
                self._join(first, other)
        rings, lines = [], list[SewnLine]()
        for n in range(len(self._pieces)):
            rings.append((self._ring(n, lines), *self._eyes(n, lines)))
        return SeamPlan(
            self._pieces, np.array(self._places), np.array(self._of), tuple(rings),
            np.array([self._root(k) for k in range(len(self._to))]), tuple(lines),
        )  # fmt: skip

    # Seams.

    def _has(self, part: EdgeRef) -> bool:
        return part.piece in self._number and bool(self._pieces[self._number[part.piece]].edge(part.edge).runs)

    def _side(self, side: SeamSide) -> list[_SideRun]:
        """The runs of a side from its first end: edges run from the block's first landmark, wherever the loop goes."""
        found, start = list[_SideRun](), 0.0
        for part in side.parts:
            n = self._number[part.piece]
            runs = [(k, run) for k, run in enumerate(self._pieces[n].runs) if run.edge == part.edge]
            is_turned = runs[0][1].source.u0 > runs[-1][1].source.u1
            for k, run in reversed(runs) if is_turned else runs:
                found.append(_SideRun(n, k, start, run.path.length, is_turned))
                start += run.path.length
        return found

    def _pair(self, a: list[_SideRun], b: list[_SideRun]) -> None:
        whole = [side[-1].start + side[-1].length for side in (a, b)]
        ends = [[0.0, *(stretch.start + stretch.length for stretch in side)] for side in (a, b)]
        shares = [[at / max(length, JOIN_TOL) for at in each] for each, length in zip(ends, whole, strict=True)]
        near = NEAR / max(*whole, NEAR)
        places: list[tuple[float, float]] = []
        left = list(shares[1])
        for share in shares[0]:
            partner = min(left, key=lambda other: abs(other - share), default=None)
            if partner is not None and abs(partner - share) <= near:
                left.remove(partner)
                places.append((share, partner))
            else:
                places.append((share, share))
        places += [(share, share) for share in left]
        count = max(1, math.ceil(max(whole) / self._step))
        kept = [one for one, _other in places]
        for k in range(1, count):
            if min(abs(k / count - share) for share in kept) > CLOSE / count:
                places.append((k / count, k / count))
        for one, other in places:
            spots = [*self._spots(a, one * whole[0]), *self._spots(b, other * whole[1])]
            for n, run, distance in spots:
                self._asked[n, run].add(distance)
            self._meet.append(spots)

    def _spots(self, side: list[_SideRun], distance: float) -> list[tuple[int, int, float]]:
        """Where a distance of a side lies: two places where one run ends and the next begins."""
        return [
            (s.piece, s.run, s.at(distance)) for s in side
            if s.start - JOIN_TOL <= distance <= s.start + s.length + JOIN_TOL
        ]  # fmt: skip

    # Points.

    def _add(self, n: int, x: float, y: float) -> int:
        self._places.append((x, y))
        self._of.append(n)
        self._to.append(len(self._to))
        return len(self._to) - 1

    def _tip(self, n: int, x: float, y: float) -> int:
        """The point that a dart is sewn to: of darts that are sewn to one point the same."""
        key = (n, round(x, 6), round(y, 6))
        if key not in self._tips:
            self._tips[key] = self._add(n, x, y)
        return self._tips[key]

    def _root(self, point: int) -> int:
        while self._to[point] != point:
            self._to[point] = self._to[self._to[point]]
            point = self._to[point]
        return point

    def _join(self, one: int, other: int) -> None:
        low, high = sorted((self._root(one), self._root(other)))
        self._to[high] = low

    def _sample(self, key: tuple[int, int], *, is_free: bool) -> None:
        n, k = key
        path = self._pieces[n].runs[k].path
        if is_free:
            count = max(1, math.ceil(path.length / self._step))
            self._asked[key] |= {path.length * i / count for i in range(1, count)}
        found: list[tuple[float, int]] = []
        for distance in sorted(self._asked[key]):
            if not found or distance - found[-1][0] > JOIN_TOL:
                found.append((distance, self._add(n, *path.point_at(distance).tolist())))
        self._sampled[key] = found

    def _point_at(self, n: int, run: int, distance: float) -> int:
        return min(self._sampled[n, run], key=lambda known: abs(known[0] - distance))[1]

    # Outlines.

    def _ring(self, n: int, lines: list[SewnLine]) -> tuple[int, ...]:
        piece, found = self._pieces[n], list[int]()
        for k, run in enumerate(piece.runs):
            mine = [point for _at, point in self._sampled[n, k]]
            lines.append(SewnLine(piece.name, "edge", run.edge, tuple(mine)))
            after = self._sampled[n, piece.after(k)][0][1]
            if run.mouth is None or piece.intake(run.mouth) <= JOIN_TOL:
                self._join(mine[-1], after)
                mine = mine[:-1]  # the next run begins there
            found += mine
            if run.mouth is not None and piece.intake(run.mouth) > JOIN_TOL and piece.dart(run.mouth).use is not Use.FLARE:
                found += self._legs(n, run.mouth, found[-1], after, lines)
        return tuple(found)

    def _legs(self, n: int, dart: str, first: int, last: int, lines: list[SewnLine]) -> list[int]:
        piece = self._pieces[n]
        both = sewn_legs(piece, dart, self._sewing)
        count = max(1, math.ceil(max(line.length for line in both) / self._step))
        tip = self._tip(n, *both[0].end.tolist())
        legs = [
            [self._add(n, *line.point_at(line.length * k / count).tolist()) for k in range(1, count)] for line in both
        ]  # fmt: skip
        self._join(first, last)
        for one, other in zip(*legs, strict=True):
            self._join(one, other)
        lines.append(SewnLine(piece.name, "dart", dart, (first, *legs[0], tip)))
        return [*legs[0], tip, *reversed(legs[1])]

    def _eyes(self, n: int, lines: list[SewnLine]) -> Iterable[tuple[int, ...]]:
        piece = self._pieces[n]
        for eye in piece.fisheyes:
            top, right, bottom, left = eye.corners
            counts = [max(1, math.ceil(max(math.dist(end, right), math.dist(end, left)) / self._step)) for end in (top, bottom)]
            first, last = self._add(n, *top.tolist()), self._add(n, *bottom.tolist())
            sides = []
            for middle in (right, left):
                way = [top + (middle - top) * k / counts[0] for k in range(1, counts[0] + 1)]
                way += [middle + (bottom - middle) * k / counts[1] for k in range(1, counts[1])]
                sides.append([self._add(n, *at.tolist()) for at in way])
            for one, other in zip(*sides, strict=True):
                self._join(one, other)
            lines.append(SewnLine(piece.name, "fisheye", eye.id, (first, *sides[0], last)))
            yield (first, *sides[0], last, *reversed(sides[1]))
