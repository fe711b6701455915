"""Where a step's handles lie on the table, and what a dragged one changes: for slashes, princess lines, necklines."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.fullness_slash import Slash
from zesty_pivot.core.steps.line_princess import MOST_PAST, UPPER, Princess
from zesty_pivot.core.steps.neck_shape import ShapeNeck
from zesty_pivot.desk.table.neck_grips import neck_dragged, neck_places

Point = tuple[float, float]

LOWER = ("side_seam", "waist", "hem")


@dataclass(frozen=True)
class Scene:
    """The chosen step with the pattern it meets and the pattern after it."""

    step: Any
    before: Pattern
    after: Pattern
    block: Pattern
    scope: Scope


@dataclass(frozen=True)
class Grips:
    """The handles of a kind of step: their places by parameter (the piece they lie on, x, y in mm), what one that is dragged to
    (x, y) changes, and the dashed lines between them."""

    places: Callable[[Scene], dict[str, tuple[str, float, float]]]
    dragged: Callable[[Scene, str, float, float], dict[str, Any] | None]
    lines: tuple[tuple[str, str], ...] = ()


# A slash.


def _slash_places(scene: Scene) -> dict[str, tuple[str, float, float]]:
    step, before, after = scene.step, scene.before.piece(scene.step.on), scene.after.piece(scene.step.on)
    found: dict[str, tuple[str, float, float]] = {}
    for key, spot in (("at", step.at), ("hinge", step.hinge)):
        if spot is None:
            continue
        try:
            place = resolve(spot, before, scene.block.drafted(before), scene.scope, _pivot(before, step))
            now = places.by_origin(after, places.origin_of(before, place))
        except ZestyError:
            continue
        x, y = places.point(after, now)
        found[key] = (step.on, float(x), float(y))
    return found


def _slash_dragged(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    spot = spot_near(scene.before.piece(scene.step.on), scene.after.piece(scene.step.on), x, y)
    return None if spot is None else {key: spot}


def _pivot(piece: Piece, step: Slash) -> str:
    if step.dart is not None and piece.has_dart(step.dart):
        return piece.dart(step.dart).pivot
    return piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")


def spot_near(before: Piece, after: Piece, x: float, y: float, roles: tuple[str, ...] = ()) -> Spot | None:
    """The place of the piece before a step that lies, after it, nearest to a point (mm), on edges of these roles (or any).
    Cloth that the step added is no place of the piece before."""
    point = shapely.Point(x, y)
    known = [(index, run) for index, run in enumerate(after.runs) if not roles or after.role(run.edge) in roles]
    lines = [(shapely.LineString(run.path.outline), index) for index, run in known]
    for line, index in sorted(lines, key=lambda pair: float(pair[0].distance(point))):
        path = after.runs[index].path
        along = float(line.project(point)) / max(float(line.length), 1e-9) * path.length
        try:
            place = places.by_origin(before, places.origin_of(after, Place(index, along)))
        except ZestyError:
            continue
        name = before.runs[place.run].edge
        share = places.sewn_distance(before, place) / before.edge(name).sewn_length
        return Spot(edge=name, at=f"{100.0 * share:.1f}%")
    return None


# A princess line. Its handles lie on the centre panel, which lies as it lay before.


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
        return None if spot is None else {key: spot}
    if key == "past":
        pivots = [pin for pin in ("bust_point", "waist_tip", "blade_point") if pin in before.landmarks]
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


GRIPS: dict[type[Step], Grips] = {
    Slash: Grips(_slash_places, _slash_dragged, (("at", "hinge"),)),
    Princess: Grips(_princess_places, _princess_dragged),
    ShapeNeck: Grips(neck_places, neck_dragged),
}
