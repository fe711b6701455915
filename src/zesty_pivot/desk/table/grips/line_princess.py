"""Handles of a princess line. They lie on the centre panel, which lies as it lay before."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from zesty_pivot.core.piece import Piece, Side
from zesty_pivot.core.piece.names import UPPER
from zesty_pivot.core.quantity import length_mm
from zesty_pivot.core.steps.line_princess import MOST_PAST, Princess
from zesty_pivot.desk.table.grips.base import Grips, Scene, spot_near

LOWER = ("side_seam", "waist", "hem")


def _centre(scene: Scene) -> Piece | None:
    line = next((line for line in scene.after.lines if line not in scene.before.lines), None)
    return scene.after.piece(line.panels[0]) if line is not None else None


def _princess_places(scene: Scene) -> dict[str, tuple[str, float, float]]:
    centre = _centre(scene)
    if centre is None:
        return {}
    edge = next(line.id for line in scene.after.lines if line not in scene.before.lines)
    paths = [run.path for run in centre.runs if run.edge == edge]
    spots = {
        "from_": paths[0].start,
        "bow_above": paths[0].point_at(paths[0].length / 2.0),
        "past": paths[0].end if len(paths) == 2 else paths[-1].start,
        "bow_below": paths[-1].point_at(paths[-1].length / 2.0),
        "to": paths[-1].end,
    }
    return {key: (centre.name, float(x), float(y)) for key, (x, y) in spots.items()}


def _princess_dragged(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    before = scene.before.piece(scene.step.on)
    now = {name: np.array(place[1:]) for name, place in _princess_places(scene).items()}
    if key in ("from_", "to"):
        spot = spot_near(before, before, x, y, UPPER if key == "from_" else LOWER)
        return None if spot is None else {key: spot.model_copy(update={"side": None})}  # of a whole piece both sides are cut
    if key == "past":
        known = [before.sides.id(pin, Side.LEFT) for pin in ("bust_point", "waist_tip", "blade_point")]
        pivots = [pin for pin in known if pin in before.landmarks]
        if not pivots:
            return None
        off = x - before.landmarks[pivots[0]][0]
        off = 0.0 if abs(off) < 2.0 else max(-MOST_PAST, min(MOST_PAST, off))  # the point itself holds on
        return {"past": f"{off:.0f} mm"}
    if not now:
        return None
    start, stop = (now["from_"], now["past"]) if key == "bow_above" else (now["past"], now["to"])
    way = stop - start
    size = math.hypot(way[0], way[1])
    normal = np.array([way[1], -way[0]]) / max(size, 1e-9)
    before_mm = float((now[key] - start) @ normal)
    asked = float((np.array([x, y]) - start) @ normal)
    from_step = _written(scene, key)
    return {key: f"{round(from_step + asked - before_mm):d} mm"}


def _written(scene: Scene, key: str) -> float:
    return length_mm(getattr(scene.step, key), scene.scope)


GRIPS = Grips(Princess, _princess_places, _princess_dragged)
