"""Sewn cloth laid flat with the least distortion: what a drawing of the garment shows.

Every triangle is turned as a whole (local), then all points are moved so that triangles keep their shapes as far as they can
(global), in turns, as in as-rigid-as-possible parameterization (Liu, Zhang, Xu, Gotsman, Gortler 2008, from memory). What can
be laid flat without distortion is.
"""

from __future__ import annotations

import numpy as np
from scipy import sparse
from scipy.sparse.csgraph import connected_components
from scipy.sparse.linalg import splu

from zesty_pivot.core.sewn.mesh import Mesh, Numbers, Points

ROUNDS = 60
STILL = 0.01  # mm: when no point moves farther in a round it is at rest
FLATTEST, STEEPEST = 0.02, 20.0  # bounds of the weight of a triangle's side


def flattened(mesh: Mesh, on_axis: Numbers) -> Points:
    """Where the points of a mesh lie once it is sewn and flat, (n, 2) mm: those on the axis (their numbers) at x = 0. Parts
    that are not sewn to each other stay where they are on their pieces."""
    return _Flattening(mesh, on_axis).run()


class _Flattening:
    def __init__(self, mesh: Mesh, on_axis: Numbers) -> None:
        self._mesh = mesh
        roots, self._own = np.unique(mesh.sewn, return_inverse=True)
        self._count = len(roots)
        self._triangles = self._own[mesh.triangles]
        rest = mesh.places[mesh.triangles]
        self._sides = np.stack([rest[:, (k + 2) % 3] - rest[:, (k + 1) % 3] for k in range(3)], axis=1)  # opposite corner k
        self._ends = np.stack([self._triangles[:, [(k + 1) % 3, (k + 2) % 3]] for k in range(3)], axis=1)
        self._weights = self._cotangents(rest)
        self._axis = np.unique(self._own[on_axis]) if len(on_axis) else np.empty(0, dtype=np.int64)
        self._parts = self._connected()
        self._held = self._pins()

    def _cotangents(self, rest: Points) -> Points:
        found = []
        for k in range(3):
            one, other = rest[:, (k + 1) % 3] - rest[:, k], rest[:, (k + 2) % 3] - rest[:, k]
            cross = np.abs(one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0])
            found.append(0.5 * (one * other).sum(axis=1) / np.maximum(cross, 1e-12))
        return np.asarray(np.clip(np.stack(found, axis=1), FLATTEST, STEEPEST))

    def _connected(self) -> Numbers:
        a, b = self._ends.reshape(-1, 2).T
        graph = sparse.coo_matrix((np.ones(len(a)), (a, b)), shape=(self._count, self._count))
        return np.asarray(connected_components(graph, directed=False)[1])

    def _pins(self) -> tuple[dict[int, float], dict[int, float]]:
        """What is held: x on the axis, and of every part one y, on the axis that of its lowest point, where the waist is: the
        neck may have been turned about a pivot. Of a part off the axis one x as well."""
        x = dict.fromkeys(self._axis.tolist(), 0.0)
        y: dict[int, float] = {}
        start = self._start()
        for part in range(int(self._parts.max()) + 1):
            mine = np.flatnonzero(self._parts == part)
            here = [point for point in self._axis.tolist() if self._parts[point] == part]
            pin = max(here, key=lambda point: start[point, 1]) if here else int(mine[0])
            y[pin] = float(start[pin, 1])
            if not here:
                x[pin] = float(start[pin, 0])
        return x, y

    def _start(self) -> Points:
        """Every sewn point where the first piece that has it has it."""
        found = np.zeros((self._count, 2))
        found[self._own[::-1]] = self._mesh.places[::-1]
        return found

    def run(self) -> Points:
        a, b = self._ends.reshape(-1, 2).T
        weights = self._weights.ravel()
        size = (self._count, self._count)
        whole = sparse.coo_matrix((weights, (a, b)), shape=size)
        whole = whole + whole.T
        laplace = sparse.csc_matrix(sparse.diags(np.asarray(whole.sum(axis=1)).ravel()) - whole)
        solvers = [_Held(laplace, held) for held in self._held]
        turns = self._first_turns()
        flat = self._start()
        for _ in range(ROUNDS):
            wanted = np.einsum("tij,tkj->tki", _matrices(turns), self._sides) * self._weights[..., None]
            forces = np.zeros((self._count, 2))
            for axis in range(2):
                forces[:, axis] = np.bincount(b, wanted[..., axis].ravel(), self._count)
                forces[:, axis] -= np.bincount(a, wanted[..., axis].ravel(), self._count)
            before, flat = flat, np.stack([solver.solved(forces[:, k]) for k, solver in enumerate(solvers)], axis=1)
            turns = self._turns(flat)
            if np.abs(flat - before).max() < STILL:
                break
        return self._upright(flat, turns)[self._own]

    def _upright(self, flat: Points, turns: Points) -> Points:
        """Parts off the axis turned back by what they are turned on the whole, their middle where it was on their pieces."""
        corners, start = self._sides, self._start()
        areas = np.abs(corners[:, 0, 0] * corners[:, 1, 1] - corners[:, 0, 1] * corners[:, 1, 0])
        found = flat.copy()
        of = self._parts[self._triangles[:, 0]]
        on_axis = set(self._parts[self._axis].tolist())
        for part in set(of.tolist()) - on_axis:
            mine, points = of == part, self._parts == part
            turn = float(np.average(turns[mine], weights=areas[mine]))
            middle = flat[points].mean(axis=0)
            found[points] = (flat[points] - middle) @ _matrices(np.array([-turn]))[0].T + start[points].mean(axis=0)
        return found

    def _turns(self, flat: Points) -> Points:
        """How far each triangle is turned from its rest, radians: the best rotation in the plane."""
        now = flat[self._ends[..., 1]] - flat[self._ends[..., 0]]
        both = np.einsum("tki,tkj,tk->tij", now, self._sides, self._weights)
        return np.asarray(np.arctan2(both[:, 1, 0] - both[:, 0, 1], both[:, 0, 0] + both[:, 1, 1]))

    def _first_turns(self) -> Points:
        """Pieces turned so that the lines they share run alike, from the one that is on the axis on."""
        plan, turned = self._mesh.plan, dict[int, float]()
        root = self._mesh.sewn
        shared: dict[tuple[int, int], list[tuple[int, int]]] = {}
        at: dict[int, dict[int, int]] = {}
        for point, of in enumerate(plan.of.tolist()):
            at.setdefault(int(root[point]), {}).setdefault(of, point)
        for pieces in at.values():
            for one in pieces:
                for other in pieces:
                    if one != other:
                        shared.setdefault((one, other), []).append((pieces[one], pieces[other]))
        axis = set(self._axis.tolist())
        on_axis = [n for n in range(len(plan.pieces)) if any(int(self._own[k]) in axis for k in plan.rings[n][0])]
        order = [*on_axis, *range(len(plan.pieces))]
        for begin in order:
            if begin in turned:
                continue
            turned[begin] = 0.0
            reached = [begin]
            while reached:
                one = reached.pop(0)
                for (mine, other), pairs in shared.items():
                    if mine == one and other not in turned and len(pairs) > 1:
                        turned[other] = turned[one] + _between(plan.places, pairs)
                        reached.append(other)
        return np.array([turned[n] for n in self._mesh.pieces.tolist()])


