"""Handles of a yoke's seam: where it leaves the outer edge, how low it meets the centre, how far it hangs."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import length_mm
from zesty_pivot.core.steps.yoke_cut import YokeCut
from zesty_pivot.desk.table.grips.base import Grips, Scene, spot_near


def _seam(scene: Scene) -> tuple[Piece, list[Path]] | None:
    """The part that keeps the name, and its seam from the centre outwards."""
    step: YokeCut = scene.step
    if not scene.after.has(step.on) or scene.before.piece(step.on).is_unfolded:
        return None
    piece = scene.after.piece(step.on)
    known = dict(scene.before.piece(step.on).roles)
    edge = next((edge for edge, role in piece.roles if role == STYLE_LINE and edge not in known), None)
    if edge is None:
        return None
    runs = piece.edge(edge).runs
    beside = piece.runs[piece.runs.index(runs[0]) - 1]
    if piece.role(beside.edge) == "centre":
        return piece, [run.path for run in runs]
    return piece, [run.path.reversed() for run in reversed(runs)]


def _yoke_places(scene: Scene) -> dict[str, tuple[str, float, float]]:
    found, step = _seam(scene), scene.step
    if found is None:
        return {}
    piece, seam = found
    spots = {"at": seam[-1].end, "depth" if step.line(Context(scene.block, scene.scope)).hangs else "centre": seam[0].start}
    if step.shape == "scalloped":
        spots["depth"] = seam[0].point_at(sum(path.length for path in seam) / (2.0 * step.arcs))
    return {key: (piece.name, float(x), float(y)) for key, (x, y) in spots.items()}


def _yoke_dragged(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    step: YokeCut = scene.step
    before, place = scene.before.piece(step.on), _yoke_places(scene).get(key)
    if place is None:
        return None
    context = Context(scene.block, scene.scope)
    try:
        if key == "at":
            spot = spot_near(before, before, x, y, (step.line(context).role,))
            return None if spot is None else {"at": f"{step.line(context).away(before, spot, context):.0f} mm"}
        now = length_mm(step.depth, scene.scope) if key == "depth" else step.line(context).lower(before, context)
    except ZestyError:
        return None
    return {key: f"{now + y - place[2]:.0f} mm"}


GRIPS = Grips(YokeCut, _yoke_places, _yoke_dragged)
