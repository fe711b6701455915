"""Handles of a neckline: its depths on the centres, its width on the shoulder, the points of a free curve."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.necklines.registry import shape_of
from zesty_pivot.core.piece import Pattern, Piece, Side
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import length_mm
from zesty_pivot.core.steps.neck_shape import ShapeNeck
from zesty_pivot.desk.table.grips.base import Grips, Scene

LEAST_SHARE, MOST_SHARE = -0.2, 1.3  # how far a free curve's points may be dragged past its box


def _half(pattern: Pattern, name: str) -> Piece | None:
    """The piece of a name that has the neckline."""
    for piece in pattern.come_from(name):
        if "neckline" in dict(piece.roles).values():
            return piece
    return None


def _necks(piece: Piece) -> list[int]:
    return [
        index
        for index, run in enumerate(piece.runs)
        if piece.role(run.edge) == "neckline" and piece.sides.of(run.edge) is not Side.RIGHT
    ]


def _numbers(scene: Scene) -> dict[str, float]:
    step: ShapeNeck = scene.step
    return step.numbers(Context(scene.block, scene.scope), step.on)


def neck_places(scene: Scene) -> dict[str, tuple[str, float, float]]:
    """Where the handles lie on the pattern after the step."""
    step: ShapeNeck = scene.step
    shape = shape_of(step.shape)
    found: dict[str, tuple[str, float, float]] = {}
    front = _half(scene.after, step.on)
    if front is not None and _necks(front):
        runs = _necks(front)
        first, last = front.runs[runs[0]].path, front.runs[runs[-1]].path
        if "depth" in shape.starts:
            found["depth"] = (front.name, *_xy(first.start))
        if "width" in shape.starts and shape.ends_on in ("shoulder", "side_seam"):
            found["width"] = (front.name, *_xy(last.end))
        if shape.points:
            try:
                numbers = _numbers(scene)
            except ZestyError:
                return found
            top = _top(scene, step.on)
            for index, (across, down) in enumerate(step.points or shape.points):
                found[f"point{index}"] = (front.name, numbers["width"] * across, top + numbers["depth"] * down)
    back = _half(scene.after, step.other) if step.other else None
    if back is not None and _necks(back) and shape.kind != "raise":
        found["back_depth"] = (back.name, *_xy(back.runs[_necks(back)[0]].path.start))
    return found


def _xy(point: Any) -> tuple[float, float]:
    return float(point[0]), float(point[1])


def _top(scene: Scene, name: str) -> float:
    return float(scene.block.piece(name).corner("neck_point")[1])


def _bounded(share: float) -> float:
    return round(min(max(share, LEAST_SHARE), MOST_SHARE), 3)


def neck_dragged(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    """What the handle changes when it is dragged to a point: lengths in whole millimetres."""
    step: ShapeNeck = scene.step
    place = neck_places(scene).get(key)
    if place is None:
        return None
    _piece, x0, y0 = place
    if key == "back_depth":
        return {"back_depth": f"{y - _top(scene, step.other):.0f} mm"}
    try:
        numbers = _numbers(scene)
    except ZestyError:
        return None
    if key.startswith("point"):
        points = list(step.points or shape_of(step.shape).points)
        across, down = x / max(numbers["width"], 1.0), (y - _top(scene, step.on)) / max(numbers["depth"], 1.0)
        points[int(key[5:])] = _bounded(across), _bounded(down)
        return {"points": tuple(points)}
    by = (x - x0) if key == "width" else (y - y0)
    own = getattr(step, key)
    sign = -1.0 if key == "width" and step.width_from == "shoulder_tip" else 1.0
    if own is None:  # from the block until now: it is said from the centre, or from the neck point
        return {key: f"{numbers[key] + by:.0f} mm", f"{key}_from": "centre" if key == "width" else "neck_point"}
    return {key: f"{length_mm(own, scene.scope) + sign * by:.0f} mm"}


GRIPS = Grips(ShapeNeck, neck_places, neck_dragged)
