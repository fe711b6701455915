"""Walking two seams: one rolled along the other without slipping, with the running difference and the notches."""

from __future__ import annotations

import itertools
import math

import numpy as np

from zesty_pivot.core.conventions.sewing import PLAIN, Sewing
from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.finish.balance import MEETS, balance_point, notch_distances
from zesty_pivot.core.finish.fold import folded
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record, replace

# Leg notches of two darts within this distance (mm) are meant to meet. Common practice, no source.
PAIRED_WITHIN = 10.0


@record
class NotchPair:
    """A notch of the walked seam: where it lies on each side, mm from the start, or None when that side has none. `ease_mm` is
    how much longer b is meant to be in all: up to that, a notch of b lies later because it is eased in."""

    title: str
    a_mm: float | None
    b_mm: float | None
    ease_mm: float = 0.0

    @property
    def difference_mm(self) -> float | None:
        """How much further along b's notch lies, or None for a notch without partner."""
        return None if self.a_mm is None or self.b_mm is None else self.b_mm - self.a_mm

    @property
    def meets(self) -> bool:
        """Whether both notches come to lie on each other, with the intended ease."""
        return self.difference_mm is not None and abs(self.missed_mm) <= MEETS

    @property
    def missed_mm(self) -> float:
        """How much further along b's notch lies than the intended ease lets it."""
        off = self.difference_mm or 0.0
        low, high = min(0.0, self.ease_mm), max(0.0, self.ease_mm)
        return off - min(max(off, low), high)


@record
class WalkedStretch:
    """A stretch of the walked seam between two matching points, with its length on each side in mm."""

    start: str
    stop: str
    a_mm: float
    b_mm: float

    @property
    def difference_mm(self) -> float:
        """How much longer b is in this stretch."""
        return self.b_mm - self.a_mm


@record
class WalkedEdge:
    """One side of the seam: its piece with the darts on this seam shut, and the runs of the edge from the start."""

    piece: Piece
    edge: str
    runs: tuple[Run, ...]
    is_turned: bool  # walked against the loop's direction

    @cached_property
    def starts(self) -> tuple[float, ...]:
        """Where each run begins, mm from the start, and the whole length last."""
        return (0.0, *itertools.accumulate(run.path.length for run in self.runs))

    @property
    def length(self) -> float:
        """The sewn length in mm."""
        return self.starts[-1]

    def turned(self) -> WalkedEdge:
        """The same side walked from its other end."""
        runs = tuple(Run(run.edge, run.path.reversed(), run.source.turned(), run.mouth) for run in reversed(self.runs))
        return WalkedEdge(self.piece, self.edge, runs, not self.is_turned)

    def _at(self, distance: float) -> tuple[Path, float]:
        for start, run in zip(reversed(self.starts[:-1]), reversed(self.runs), strict=True):
            if distance >= start - JOIN_TOL:
                return run.path, distance - start
        return self.runs[0].path, 0.0

    def point(self, distance: float) -> Vector:
        """The point at a distance (mm) from the start, (2,) mm."""
        path, at = self._at(distance)
        return path.point_at(at)

    def direction(self, distance: float) -> Vector:
        """The unit tangent there, in the direction of the walk."""
        path, at = self._at(distance)
        return path.direction_at(at)

    def of_source(self, u: float) -> float | None:
        """The distance (mm) of a place of the block's edge (0 to 1), None when it is no longer there."""
        for start, run in zip(self.starts, self.runs, strict=False):
            low, high = run.source.u0, run.source.u1
            if low != high and min(low, high) - 1e-12 <= u <= max(low, high) + 1e-12:
                return start + (u - low) / (high - low) * run.path.length
        return None

    def source_at(self, distance: float) -> float:
        """The place of the block's edge (0 to 1) at a distance (mm)."""
        for start, run in zip(reversed(self.starts[:-1]), reversed(self.runs), strict=True):
            if distance >= start - JOIN_TOL:
                return run.source.at(min(1.0, (distance - start) / run.path.length))
        return self.runs[0].source.u0


