"""How much cloth pleats take, and how many fit a cloth: the sums that are made beside the table.

Cloth = finished width + underlay; a knife pleat's underlay is twice its depth, that of box and inverted pleats four times, a
tuck takes twice its stitched depth. Full knife pleating, every pleat as deep as its spacing, takes three times the finished
width. Handbook formulas, from memory; common practice, no other source.
"""

from __future__ import annotations

import math
from typing import Literal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record

PleatKind = Literal["knife", "box", "inverted", "tuck"]

TAKES: dict[PleatKind, float] = {"knife": 2.0, "box": 4.0, "inverted": 4.0, "tuck": 2.0}  # times its depth
COVERS: dict[PleatKind, float] = {
    "knife": 1.0,
    "box": 2.0,
    "inverted": 2.0,
    "tuck": 1.0,
}  # of the finished width, times its depth


@record
class Underlay:
    """So many pleats of a depth over a finished width, mm: `spacing` from one to the next, the `cloth` they need, what is
    `left` of a cloth's width (negative: what lacks)."""

    kind: PleatKind
    count: int
    depth: float
    finished: float
    spacing: float
    cloth: float
    left: float

    @property
    def times(self) -> float:
        """The cloth as a multiple of the finished width."""
        return self.cloth / self.finished


def underlay(
    kind: PleatKind, finished: float, depth: float, width: float, joins: float, count: int | None, unit: Unit
) -> Underlay:
    """Pleats over a finished width (mm), so deep, from a cloth so wide with `joins` mm for its two edges. The largest count
    that fits the cloth without overlapping where none is asked for.

    Raises ZestyError for sizes that are nothing, and where not one pleat fits.
    """
    if finished <= 0.0 or depth <= 0.0 or width <= 0.0:
        raise ZestyError("widths and depths are more than 0", advice="Enter lengths such as 36 cm, 2 cm and 140 cm.")
    most = math.floor(finished / (COVERS[kind] * depth) + 1e-9)
    if most < 1:
        deep, wide = format_length(depth, unit), format_length(finished, unit)
        raise ZestyError(f"a pleat {deep} deep is wider than {wide}", advice="Make it less deep.")
    if count is None:
        count = min(most, math.floor((width - joins - finished) / (TAKES[kind] * depth) + 1e-9))
        if count < 1:
            raise ZestyError("not one such pleat fits that cloth", advice="Take wider cloth, a join in it, or less depth.")
    elif count > most:
        raise ZestyError(f"{count} such pleats overlap", advice=f"Take {most} at most, or make them less deep.")
    cloth = finished + count * TAKES[kind] * depth
    return Underlay(kind, count, depth, finished, finished / count, cloth, width - joins - cloth)


def profile(asked: Underlay) -> list[tuple[float, float]]:
    """The cloth seen from its edge, as the points it runs through: along the finished width (mm), and how many layers down. A
    tuck stands on the outside."""
    points: list[tuple[float, float]] = [(0.0, 0.0)]
    for number in range(asked.count):
        at = (number + 0.5) * asked.spacing
        if asked.kind == "knife":
            points += [(at + asked.depth / 2.0, 0.0), (at - asked.depth / 2.0, 1.0), (at + asked.depth / 2.0, 2.0)]
        elif asked.kind == "tuck":
            points += [(at, 0.0), (at + asked.depth, -2.0), (at, -1.0), (at, 0.0)]
        elif asked.kind == "box":
            left, right = at - asked.depth, at + asked.depth
            points += [(left, 2.0), (at - 0.5, 2.0), (at - 0.5, 1.0), (left, 1.0), (left, 0.0), (right, 0.0), (right, 1.0),
                       (at + 0.5, 1.0), (at + 0.5, 2.0), (right, 2.0)]  # fmt: skip
        else:
            left, right = at - asked.depth, at + asked.depth
            points += [(at - 0.5, 0.0), (left, 1.0), (left, 2.0), (right, 2.0), (right, 1.0), (at + 0.5, 0.0)]
    return [*points, (asked.finished, points[-1][1] if asked.kind in ("knife", "box") else 0.0)]
