"""The net of measured distances: points by arcs where two are known, and all by least squares, with what does not close."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np
from scipy.optimize import least_squares

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry.angles import unit
from zesty_pivot.core.intake.ruler.sheet import NECK, RUNS_TO, WAIST, RulerPiece, is_tip, on_edge, point_words, points_of
from zesty_pivot.core.intake.traced import Array, Point
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record

READS = 0.5  # mm that a ruler is read to. Common practice, no source
CLOSES = 1.0  # mm that a distance may be off before it is said
STRANGE = 3.3  # times its own spread that a distance is off when it is likely to be wrong (Baarda's data snooping, from memory)
# Of the strangest: what is as strange is meant as well. One distance too many tells only that one of three is wrong.
ALIKE = 0.9
LEAST_CHECK = 0.02  # of a distance that the others say at least, that it can be told wrong
HOLDS = 1e-4  # of a distance's weight: keeps what nothing measures where pieces usually have it

# Where the corners of a half lie as shares of the centre's length from the centre neck: a usual block. Our own choice
USUAL: dict[Body, dict[str, Point]] = {
    Body.FRONT: {"neck_point": (0.19, -0.24), "shoulder_tip": (0.55, -0.14), "underarm": (0.7, 0.4), "side_waist": (0.62, 1.0)},
    Body.BACK: {"neck_point": (0.19, -0.05), "shoulder_tip": (0.48, 0.03), "underarm": (0.58, 0.5), "side_waist": (0.5, 1.0)},
}
TIP_IN = (0.3, 0.65)  # a dart's tip, likewise


@record
class OpenDistance:
    """A distance that does not close: the point, from where it is measured, and how much longer the net has it, mm."""

    point: str
    source: str
    off: float


@record(eq=False)
class RulerNet:
    """The points, mm, the centre neck at nothing and the centre down from it; how much longer than measured each distance is
    (mm); the points that too little holds; and the distances of which one is likely to be wrong, as far as the others tell."""

    points: Mapping[str, Array]
    off: Mapping[tuple[str, str], float]
    loose: tuple[str, ...]
    suspects: tuple[tuple[str, str], ...]

    @property
    def is_checked(self) -> bool:
        """Whether more was measured than the points need, so that something could fail to close."""
        return len(self.off) > 2 * (len(self.points) - 2) + 1

    @property
    def open(self) -> list[OpenDistance]:
        """What does not close, the worst first."""
        found = [OpenDistance(*key, off) for key, off in self.off.items() if abs(off) > CLOSES]
        return sorted(found, key=lambda one: -abs(one.off))


def adjusted_net(piece: RulerPiece) -> RulerNet:
    """The points that lie nearest to all distances. Raises FileError where the centre's length is not known."""
    base = piece.distances.get((WAIST, NECK))
    if base is None:
        raise FileError(
            f"the {piece.body.value}'s centre has no length", advice="Measure from the centre neck to the centre waist."
        )
    ids = [point.id for point in points_of(piece.items)]
    known = set(ids) | {NECK}
    seen = {key: mm for key, mm in piece.distances.items() if key[0] in known and key[1] in known}
    start = _started(piece, base, ids, seen)
    unknowns = [id for id in ids if id != WAIST]
    keys = list(seen)
    first = np.concatenate([[base], *(start[id] for id in unknowns)])
    index = {id: 1 + 2 * k for k, id in enumerate(unknowns)}

    def at(values: Array, id: str) -> Array:
        if id == NECK:
            return np.zeros(2)
        return np.array([0.0, values[0]]) if id == WAIST else values[index[id] : index[id] + 2]

    def left(values: Array) -> Array:
        off = [float(np.hypot(*(at(values, a) - at(values, b)))) - seen[a, b] for a, b in keys]
        return np.concatenate([np.array(off) / READS, (values - first) * HOLDS])

    def slopes_at(values: Array) -> Array:
        rows = np.zeros((len(keys) + len(values), len(values)))
        for row, (a, b) in enumerate(keys):
            way = unit(at(values, a) - at(values, b))
            for id, sign in ((a, 1.0), (b, -1.0)):
                if id == WAIST:
                    rows[row, 0] += sign * way[1]
                elif id != NECK:
                    rows[row, index[id] : index[id] + 2] += sign * way
        rows[: len(keys)] /= READS
        rows[len(keys) :] = np.eye(len(values)) * HOLDS
        return rows

    found = least_squares(left, first, jac=slopes_at, method="trf", ftol=1e-14, xtol=1e-14, gtol=1e-14, max_nfev=400)
    slopes = slopes_at(found.x)[: len(keys)]
    points = {id: at(found.x, id).copy() for id in (NECK, *ids)}
    off = {(a, b): float(np.hypot(*(points[a] - points[b]))) - seen[a, b] for a, b in keys}
    return RulerNet(points, off, _loose(slopes, unknowns), _suspects(slopes, keys, off))


