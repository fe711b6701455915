"""Where cloth stands off and where it pulls: bands for pictures, and places that are worth words."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy import sparse
from scipy.sparse.csgraph import connected_components

from zesty_pivot.core.record import record
from zesty_pivot.core.stand.cloth import added
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.whereabouts import goes_round, where, zone

GAPS = (3.0, 6.0, 10.0, 15.0, 25.0)  # mm between the bands of a gap map
PULLS = (0.01, 0.02, 0.04, 0.06, 0.10)  # shares between those of a pull map
OFF_MM, TIGHT = 20.0, 0.02  # from here on a place is worth words
OFF_AREA, TIGHT_AREA = 1500.0, 1000.0  # mm² that it must have
MOST = 5  # places of a kind that are told

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record(eq=False)
class Patch:
    """A place where a value is high: the `point` of the cloth where it is highest and where that lies (3,) mm, the `value`, the
    `area` of the whole place, mm², its points, and where it is in words."""

    point: int
    place: Points
    value: float
    area: float
    points: Numbers
    words: str


def standing_off(fitting: Fitting) -> tuple[Patch, ...]:
    """Where the cloth stands off the form, the farthest first."""
    return _patches(fitting, fitting.gap, OFF_MM, OFF_AREA)


def pulling(fitting: Fitting) -> tuple[Patch, ...]:
    """Where the cloth is stretched, the hardest first. A place's value is that of nine tenths of its points or more: one
    triangle tells nothing."""
    return _patches(fitting, fitting.pull, TIGHT, TIGHT_AREA, share=0.9)


def _patches(fitting: Fitting, values: Points, least: float, area: float, share: float = 1.0) -> tuple[Patch, ...]:
    triangles, count = fitting.triangles, len(values)
    sizes = _areas(fitting)
    high = values >= least
    zones = {int(point): zone(fitting.form, fitting.places[point]) for point in np.flatnonzero(high)}
    ends = np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    ends = ends[high[ends].all(axis=1)]
    alike = [zones[one] == zones[other] for one, other in ends.tolist()]  # a place is at the bust or at the waist
    ends = ends[np.array(alike, dtype=bool)]
    graph = sparse.coo_matrix((np.ones(len(ends)), ends.T), shape=(count, count))
    part = connected_components(graph, directed=False)[1]
    edges, found = edge_roles(fitting), []
    for one in np.unique(part[high]):
        points = np.flatnonzero((part == one) & high)
        whole = float(sizes[points].sum())
        if whole < area:
            continue
        value = float(np.quantile(values[points], share))
        point = int(points[values[points].argmax()])
        place = fitting.places[point]
        words = where(fitting.form, place, edges.get(point, ""), is_whole=fitting.worn.is_whole)
        if goes_round(fitting.form, fitting.places[points]):
            words = f"the {zones[point]}, right across"
        found.append(Patch(point, place, value, whole, points, words))
    return tuple(sorted(found, key=lambda patch: -patch.value)[:MOST])


def _areas(fitting: Fitting) -> Points:
    """The cloth's area round each of its points, mm²."""
    rest = fitting.worn.sheet.rest
    one, other = rest[:, 1] - rest[:, 0], rest[:, 2] - rest[:, 0]
    sizes = np.abs(one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]) / 6.0
    return np.asarray(added(fitting.triangles.ravel(), np.repeat(sizes, 3), fitting.worn.sheet.count))


def edge_roles(fitting: Fitting) -> dict[int, str]:
    """The roles of the free edges of the garment that points of the cloth lie on: neckline, armhole, waist or hem."""
    plan, own = fitting.worn.plan, fitting.worn.own
    roles = {(piece.name, edge): role for piece in plan.pieces for edge, role in piece.roles}
    wanted = ("neckline", "armhole", "waist", "hem")
    found: dict[int, str] = {}
    for line in plan.lines:
        role = roles.get((line.piece, line.id), "") if line.kind == "edge" else ""
        if role in wanted:
            found |= {int(own[point]): role for point in line.points}
    return found