@record
class Walk:
    """A seam walked from its first end. `a` lies still, `b` is rolled along it on its outer side."""

    a: WalkedEdge
    b: WalkedEdge
    notches: tuple[NotchPair, ...]
    ends: tuple[str, str]
    ease_mm: float = 0.0

    @property
    def length(self) -> float:
        """How far can be walked, mm: to the end of the longer side."""
        return max(self.a.length, self.b.length)

    @property
    def difference_mm(self) -> float:
        """How much longer b is in all."""
        return self.b.length - self.a.length

    def running(self, distance: float) -> float:
        """How much longer b is than a up to a distance (mm) along a, between points that met on the block.

        b's place is found by provenance, so a stretch that was lengthened shows where it lies; cloth a step added is
        counted in the stretch that it belongs to.
        """
        at = min(max(distance, 0.0), self.a.length)
        if at >= self.a.length - JOIN_TOL:
            return self.difference_mm
        there = self.b.of_source(self.a.source_at(at))
        return (there if there is not None else at / self.a.length * self.b.length) - at

    def laid(self, distance: float) -> Motion:
        """The motion that lays b at a's side so that both touch at a distance (mm) from the start of each.

        Two edges walked the same way round their pieces lie on the same hand, so b is turned over first.
        """
        on_a, on_b = min(distance, self.a.length), min(distance, self.b.length)
        goal, point = self.a.point(on_a), self.b.point(on_b)
        along, mine = self.a.direction(on_a), self.b.direction(on_b)
        turn = between(mine, along)
        cos, sin = math.cos(turn), math.sin(turn)
        matrix = np.array([[cos, -sin], [sin, cos]])
        if self.a.is_turned == self.b.is_turned:
            flip = 2.0 * np.outer(mine, mine) - np.eye(2)
            matrix = matrix @ flip
        return Motion(matrix, point, goal)

    def turned(self) -> Walk:
        """The same seam walked from its other end: differences are counted from there."""
        return _walked(self.a.turned(), self.b.turned(), (self.ends[1], self.ends[0]), self.ease_mm)

    @cached_property
    def stretches(self) -> tuple[WalkedStretch, ...]:
        """The seam between its ends and the notches that both sides have."""
        points = [(self.ends[0], 0.0, 0.0)]
        for notch in sorted((n for n in self.notches if n.difference_mm is not None), key=lambda n: n.a_mm or 0.0):
            points.append((notch.title, notch.a_mm or 0.0, notch.b_mm or 0.0))
        points.append((self.ends[1], self.a.length, self.b.length))
        return tuple(
            WalkedStretch(first[0], second[0], second[1] - first[1], second[2] - first[2])
            for first, second in itertools.pairwise(points)
        )


def walk(pattern: Pattern, a: EdgeRef, b: EdgeRef, ends: tuple[str, str], ease_mm: float = 0.0, sewing: Sewing = PLAIN) -> Walk:
    """Two edges walked along each other, their darts shut. `ends` names where the walk begins and stops, `ease_mm`
    how much longer b is meant to be.

    Raises PlaceError for an edge that is not there.
    """
    one, two = (_side(pattern, end, sewing) for end in (a, b))
    return _walked(one, two, ends, ease_mm)


def _walked(one: WalkedEdge, two: WalkedEdge, ends: tuple[str, str], ease_mm: float) -> Walk:
    notches = tuple(replace(notch, ease_mm=ease_mm) for notch in _notches(one, two))
    return Walk(one, two, notches, ends, ease_mm)


def _side(pattern: Pattern, end: EdgeRef, sewing: Sewing) -> WalkedEdge:
    # Seams are walked as they are sewn: what is let in is taken up, and lies on no paper that is torn for a shut dart.
    piece, edge = replace(pattern.piece(end.piece), fullness=()), end.edge
    found = piece.edge(edge)
    if not found.runs:
        raise PlaceError(f"edge {edge!r} has no line", where=end.piece)
    darts = [run.mouth for run in found.runs[:-1] if run.mouth is not None]
    shut = folded(piece, sewing, 1.0, darts)
    runs = shut.edge(edge).runs
    # The block's edges run from their first landmark in loop order; the two sides of one cut are told by their provenance.
    if runs[0].source.u0 <= runs[-1].source.u1:
        return WalkedEdge(shut, edge, runs, is_turned=False)
    return WalkedEdge(shut, edge, runs, is_turned=False).turned()


def _notches(one: WalkedEdge, two: WalkedEdge) -> tuple[NotchPair, ...]:
    found: list[NotchPair] = []
    balance = [_balance(side) for side in (one, two)]
    if balance[0] is not None or balance[1] is not None:
        found.append(NotchPair("balance notch", balance[0], balance[1]))
    marks = [notch_distances(side.piece, side.edge, from_end=side.is_turned) for side in (one, two)]
    names = {mark.id: mark.name for side in (one, two) for mark in side.piece.notches}
    for id in dict.fromkeys([*marks[0], *marks[1]]):
        found.append(NotchPair(f"{words(names[id])} notch", marks[0].get(id), marks[1].get(id)))
    left = dict(_leg_notches(two))
    for dart, at in _leg_notches(one):
        partner = min(left, key=lambda other: abs(left[other] - at), default=None)
        if partner is not None and abs(left[partner] - at) <= PAIRED_WITHIN:
            found.append(NotchPair(f"{dart_words(one.piece, dart)} dart", at, left.pop(partner)))
        else:
            found.append(NotchPair(f"{dart_words(one.piece, dart)} dart, {words(one.piece.name)}", at, None))
    found += [NotchPair(f"{dart_words(two.piece, dart)} dart, {words(two.piece.name)}", None, at) for dart, at in left.items()]
    return tuple(sorted(found, key=lambda notch: notch.a_mm if notch.a_mm is not None else notch.b_mm or 0.0))


def _balance(side: WalkedEdge) -> float | None:
    place = balance_point(side.piece, side.edge)
    if place is None:
        return None
    distance = places.sewn_distance(side.piece, place)
    return side.length - distance if side.is_turned else distance


def _leg_notches(side: WalkedEdge) -> tuple[tuple[str, float], ...]:
    """The darts that open inside the edge with the distance (mm) of their mouths from the start."""
    edge = side.piece.edge(side.edge)
    found: list[tuple[str, float]] = []
    distance = 0.0
    for run in edge.runs[:-1]:
        distance += run.path.length
        if run.mouth is not None and side.piece.has_dart(run.mouth) and not run.mouth.startswith("*"):
            found.append((run.mouth, side.length - distance if side.is_turned else distance))
    return tuple(found)