def _started(piece: RulerPiece, base: float, ids: Sequence[str], seen: Mapping[tuple[str, str], float]) -> dict[str, Array]:
    """Where the points lie at first: by two arcs where two distances from placed points are known, on the side where pieces
    usually have them; else where pieces usually have them."""
    usual = _usual(piece, base)
    placed = {NECK: np.zeros(2), WAIST: np.array([0.0, base])}
    waiting = [id for id in ids if id != WAIST]
    while waiting:
        best: tuple[int, str] | None = None
        for id in waiting:
            count = sum(1 for source in _sources(id, seen) if source in placed)
            if best is None or count > best[0]:
                best = count, id
        assert best is not None
        id = best[1]
        arcs = [(placed[source], _between(id, source, seen)) for source in _sources(id, seen) if source in placed]
        placed[id] = _by_arcs(arcs, usual[id])
        waiting.remove(id)
    return placed


def _sources(id: str, seen: Mapping[tuple[str, str], float]) -> list[str]:
    return [b if a == id else a for a, b in seen if id in (a, b)]


def _between(a: str, b: str, seen: Mapping[tuple[str, str], float]) -> float:
    return seen[a, b] if (a, b) in seen else seen[b, a]


def _by_arcs(arcs: Sequence[tuple[Array, float]], usual: Array) -> Array:
    """Where the first two arcs cross, on the side of the usual place; where they do not meet, between them."""
    for k, (one, r) in enumerate(arcs):
        for two, s in arcs[k + 1 :]:
            way = two - one
            apart = float(np.hypot(*way))
            if apart < 1.0:
                continue
            along = (apart**2 + r**2 - s**2) / (2.0 * apart)
            high = math.sqrt(max(r**2 - along**2, 0.0))
            foot = one + way / apart * along
            normal = np.array([-way[1], way[0]]) / apart
            both = foot + normal * high, foot - normal * high
            return min(both, key=lambda at: float(np.hypot(*(at - usual))))
    if not arcs:
        return usual
    centre, r = arcs[0]
    way = usual - centre
    return np.asarray(centre + way / max(float(np.hypot(*way)), 1e-9) * r)


def _usual(piece: RulerPiece, base: float) -> dict[str, Array]:
    corners = {NECK: np.zeros(2), WAIST: np.array([0.0, base])}
    corners |= {name: np.array(at) * base for name, at in USUAL[piece.body].items()}
    for edge in RUNS_TO:
        ids = on_edge(edge, piece.items)
        on = [id for id in ids if not is_tip(id)]
        for number, id in enumerate(on):
            if id not in corners:
                corners[id] = corners[on[0]] + (corners[on[-1]] - corners[on[0]]) * number / (len(on) - 1)
        for id in ids:
            if is_tip(id):
                corners[id] = np.array(TIP_IN) * base
    return corners


def _loose(slopes: Array, unknowns: Sequence[str]) -> tuple[str, ...]:
    """The points that can move without any distance changing: where the net's matrix has no hold."""
    _u, sizes, rows = np.linalg.svd(slopes, full_matrices=True)
    free = rows[int((sizes > 1e-7 * max(float(sizes.max(initial=0.0)), 1e-12)).sum()) :]
    moves = np.abs(free).max(axis=0, initial=0.0)
    return tuple(id for k, id in enumerate(unknowns) if moves[1 + 2 * k : 3 + 2 * k].max() > 1e-3)


def _suspects(
    slopes: Array, keys: Sequence[tuple[str, str]], off: Mapping[tuple[str, str], float]
) -> tuple[tuple[str, str], ...]:
    """The distances that are off by most of their own spread: an error spreads over its neighbours, and this tells it again."""
    if not keys:
        return ()
    share = 1.0 - np.diag(slopes @ np.linalg.pinv(slopes))  # of each distance's error that shows in itself
    strange = {
        key: abs(off[key]) / (READS * math.sqrt(part))
        for key, part in zip(keys, share.tolist(), strict=True)
        if part > LEAST_CHECK
    }
    worst = max(strange.values(), default=0.0)
    return tuple(key for key in keys if strange.get(key, 0.0) >= ALIKE * worst) if worst > STRANGE else ()


def said(net: RulerNet) -> list[str]:
    """What is missing, in a sentence."""
    if not net.loose:
        return []
    names = [point_words(id) for id in net.loose]
    which = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
    return [f"Not held yet: {which}. Measure {'it' if len(names) == 1 else 'each'} from one more place."]