def _between(places: Points, pairs: list[tuple[int, int]]) -> float:
    """How far points must be turned to lie as their partners do, radians."""
    mine, others = (places[[pair[k] for pair in pairs]] for k in (0, 1))
    mine, others = mine - mine.mean(axis=0), others - others.mean(axis=0)
    both = mine.T @ others
    return float(np.arctan2(both[1, 0] - both[0, 1], both[0, 0] + both[1, 1]))


def _matrices(turns: Points) -> Points:
    cos, sin = np.cos(turns), np.sin(turns)
    return np.stack([np.stack([cos, -sin], axis=1), np.stack([sin, cos], axis=1)], axis=1)


class _Held:
    """Linear equations with some unknowns held; factorised once."""

    def __init__(self, matrix: sparse.csc_matrix, held: dict[int, float]) -> None:
        self._known = np.array(sorted(held), dtype=np.int64)
        self._values = np.array([held[k] for k in self._known.tolist()])
        self._free = np.setdiff1d(np.arange(matrix.shape[0]), self._known)
        rows = matrix[self._free]
        self._solver = splu(sparse.csc_matrix(rows[:, self._free]))
        self._moved = rows[:, self._known] @ self._values

    def solved(self, forces: Points) -> Points:
        found = np.empty(len(self._free) + len(self._known))
        found[self._free] = self._solver.solve(forces[self._free] - self._moved)
        found[self._known] = self._values
        return found
