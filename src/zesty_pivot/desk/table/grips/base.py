"""What handles are made of: where they lie on the table, and what a dragged one changes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import shapely

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.base import Step


@record
class Scene:
    """The chosen step with the pattern it meets and the pattern after it."""

    step: Any
    before: Pattern
    after: Pattern
    block: Pattern
    scope: Scope


@record
class Grips:
    """The handles of a kind of `step`: their places by parameter (the piece they lie on, x, y in mm), what one that is
    dragged to (x, y) changes, and the dashed lines between them."""

    step: type[Step]
    places: Callable[[Scene], dict[str, tuple[str, float, float]]]
    dragged: Callable[[Scene, str, float, float], dict[str, Any] | None]
    lines: tuple[tuple[str, str], ...] = ()


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
