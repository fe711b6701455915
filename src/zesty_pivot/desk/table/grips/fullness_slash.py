"""Handles of a slash: its beginning and its hinge."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import resolve
from zesty_pivot.core.steps.fullness_slash import Slash
from zesty_pivot.desk.table.grips.base import Grips, Scene, spot_near


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


GRIPS = Grips(Slash, _slash_places, _slash_dragged, (("at", "hinge"),))
