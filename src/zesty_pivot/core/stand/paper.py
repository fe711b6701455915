"""Darts shut on paper, as it is held in the hand: stiff, without a body and without weight, a cone at each point."""

from __future__ import annotations

import threading
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.piece import Body, Pattern
from zesty_pivot.core.record import record
from zesty_pivot.core.sewn.laid import LaidFlat, centres, laid_flat, seams_among
from zesty_pivot.core.sewn.mesh import Mesh
from zesty_pivot.core.stand.cloth import ClothKind, ElasticCloth, SewnSheet, added
from zesty_pivot.core.stand.cloth_kinds import PAPER
from zesty_pivot.core.stand.settle import let_go

MOST = 60  # rounds
SHOWN = 4  # rounds between two looks at what goes on
STEP = 10.0  # mm between points
LEAST = 0.02  # radians that are missing round a point: less is no cone

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record(eq=False)
class Held:
    """Paper with its darts shut: `places` (m, 3) mm, y towards who looks at it, z up; `own` (n,) the point of each point of
    the mesh; of a half (not `is_whole`) the other half is its mirror; `done` the share of the work, `rests` whether it lies
    still."""

    mesh: Mesh
    own: Numbers
    sheet: SewnSheet
    places: Points
    is_whole: bool
    done: float
    rests: bool


def held(laid: LaidFlat, stop: threading.Event, kind: ClothKind = PAPER) -> Iterator[Held]:
    """The paper of a body laid flat, let go: every round, the last at rest."""
    mesh = laid.mesh
    used = np.unique(mesh.sewn[np.unique(mesh.triangles)])
    own = np.minimum(np.searchsorted(used, mesh.sewn), len(used) - 1)
    axis = np.empty(0, dtype=np.int64) if laid.is_whole else np.unique(own[centres(laid.plan)])
    sheet = SewnSheet(mesh.places[mesh.triangles], own[mesh.triangles], len(used), axis, np.zeros((len(used), 3), dtype=bool))
    start = np.zeros((len(used), 3))
    start[own] = np.stack([laid.flat[:, 0], np.zeros(len(own)), -laid.flat[:, 1]], axis=1)
    start[axis, 0] = 0.0
    start[:, 1] = raised(sheet, start)
    for turn in let_go(ElasticCloth(sheet, kind, is_heavy=False), start, MOST, stop):
        yield Held(mesh, own, sheet, turn.places, laid.is_whole, 1.0 if turn.rests else turn.number / MOST, turn.rests)


def in_the_hand(pattern: Pattern, body: Body, sewing: Sewing, stop: threading.Event) -> Iterator[Held]:
    """Front or back of a pattern as paper with its darts and inner seams shut, better and better; nothing of a body that has no
    pieces."""
    pieces = tuple(piece for piece in pattern.pieces if piece.body is body)
    if pieces:
        turns = held(laid_flat(pieces, seams_among(pattern.seams, pieces), sewing, STEP), stop)
        yield from (turn for number, turn in enumerate(turns) if number % SHOWN == 0 or turn.done == 1.0)


def missing(sheet: SewnSheet) -> Points:
    """What is missing of a full turn round each point (m,), radians: what is sewn away there; 0 at the edges. On the axis both
    sides count."""
    rest, triangles = sheet.rest, sheet.triangles
    found = np.zeros(sheet.count)
    for k in range(3):
        one, other = rest[:, (k + 1) % 3] - rest[:, k], rest[:, (k + 2) % 3] - rest[:, k]
        across = np.abs(one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0])
        found += added(triangles[:, k], np.arctan2(across, (one * other).sum(axis=1)), sheet.count)
    whole = np.full(sheet.count, 2.0 * np.pi)
    whole[sheet.on_axis] = np.pi
    found = whole - found
    found[sheet.on_axis] *= 2.0
    ends = np.sort(np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]]), axis=1)
    known, times = np.unique(ends, axis=0, return_counts=True)
    edges = known[times == 1]
    on_axis = np.isin(edges, sheet.on_axis).all(axis=1)
    found[edges[~on_axis]] = 0.0
    return found


def raised(sheet: SewnSheet, flat: Points) -> Points:
    """How far points (m, 3) in the plane begin towards who looks, mm: a cone at each point where something is sewn away, as
    steep as asin(1 - missing / 2 pi) says of its half angle."""
    found = np.zeros(sheet.count)
    gone = missing(sheet)
    for tip in np.flatnonzero(gone > LEAST):
        half = np.arcsin(max(1.0 - gone[tip] / (2.0 * np.pi), 0.1))
        found -= np.linalg.norm(flat - flat[tip], axis=1) / np.tan(half)
    return found
