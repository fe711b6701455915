"""Handles of a yoke's seam: where it leaves the outer edge, how low it meets the centre, how far it hangs."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Piece, Side
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import distance_mm, is_share, length_mm
from zesty_pivot.core.steps.yoke_cut import YokeCut
from zesty_pivot.desk.table.grips.base import Grips, Scene, spot_near

OUTER = ("armhole", "side_seam")


def _seam(scene: Scene, side: Side | None) -> tuple[Piece, list[Path]] | None:
    """The part beside the seam that leads, and the seam from the centre outwards, of a whole piece on a side."""
    made = [line for line in scene.after.lines if line not in scene.before.lines]
    if not made:
        return None
    piece = scene.after.piece(made[-1].panels[0])
    edge = piece.sides.id(piece.sides.name(made[-1].id), side)
    if edge not in dict(piece.roles):
        return None
    runs = piece.edge(edge).runs
    outer = [piece.role(piece.runs[at].edge) in OUTER for at in _beside(piece, edge)]
    return piece, [run.path for run in runs] if outer[1] else [run.path.reversed() for run in reversed(runs)]


def _beside(piece: Piece, edge: str) -> tuple[int, int]:
    """The runs before and after an edge."""
    runs = piece.edge(edge).runs
    return piece.runs.index(runs[0]) - 1, piece.after(piece.runs.index(runs[-1]))


def _yoke_places(scene: Scene) -> dict[str, tuple[str, float, float]]:
    step: YokeCut = scene.step
    found: dict[str, tuple[str, float, float]] = {}
    for side, key in ((None, "at"), (Side.LEFT, "at"), (Side.RIGHT, "right")):
        seam = _seam(scene, side)
        if seam is None or (key == "right" and step.right is None):
            continue
        piece, paths = seam
        spots = {key: paths[-1].end}
        if key == "at":
            spots["depth" if step.line(_context(scene)).hangs else "centre"] = paths[0].start
            if step.shape == "scalloped":
                spots["depth"] = paths[0].point_at(sum(path.length for path in paths) / (2.0 * step.arcs))
        found |= {name: (piece.name, float(x), float(y)) for name, (x, y) in spots.items()}
    return found


def _context(scene: Scene) -> Context:
    return Context(scene.block, scene.scope)


def _yoke_dragged(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    step: YokeCut = scene.step
    before, place = scene.before.piece(step.on), _yoke_places(scene).get(key)
    if place is None:
        return None
    line = step.line(_context(scene))
    try:
        if key in ("at", "right"):
            # On a half the right side is dragged as its mirror image.
            spots = [
                spot_near(before, before, at_x if before.is_unfolded else abs(at_x), at_y, (line.role,))
                for at_x, at_y in (place[1:], (x, y))
            ]
            if spots[0] is None or spots[1] is None:
                return None
            (was, _share), (mm, share) = (line.away(before, spot, _context(scene)) for spot in spots if spot is not None)
            own, most = getattr(step, key), mm / share
            if own is not None:  # by as much as the hand has moved: below a taper the handle lies lower than the seam is asked
                mm += distance_mm(own, most, scene.scope) - was
            return {key: f"{100.0 * mm / most:.1f}%" if own is not None and is_share(own) else f"{mm:.0f} mm"}
        if key == "centre" and step.right is not None:  # lower than the straight line from side to side
            now = length_mm(step.centre or 0, scene.scope)
        elif key == "depth":
            now = length_mm(step.depth, scene.scope)
        elif before.is_unfolded and step.centre is None:
            return None
        else:
            now = line.lower(before, _context(scene))
    except ZestyError:
        return None
    return {key: f"{now + y - place[2]:.0f} mm"}


GRIPS = Grips(YokeCut, _yoke_places, _yoke_dragged)
