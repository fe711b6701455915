"""What a person says of an outline, where the program proposes otherwise or does not know."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field

from zesty_pivot.core.intake.traced import Point
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record


@record
class PieceHints:
    """What is said of one piece; places are mm as the piece was traced. What is None or missing is left to the program.

    `corners` are by landmark. `no_darts` are points of darts that are none, `pivots` where the dart whose drawn point lies
    nearest to the first place turns about the second. `pulls` are places of the outline as it was traced, and where they were
    dragged to, in the order of dragging.
    """

    is_left_out: bool = False
    body: Body | None = None
    corners: Mapping[str, Point] = field(default_factory=dict)
    is_hip: bool | None = None
    bust_point: Point | None = None
    pivots: tuple[tuple[Point, Point], ...] = ()
    no_darts: tuple[Point, ...] = ()
    is_on_fold: bool | None = None
    grain: tuple[Point, Point] | None = None
    waist: Point | None = None
    pulls: tuple[tuple[Point, Point], ...] = ()


@record
class Hints:
    """What is said of a whole import, by the number of the piece from the left."""

    pieces: Mapping[int, PieceHints] = field(default_factory=dict)

    def of(self, number: int) -> PieceHints:
        """What is said of one piece."""
        return self.pieces.get(number, PieceHints())
