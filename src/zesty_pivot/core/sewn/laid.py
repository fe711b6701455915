"""Pieces of a body sewn and laid flat: halves on their axis, a whole body with its right side turned over from the left."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.moves.mirror import flip
from zesty_pivot.core.piece import Piece, SeamSide
from zesty_pivot.core.piece.names import SEAM_ROLES
from zesty_pivot.core.piece.refs import Seam
from zesty_pivot.core.piece.sides import Side
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sewn.flatten import flattened
from zesty_pivot.core.sewn.mesh import Mesh, Numbers, Points, meshed
from zesty_pivot.core.sewn.seam_plan import SeamPlan, seam_plan


@record(eq=False)
class LaidFlat:
    """Pieces sewn and flat: `flat` (n, 2) mm where the points of the mesh lie, those of halves' centres at x = 0. In a whole
    body (`is_whole`) halves are there twice, and both sides lie level."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...]
    plan: SeamPlan
    mesh: Mesh
    flat: Points
    is_whole: bool


def laid_flat(pieces: tuple[Piece, ...], seams: tuple[Seam, ...], sewing: Sewing, step: float) -> LaidFlat:
    """Front or back laid flat, with triangles of about `step` mm. It need not be without folds: `flattened` says how."""
    is_whole = any(piece.is_unfolded for piece in pieces)
    if is_whole:
        pieces, seams = with_right_halves(pieces, seams)
    plan = seam_plan(pieces, seams, sewing, step)
    mesh = meshed(plan, step)
    flat = flattened(mesh, np.empty(0, dtype=np.int64) if is_whole else centres(plan))
    return LaidFlat(pieces, seams, plan, mesh, _level(plan, flat) if is_whole else flat, is_whole)


def seams_among(seams: Iterable[Seam], pieces: Iterable[Piece]) -> tuple[Seam, ...]:
    """The seams that join these pieces only."""
    names = {piece.name for piece in pieces}
    return tuple(seam for seam in seams if all(part.piece in names for part in seam.parts))


def centres(plan: SeamPlan) -> Numbers:
    """The points of the centre edges of a plan."""
    edges = {(piece.name, edge) for piece in plan.pieces for edge, role in piece.roles if role == "centre"}
    lines = (line for line in plan.lines if line.kind == "edge" and (line.piece, line.id) in edges)
    return np.array([point for line in lines for point in line.points], dtype=np.int64)


def with_right_halves(pieces: tuple[Piece, ...], seams: tuple[Seam, ...]) -> tuple[tuple[Piece, ...], tuple[Seam, ...]]:
    """Halves twice, as they are drawn for the left and turned over for the right, where other pieces are whole."""
    halves = {piece.name for piece in pieces if not piece.is_unfolded}
    right = {name: Side.RIGHT.id(name) for name in halves}
    turned = [replace(flip(p, np.zeros(2), np.array([0.0, 1.0])), name=right[p.name]) for p in pieces if p.name in halves]
    sides = {piece.name: piece.sides for piece in pieces}

    def over(side: SeamSide) -> SeamSide:
        return SeamSide(tuple(replace(part, piece=right.get(part.piece, part.piece)) for part in side.parts))

    found = []
    for seam in seams:
        its = {sides[part.piece].of(part.edge) for part in seam.parts if part.piece not in halves}
        if its != {Side.RIGHT}:
            found.append(seam)
        if its == {Side.RIGHT} or all(part.piece in halves for part in seam.parts):
            found.append(replace(seam, a=over(seam.a), b=over(seam.b)))
    return (*pieces, *turned), tuple(found)


def _level(plan: SeamPlan, flat: Points) -> Points:
    """All points moved so that the two sides of whole pieces, the ends of their shoulders and side seams, lie level and as
    far from x = 0; where there are none of them on both sides all stay as they are."""
    ends: dict[tuple[str, str, int], dict[Side, Points]] = {}
    for piece in plan.pieces:
        for edge, role in piece.roles:
            side = piece.sides.of(edge)
            if role not in SEAM_ROLES or side is None:
                continue
            runs = piece.edge(edge).runs
            lines = [
                    flat[list(line.points)] for line in plan.lines
                    if (line.piece, line.kind, line.id) == (piece.name, "edge", edge)
                ]  # fmt: skip
            both = (lines[0][0], lines[-1][-1])
            for k, end in enumerate(both if runs[0].source.u0 <= runs[-1].source.u1 else both[::-1]):
                ends.setdefault((piece.name, piece.sides.name(edge), k), {})[side] = end
    pairs = np.array([[pair[Side.RIGHT], pair[Side.LEFT]] for pair in ends.values() if len(pair) == 2])
    if not len(pairs):
        return flat
    across = (pairs[:, 1] - pairs[:, 0]).sum(axis=0)  # the wearer's left is drawn at the right
    (cos, sin), middle = across / np.hypot(*across), pairs.mean(axis=(0, 1))
    return np.asarray((flat - middle) @ np.array([[cos, sin], [-sin, cos]]).T + (0.0, middle[1]))
