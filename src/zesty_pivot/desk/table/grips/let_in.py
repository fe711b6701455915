"""Handles of gathers, pleats and tucks: where they begin and stop on their edge."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.quantity import share_of
from zesty_pivot.core.steps.let_in import LetInStep
from zesty_pivot.desk.table.grips.base import Scene, spot_near

HAIR = 1e-3  # mm
SNAPS = 6.0  # mm from the end of an edge within which a handle goes to the end


def begins_at(scene: Scene) -> dict[str, tuple[str, float, float]]:
    """The places that the step names; where it names none, those where its slashes begin. Dragging one names it."""
    step: LetInStep = scene.step
    piece = scene.after.piece(step.on)
    found: dict[str, tuple[str, float, float]] = {}
    made = [full for full in piece.fullness if full not in scene.before.piece(step.on).fullness]
    ends = []
    for full in made[-1:]:
        ends = list(full.stretch) if full.stretch is not None else [full.lines[0].start, full.lines[-1].start]
    has_stop = "stop" in type(step).model_fields
    for key, spot, end in zip(("start", "stop"), (step.start, getattr(step, "stop", None)), ends, strict=False):
        if key == "stop" and (not has_stop or (spot is None and step.start is not None and made[-1].stretch is None)):
            continue
        try:
            place = places.by_origin(piece, end) if spot is None else _place(scene, spot)
        except ZestyError:
            continue
        # A hair before its slash: on it, it would be now on one side of the underlay and now on the other.
        x, y = piece.runs[place.run].path.point_at(max(place.at - HAIR, 0.0))
        found[key] = (step.on, float(x), float(y))
    return found


def _place(scene: Scene, spot: Spot) -> places.Place:
    piece = scene.after.piece(scene.step.on)
    pivot = piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")
    return resolve(spot, piece, scene.block.drafted(piece), scene.scope, pivot)


def _at_an_end(piece: Piece, spot: Spot) -> Spot:
    """A place near the end of its edge is meant to be there, on the fold say."""
    total, share = piece.edge(spot.edge or "").sewn_length, share_of(spot.at or 0.0)
    if min(share, 1.0 - share) * total > SNAPS:
        return spot
    return Spot(edge=spot.edge, at="0%" if share < 0.5 else "100%")


def _roles(scene: Scene) -> tuple[str, ...]:
    """The role of the edge that it begins on: a handle goes along that. Any where none is known."""
    piece = scene.after.piece(scene.step.on)
    full = next((full for full in reversed(piece.fullness) if full not in scene.before.piece(scene.step.on).fullness), None)
    if full is None or not (full.lines or full.stretch):
        return ()
    begins = full.stretch[0] if full.stretch is not None else full.lines[0].start
    return (piece.role(piece.runs[places.by_origin(piece, begins).run].edge),)


def begun_elsewhere(scene: Scene, key: str, x: float, y: float) -> dict[str, Any] | None:
    """The place on the edge nearest to a point; the other end stays where it was."""
    step: LetInStep = scene.step
    piece = scene.before.piece(step.on)
    spot = spot_near(piece, piece, x, y, _roles(scene))
    if spot is None:
        return None
    return {key: _at_an_end(piece, spot)}
