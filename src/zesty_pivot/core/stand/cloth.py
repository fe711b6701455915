"""Cloth as an elastic sheet: what it takes to stretch and to bend it, its weight, and the push of what it lies on.

A triangle resists stretching by its two stretches s: k / 2 (s1 - 1)² + k / 2 (s2 - 1)² a unit of area, alike in every
direction (the energy of as-rigid-as-possible surfaces; its second derivatives after Smith, de Goes, Kim 2019, from memory).
Bending is the quadratic energy of isometric sheets by edges (Bergou, Wardetzky, Harmon, Zorin, Grinspun 2006, from memory), a
third of it: so a cylinder takes half the rigidity by its curve squared on any mesh, as plates do.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray
from scipy import sparse

from zesty_pivot.core.record import record

GRAVITY = 9.81e-3  # N a gram
HARD = 6e-3  # N a mm² and mm that what is touched pushes back with
THICK = 1.0  # mm that the cloth's middle keeps off what it touches

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]
Outside = Callable[[Points], tuple[Points, Points]]


@record
class ClothKind:
    """A kind of cloth: grams a square metre, `stretch` N a mm of width that it takes to double its length, `bend` N mm that a
    strip of one mm takes to be bent to a curve of one mm: flexural rigidity."""

    id: str
    title: str
    weight: float
    stretch: float
    bend: float


@record(eq=False)
class SewnSheet:
    """Cloth in points and triangles: `rest` (t, 3, 2) mm the corners of each triangle where it lies flat, `triangles` (t, 3)
    the points they are sewn to, `count` how many there are. `on_axis` are points that stay in the plane x = 0, beyond which the
    cloth goes on mirrored; `held` (count, 3) are coordinates that stay as they are."""

    rest: Points
    triangles: Numbers
    count: int
    on_axis: Numbers
    held: NDArray[np.bool_]


class ElasticCloth:
    """The energy of a sheet (N mm), its slope and its bend over the places of its points."""

    def __init__(self, sheet: SewnSheet, kind: ClothKind, *, is_heavy: bool = True, outside: Outside | None = None) -> None:
        self.sheet, self._kind, self._outside = sheet, kind, outside
        rest, triangles = sheet.rest, sheet.triangles
        sides = np.stack([rest[:, 1] - rest[:, 0], rest[:, 2] - rest[:, 0]], axis=2)
        self.areas = np.abs(np.linalg.det(sides)) / 2.0
        inverse = np.linalg.inv(sides)
        # The slopes of the three corners' shares: F = sum of corner (3,) times slope (2,).
        self._slopes = np.concatenate([-inverse.sum(axis=1)[:, None], inverse], axis=1)
        share = np.repeat(self.areas[:, None] / 3.0, 3, axis=1)
        self._area_of = added(triangles.ravel(), share.ravel(), sheet.count)
        self._weight = self._area_of * kind.weight * 1e-6 * GRAVITY if is_heavy else np.zeros(sheet.count)
        self._bend = [kind.bend * part for part in self._bending()]
        self._free = ~sheet.held
        self._free[sheet.on_axis, 0] = False
        self._number()

    # Stretching.

    def gradients(self, places: Points) -> Points:
        """How each triangle is mapped, (t, 3, 2)."""
        return np.asarray(np.einsum("tki,tkj->tij", places[self.sheet.triangles], self._slopes))

    def stretches(self, places: Points) -> tuple[Points, Points, Points, Points]:
        """The two stretches (t,) of each triangle, the greater first, their directions on the cloth (t, 2, 2, as columns) and
        in space (t, 3, 2)."""
        mapped = self.gradients(places)
        both = np.einsum("tki,tkj->tij", mapped, mapped)
        half, off = (both[:, 0, 0] - both[:, 1, 1]) / 2.0, both[:, 0, 1]
        mean, size = (both[:, 0, 0] + both[:, 1, 1]) / 2.0, np.hypot(half, off)
        first, second = np.sqrt(np.maximum(mean + size, 1e-12)), np.sqrt(np.maximum(mean - size, 1e-12))
        turn = 0.5 * np.arctan2(off, half)
        cos, sin = np.cos(turn), np.sin(turn)
        on_cloth = np.stack([np.stack([cos, -sin], axis=1), np.stack([sin, cos], axis=1)], axis=1)
        in_space = np.einsum("tij,tjk->tik", mapped, on_cloth) / np.stack([first, second], axis=1)[:, None]
        return first, second, on_cloth, in_space

    # The whole.

    def energy(self, places: Points) -> float:
        """N mm."""
        first, second, _on, _in = self.stretches(places)
        stretch = 0.5 * self._kind.stretch * (self.areas * ((first - 1.0) ** 2 + (second - 1.0) ** 2)).sum()
        bend = 0.5 * sum(float(places[:, k] @ (self._bend[k] @ places[:, k])) for k in range(3))
        total = stretch + bend + float((self._weight * places[:, 2]).sum())
        for spots, areas in self._touching(places):
            assert self._outside is not None
            depth = np.maximum(THICK - self._outside(spots)[0], 0.0)
            total += 0.5 * HARD * float((areas * depth**2).sum())
        return float(total)

    def slope_and_bend(self, places: Points) -> tuple[Points, sparse.csc_matrix]:
        """The slope of the energy (free unknowns) and its second derivatives, made positive where they are not."""
        first, second, on_cloth, in_space = self.stretches(places)
        k, areas, slopes, triangles = self._kind.stretch, self.areas, self._slopes, self.sheet.triangles
        along = np.einsum("tki,tij->tkj", slopes, on_cloth)  # the corners' slopes along both directions
        tension = in_space * (k * np.stack([first - 1.0, second - 1.0], axis=1))[:, None]
        pull = np.einsum("tij,tkj->tki", tension, along)
        force = areas[:, None, None] * pull
        blocks = k * np.einsum("tai,tbi->tab", slopes, slopes)[:, :, None, :, None] * np.eye(3)[None, None, :, None, :]
        normal = np.cross(in_space[..., 0], in_space[..., 1])
        twist = in_space[:, None, :, 0] * along[:, :, None, 1] - in_space[:, None, :, 1] * along[:, :, None, 0]
        twist /= np.sqrt(2.0)
        modes = [(twist, np.minimum(2.0 / (first + second), 1.0))]
        for j, stretch in enumerate((first, second)):
            modes.append((normal[:, None, :] * along[:, :, None, j], np.minimum(1.0 / stretch, 1.0)))
        for mode, size in modes:
            blocks -= (k * size)[:, None, None, None, None] * mode[:, :, :, None, None] * mode[:, None, None]
        blocks *= areas[:, None, None, None, None]
        if self._outside is not None:
            middle = places[triangles].mean(axis=1)
            away, normal = self._outside(middle)
            depth = np.maximum(THICK - away, 0.0)
            push = HARD * 0.5 * areas
            force -= (push * depth)[:, None, None] * normal[:, None, :] / 3.0
            push = np.where(depth > 0.0, push, 0.0)
            blocks += (push / 9.0)[:, None, None, None, None] * normal[:, None, :, None, None] * normal[:, None, None, None, :]
        slope = np.stack([added(triangles.ravel(), force[..., c].ravel(), self.sheet.count) for c in range(3)], axis=1)
        slope[:, 2] += self._weight
        for c in range(3):
            slope[:, c] += self._bend[c] @ places[:, c]
        nodes = np.zeros((self.sheet.count, 3, 3))
        if self._outside is not None:
            away, normal = self._outside(places)
            depth = np.maximum(THICK - away, 0.0)
            push = HARD * 0.5 * self._area_of
            slope -= (push * depth)[:, None] * normal
            nodes = np.where(depth > 0.0, push, 0.0)[:, None, None] * normal[:, :, None] * normal[:, None, :]
        values = added(self._into, np.concatenate([blocks.ravel(), nodes.ravel(), self._bend_values])[self._kept], self._size)
        matrix = sparse.csc_matrix((values, self._rows, self._starts), shape=(self.unknowns, self.unknowns))
        return slope[self._free], matrix

    @property
    def unknowns(self) -> int:
        """How many coordinates are free."""
        return int(self._free.sum())

    @property
    def masses(self) -> Points:
        """The cloth's area round each free coordinate, mm²."""
        return np.repeat(self._area_of[:, None], 3, axis=1)[self._free]

    def moved(self, places: Points, by: Points) -> Points:
        """Places with their free coordinates moved."""
        found = places.copy()
        found[self._free] += by
        return found

    def _touching(self, places: Points) -> list[tuple[Points, Points]]:
        if self._outside is None:
            return []
        return [(places, 0.5 * self._area_of), (places[self.sheet.triangles].mean(axis=1), 0.5 * self.areas)]

    # Made once.

    def _bending(self) -> tuple[sparse.csr_matrix, sparse.csr_matrix, sparse.csr_matrix]:
        """The bending of a cloth of one N mm over x, y and z; on the axis the cloth goes on mirrored."""
        rest, triangles = self.sheet.rest, self.sheet.triangles
        sides: dict[tuple[int, int], list[tuple[int, int]]] = {}
        for t, corners in enumerate(triangles.tolist()):
            for k in range(3):
                a, b = corners[(k + 1) % 3], corners[(k + 2) % 3]
                sides.setdefault((min(a, b), max(a, b)), []).append((t, k))
        axis = set(self.sheet.on_axis.tolist())
        rows: list[tuple[list[int], list[float], float, int]] = []
        for (a, b), known in sides.items():
            stencils = [_stencil(rest[t], triangles[t], k, a) for t, k in known]
            if len(known) == 2:
                (one, c), (other, d) = stencils
                area = self.areas[known[0][0]] + self.areas[known[1][0]]
                points = [a, b, triangles[known[0][0]][known[0][1]], triangles[known[1][0]][known[1][1]]]
                rows.append((points, [one[0] + other[0], one[1] + other[1], c, d], 1.0 / area, 0))
            elif len(known) == 1 and a in axis and b in axis:
                (one, c) = stencils[0]
                points = [a, b, triangles[known[0][0]][known[0][1]]]
                # Twice the height over the edge, half of it this side's.
                rows.append((points, [2.0 * one[0], 2.0 * one[1], 2.0 * c], 0.5 / (2.0 * self.areas[known[0][0]]), 1))
        found = []
        for c in range(3):
            data, columns, at, scale = list[float](), list[int](), list[int](), list[float]()
            for n, (points, weights, size, is_mirrored) in enumerate(rows):
                data += weights
                columns += points
                at += [n] * len(points)
                scale.append(0.0 if is_mirrored and c == 0 else size)
            matrix = sparse.csr_matrix((data, (at, columns)), shape=(len(rows), self.sheet.count))
            found.append(sparse.csr_matrix(matrix.T @ sparse.diags(np.array(scale)) @ matrix))
        return found[0], found[1], found[2]

    def _number(self) -> None:
        """Where each part of the second derivatives goes."""
        count, triangles = self.sheet.count, self.sheet.triangles
        number = np.full((count, 3), -1, dtype=np.int64)
        number[self._free] = np.arange(int(self._free.sum()))
        of = number[triangles].reshape(-1, 9)
        rows = [np.repeat(of, 9, axis=1).ravel(), np.repeat(number, 3, axis=1).ravel()]
        columns = [np.tile(of, (1, 9)).ravel(), np.tile(number, (1, 3)).ravel()]
        values = []
        for c in range(3):
            part = self._bend[c].tocoo()
            rows.append(number[part.row, c])
            columns.append(number[part.col, c])
            values.append(part.data)
        self._bend_values = np.concatenate(values)
        row, column = np.concatenate(rows), np.concatenate(columns)
        self._kept = np.flatnonzero((row >= 0) & (column >= 0))
        size = int(self._free.sum())
        keys, self._into = np.unique(column[self._kept] * size + row[self._kept], return_inverse=True)
        self._rows, self._size = keys % size, len(keys)
        self._starts = np.searchsorted(keys // size, np.arange(size + 1))


def added(numbers: Numbers, values: Points, count: int) -> Points:
    """The sums (count,) of values by the number of each."""
    return np.asarray(np.bincount(numbers, values, count), dtype=np.float64)


def _stencil(rest: Points, corners: Numbers, k: int, a: int) -> tuple[tuple[float, float], float]:
    """How one triangle's corner over an edge from a to b measures its height: weights of a and b, and of the corner."""
    own, one, other = rest[k], rest[(k + 1) % 3], rest[(k + 2) % 3]
    edge = other - one
    twice = abs(edge[0] * (own - one)[1] - edge[1] * (own - one)[0])
    at_one = float((own - one) @ edge) / twice  # cotangents of the angles at the edge's ends
    at_other = float((own - other) @ -edge) / twice
    is_turned = int(corners[(k + 1) % 3]) != a
    cots = (at_other, at_one) if is_turned else (at_one, at_other)
    return (cots[1], cots[0]), -(cots[0] + cots[1])
