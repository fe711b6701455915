"""What draws a finished sheet, on whatever there is to draw on: one walk over it, one table of how its lines look.

A format is a short pen: it is told each piece with its place, then its strokes, drill holes and words in their order.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.record import record


@record
class LineLook:
    """How a line looks. On paper: its width in mm, its dashes and gaps in mm. On a screen, where a line must be seen at any
    scale: its width in pixels, its dashes and gaps in widths. `colour` is what it is printed in where that is
    asked for; width and dashes say the same."""

    mm: float
    px: float
    dash_mm: tuple[float, ...] = ()
    dash_px: tuple[float, ...] = ()
    colour: str = ""


SEAMS, FOLDS, GRAIN = "#1d4f91", "#8a3b12", "#2f6b3a"  # in print; everything else is ink

LOOKS: dict[str, LineLook] = {
    "seam": LineLook(0.25, 1.1, colour=SEAMS),
    "leg": LineLook(0.25, 1.1, colour=SEAMS),
    "cap": LineLook(0.25, 1.1, colour=SEAMS),
    "fold": LineLook(0.35, 1.4, (12, 3, 2, 3), (9, 3, 1.5, 3), FOLDS),
    "cut": LineLook(0.7, 2.4),
    "crease": LineLook(0.25, 1.0, (3, 3), (4, 4), FOLDS),
    "notch": LineLook(0.7, 2.4),
    "grain": LineLook(0.35, 1.2, colour=GRAIN),
    "arrow": LineLook(0.5, 1.6),
    "cross": LineLook(0.35, 1.2),
    "thin": LineLook(0.18, 0.8),
    "centre": LineLook(0.25, 1.0, (9, 2, 2, 2), (9, 3, 1.5, 3)),
}
DRILL = LineLook(0.35, 1.1, colour=SEAMS)  # of drill holes


class Pen(Protocol):
    """Draws what it is told. All measures are mm on the piece, y down; turns are radians, clockwise."""

    def begin(self, piece: FinishedPiece, dx: float, dy: float) -> None:
        """What follows is of this piece, shifted by (dx, dy) mm on the sheet."""

    def stroke(self, stroke: Stroke) -> None:
        """Lines of one kind; the look is `LOOKS[stroke.kind]`."""

    def circle(self, circle: Circle) -> None:
        """A drill hole, in the look `DRILL`."""

    def text(self, text: Text) -> None:
        """A line of writing about its middle, turned about it."""


def draw(laid: Iterable[Laid], pen: Pen) -> None:
    """Tells a pen everything of pieces that are laid on a sheet."""
    for one in laid:
        pen.begin(one.piece, one.dx, one.dy)
        for stroke in one.piece.strokes:
            pen.stroke(stroke)
        for circle in one.piece.circles:
            pen.circle(circle)
        for text in one.piece.texts:
            pen.text(text)
