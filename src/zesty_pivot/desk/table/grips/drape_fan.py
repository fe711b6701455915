"""Handles of a drape: where its stretch of the seam begins and stops, and one on each slash, pulled along it to open it."""

from __future__ import annotations

from typing import Any

import numpy as np

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.quantity import distance_mm
from zesty_pivot.core.steps.drape_fan import MOST_OPEN, DrapeFan
from zesty_pivot.desk.table.grips.base import Grips, Scene

SLASH = "slash."
PULLED = 2.0  # times what a slash is opened by that its handle lies from the seam
LEAST_OPEN = 2.0  # mm


def _lines(scene: Scene) -> dict[int, tuple[np.ndarray, np.ndarray, float]]:
    """The slashes by number: where each begins, the way along it, and how far it is opened (mm)."""
    piece: Piece = scene.after.piece(scene.step.on)
    known = {full.id for full in scene.before.piece(scene.step.on).fullness}
    made = next((full for full in piece.fullness if full.id not in known), None)
    order = [int(name) - 1 for name in scene.step.order if name.isdigit()] or list(range(len(scene.step.slashes)))
    found = {}
    for number, line in zip(order, made.lines if made is not None else (), strict=False):
        start, stop = (places.point(piece, places.by_origin(piece, at)) for at in (line.start, line.stop))
        found[number] = (start, (stop - start) / np.hypot(*(stop - start)), line.by[0])
    return found


def _places(scene: Scene) -> dict[str, tuple[str, float, float]]:
    step, piece = scene.step, scene.after.piece(scene.step.on)
    found: dict[str, tuple[str, float, float]] = {}
    for key in ("start", "stop"):
        try:
            along = distance_mm(getattr(step, key), piece.edge(step.edge).sewn_length, scene.scope)
            at = places.point(piece, places.along(piece, step.edge, along))
        except ZestyError:
            continue
        found[key] = (step.on, float(at[0]), float(at[1]))
    for number, (start, way, by) in _lines(scene).items():
        at = start + way * by * PULLED
        found[f"{SLASH}{number}"] = (step.on, float(at[0]), float(at[1]))
    return found


def _dragged(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    step: DrapeFan = scene.step
    if key.startswith(SLASH):
        number = int(key.removeprefix(SLASH))
        start, way, _by = _lines(scene)[number]
        open_mm = min(max(float((np.array([x, y]) - start) @ way) / PULLED, LEAST_OPEN), MOST_OPEN)
        return {"slashes": (*step.slashes[:number], f"{open_mm:.1f} mm", *step.slashes[number + 1 :])}
    piece = scene.before.piece(step.on)
    edge = piece.edge(step.edge)
    points = [(np.hypot(*(run.path.outline - (x, y)).T), run) for run in edge.runs]
    near = min(points, key=lambda pair: float(pair[0].min()))[1]
    steps = np.hypot(*np.diff(near.path.outline, axis=0).T)
    at = float(np.concatenate([[0.0], np.cumsum(steps)])[int(np.hypot(*(near.path.outline - (x, y)).T).argmin())])
    before = sum(run.path.length for run in edge.runs[: edge.runs.index(near)])
    share = min(max((before + at) / edge.sewn_length, 0.01), 0.99)
    return {key: f"{100.0 * share:.1f}%"}


GRIPS = Grips(DrapeFan, _places, _dragged)
