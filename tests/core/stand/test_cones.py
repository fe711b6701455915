"""Paper with its darts shut: a cone at each point, as steep as what is sewn away there says.

A disc from which a sector d is taken closes to a cone of the half angle asin(1 - d / 2 pi): its edge is as long as before less
the sector (elementary geometry). What is missing of a full turn at a point stays missing however paper is bent (Gauss).
"""

from __future__ import annotations

import threading

import numpy as np
import pytest
from scipy.spatial import Delaunay

from tests.samples import hip_pattern, move, real_pattern, worked
from zesty_pivot.core.conventions.sewing import PLAIN, OwnPoint, Sewing, closing_angle
from zesty_pivot.core.piece import DartRef, Piece
from zesty_pivot.core.sewn.laid import laid_flat
from zesty_pivot.core.stand.cloth import ElasticCloth, SewnSheet
from zesty_pivot.core.stand.cloth_kinds import PAPER
from zesty_pivot.core.stand.paper import Held, held, missing, raised
from zesty_pivot.core.stand.settle import let_go


def disc(sector: float, radius: float = 130.0, step: float = 9.0) -> SewnSheet:
    """A disc without a sector (radians), whose two straight edges are sewn to each other."""
    points, sewn = [(0.0, 0.0)], {}
    for k in range(1, int(radius / step) + 1):
        r = step * k
        count = max(6, int(np.ceil((2.0 * np.pi - sector) * r / step)))
        first = len(points)
        turns = np.linspace(sector / 2.0, 2.0 * np.pi - sector / 2.0, count + 1)
        points += [(r * np.cos(t), r * np.sin(t)) for t in turns]
        sewn[len(points) - 1] = first
    at = np.array(points)
    triangles = Delaunay(at).simplices
    middle = at[triangles].mean(axis=1)
    turn = np.mod(np.arctan2(middle[:, 1], middle[:, 0]), 2.0 * np.pi)
    triangles = triangles[(turn > sector / 2.0) & (turn < 2.0 * np.pi - sector / 2.0)]
    own = np.array([sewn.get(k, k) for k in range(len(at))])
    used, own = np.unique(own, return_inverse=True)
    return SewnSheet(
        at[triangles], own[triangles], len(used), np.empty(0, dtype=np.int64), np.zeros((len(used), 3), dtype=bool)
    )


def at_rest(sheet: SewnSheet) -> np.ndarray:
    """Where a disc lies once it is let go, from a flat one that is drawn shut."""
    start = np.zeros((sheet.count, 3))
    gap = missing(sheet).max()
    for corners, points in zip(sheet.rest.reshape(-1, 2), sheet.triangles.ravel(), strict=False):
        turn = np.mod(np.arctan2(corners[1], corners[0]), 2.0 * np.pi)
        turn = (turn - gap / 2.0) * 2.0 * np.pi / (2.0 * np.pi - gap)
        start[points] = np.hypot(*corners) * np.array([np.cos(turn), 0.0, np.sin(turn)])
    start[:, 1] = raised(sheet, start)
    turns = list(let_go(ElasticCloth(sheet, PAPER, is_heavy=False), start, 80))
    assert turns[-1].rests
    return turns[-1].places


@pytest.mark.parametrize("degrees", [10.0, 30.0, 60.0])
def test_a_cone(degrees: float) -> None:
    sheet = disc(np.radians(degrees))
    assert np.degrees(missing(sheet).max()) == pytest.approx(degrees, abs=1e-6)
    places = at_rest(sheet)
    corners = places[sheet.triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normals *= np.sign(normals[:, 1:2])
    axis = normals.sum(axis=0) / np.linalg.norm(normals.sum(axis=0))
    areas = np.linalg.norm(normals, axis=1)
    far = np.linalg.norm(sheet.rest.mean(axis=1), axis=1) > 40.0  # the point itself is rounded
    half = np.degrees(np.arcsin((normals[far] / areas[far, None]) @ axis))
    assert np.average(half, weights=areas[far]) == pytest.approx(np.degrees(np.arcsin(1.0 - degrees / 360.0)), abs=0.3)
    assert half.std() < 1.0


def paper_of(piece: Piece, sewing: Sewing) -> tuple[Held, np.ndarray]:
    """A piece at rest, and what is missing of a full turn round each of its points in space, degrees; 0 at the edge."""
    found = list(held(laid_flat((piece,), (), sewing, 14.0), threading.Event()))[-1]
    triangles, corners = found.sheet.triangles, found.places[found.sheet.triangles]
    turn = np.zeros(found.sheet.count)
    for k in range(3):
        one, other = corners[:, (k + 1) % 3] - corners[:, k], corners[:, (k + 2) % 3] - corners[:, k]
        size = np.linalg.norm(one, axis=1) * np.linalg.norm(other, axis=1)
        np.add.at(turn, triangles[:, k], np.degrees(np.arccos((one * other).sum(axis=1) / size)))
    ends = np.sort(np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]]), axis=1)
    known, times = np.unique(ends, axis=0, return_counts=True)
    gone = 360.0 - turn
    gone[np.unique(known[times == 1])] = 0.0
    return found, gone


@pytest.mark.parametrize("setback", [0.0, 40.0])
def test_two_darts_on_a_front(setback: float) -> None:
    front = real_pattern().piece("front")
    own = tuple((DartRef("front", dart.id), OwnPoint(setback_mm=setback)) for dart in front.darts)
    sewing = Sewing(own=own)
    found, gone = paper_of(front, sewing)
    assert found.done == 1.0
    flat = missing(found.sheet)
    tips = np.flatnonzero(np.degrees(flat) > 1.0)
    wanted = sorted(np.degrees(closing_angle(front, dart.id, sewing)) for dart in front.darts)
    if setback == 0.0:  # sewn to one point: their angles together
        wanted = [sum(wanted)]
    near = np.linalg.norm(found.places[:, None] - found.places[tips], axis=2) < 26.0  # paper is rounded at its point
    assert sorted((gone[:, None] * near).sum(axis=0)) == pytest.approx(wanted, abs=0.3)


def test_a_fish_eye() -> None:
    front = hip_pattern().piece("front")
    assert front.fisheyes
    found, gone = paper_of(front, PLAIN)
    flat = np.degrees(missing(found.sheet))
    inside = np.abs(flat) > 1.0
    # A cone at either end, a saddle where it is widest; of a diamond they add to nothing.
    assert (flat[inside] > 1.0).sum() >= 2
    assert (flat[inside] < -1.0).sum() >= 1
    bent = np.array([gone[np.linalg.norm(found.places - at, axis=1) < 22.0].sum() for at in found.places[inside]])
    assert bent == pytest.approx(flat[inside], abs=0.3)


def test_a_dart_is_seen_wherever_it_was_moved() -> None:
    moved = worked([move("waist", "french")]).pattern.piece("front")
    found, gone = paper_of(moved, PLAIN)
    assert np.ptp(found.places[:, 1]) > 20.0  # it does not lie flat
    assert gone[np.degrees(missing(found.sheet)) > 1.0].sum() > 20.0


def test_paper_can_be_put_down() -> None:
    stop = threading.Event()
    turns = held(laid_flat((real_pattern().piece("front"),), (), PLAIN, 12.0), stop)
    next(turns)
    stop.set()
    assert list(turns) == []
