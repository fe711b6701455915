"""Triangles over pieces of cloth: the points of their outlines, and a lattice inside."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.spatial import Delaunay

from zesty_pivot.core.record import record
from zesty_pivot.core.sewn.seam_plan import SeamPlan

OFF = 0.6  # of a step: how far points inside keep from the outline
FLAT = 1e-6  # mm²: less is no triangle

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record(eq=False)
class Mesh:
    """`places` (n, 2) mm where each point lies on its piece, first those of the plan; `triangles` (t, 3) their numbers, all
    the same way round; `sewn` (n,) the point that each comes to lie on; `pieces` (t,) the piece of each triangle."""

    plan: SeamPlan
    places: Points
    triangles: Numbers
    sewn: Numbers
    pieces: Numbers


def meshed(plan: SeamPlan, step: float) -> Mesh:
    """Triangles with sides of about `step` mm."""
    places, triangles, of = [plan.places], list[Numbers](), list[Numbers]()
    count = len(plan.places)
    for n, rings in enumerate(plan.rings):
        outline = np.array([point for ring in rings for point in ring])
        area = shapely.Polygon(plan.places[list(rings[0])], [plan.places[list(ring)] for ring in rings[1:]])
        area = area if area.is_valid else shapely.make_valid(area)  # darts that share a point touch there
        inside = _lattice(area, step)
        numbers = np.concatenate([outline, np.arange(count, count + len(inside))])
        mine = _triangles(np.concatenate([plan.places[outline], inside]), area)
        places.append(inside)
        count += len(inside)
        triangles.append(numbers[mine])
        of.append(np.full(len(mine), n))
    whole = np.concatenate(triangles)
    sewn = np.concatenate([_held(plan, whole), np.arange(len(plan.places), count)])
    return Mesh(plan, np.concatenate(places), whole, sewn, np.concatenate(of))


def _held(plan: SeamPlan, triangles: Numbers) -> Numbers:
    """What each point of the plan comes to lie on; one that no triangle holds goes with the point before it in its outline."""
    held, sewn = set(plan.sewn[triangles[triangles < len(plan.places)]].tolist()), plan.sewn.copy()
    for rings in plan.rings:
        for ring in rings:
            for before, point in zip((ring[-1], *ring), (*ring, ring[0]), strict=True):
                if int(sewn[point]) not in held:
                    sewn[sewn == sewn[point]] = sewn[before]
    return sewn


def _lattice(area: shapely.Geometry, step: float) -> Points:
    """Rows of points inside, every other row shifted by half a step."""
    inner = shapely.buffer(area, -OFF * step)
    if inner.is_empty:
        return np.empty((0, 2))
    left, top, right, bottom = inner.bounds
    down = step * np.sqrt(3.0) / 2.0
    rows = []
    for k, y in enumerate(np.arange(top, bottom, down)):
        xs = np.arange(left + (k % 2) * step / 2.0, right, step)
        rows.append(np.stack([xs, np.full(len(xs), y)], axis=1))
    points = np.concatenate(rows) if rows else np.empty((0, 2))
    return np.asarray(points[shapely.contains_xy(inner, points[:, 0], points[:, 1])])


def _triangles(points: Points, area: shapely.Geometry) -> Numbers:
    found = Delaunay(points).simplices
    corners = points[found]
    middles = corners.mean(axis=1)
    one, other = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    twice = one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]
    kept = shapely.contains_xy(area, middles[:, 0], middles[:, 1]) & (np.abs(twice) > FLAT)
    found, twice = found[kept], twice[kept]
    return np.asarray(np.where((twice > 0.0)[:, None], found, found[:, ::-1]), dtype=np.int64)
