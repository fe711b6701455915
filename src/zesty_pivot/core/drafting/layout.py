"""A draft on its sheet, as a person draws it: the back with CB at the left edge of a box, the front with CF at the right."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.drafting.draft import Done, Draft
from zesty_pivot.core.drafting.values import Inked, Number, Point
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.record import record

APART = 25.0  # mm that the sides of back and front keep from each other in the box, where it is narrower than both


@record(eq=False)
class Item:
    """One operation on the sheet: the line that it draws or the place of its point (mm), and what its point is called."""

    done: Done
    path: Path | None
    at: Vector | None
    label: str
    is_seam: bool = False

    @property
    def corners(self) -> tuple[Vector, ...]:
        """The corners of what it puts on the paper, mm."""
        return self.path.box() if self.path is not None else () if self.at is None else (self.at,)


@record(eq=False)
class Layout:
    """The operations that put something on the paper, in order, on a sheet so wide and high (mm); `top` is how far the highest
    point lies above the top line, `left` how far the furthest lies left of CB."""

    items: tuple[Item, ...]
    width: float
    height: float
    left: float = 0.0
    top: float = 0.0
    box: float = 0.0  # from CB to CF, mm


def laid_out(drawn: Draft, box: float | None = None) -> Layout:
    """The draft on its sheet, in a box so wide (mm) where one is given, as the draft that it lies under. What a value is worked
    out to puts nothing on it."""
    shown = [done for done in drawn.shown if done.kind != "value"]
    reach = {piece: max((_right(done) for done in shown if done.piece == piece), default=0.0) for piece in ("back", "front")}
    sheet = drawn.names.get("sheet_width")
    width = box or max(sheet.amount if isinstance(sheet, Number) else 0.0, reach["back"] + reach["front"] + APART)
    over = Motion.reflect(np.array([width / 2.0, 0.0]), np.array([0.0, 1.0]))
    seams: set[tuple[str, str]] = {
        (piece.name, name) for piece in drawn.method.pieces for edge in piece.edges for name in edge.strokes
    }
    items = tuple(_item(drawn, done, over if done.piece == "front" else None, seams) for done in shown)
    low = np.array([0.0, 0.0])
    high = np.array([width, 0.0])
    for item in items:
        for corner in item.corners:
            low, high = np.minimum(low, corner), np.maximum(high, corner)
    return Layout(items, float(high[0] - low[0]), float(high[1] - low[1]), float(-low[0]), float(-low[1]), width)


def _right(done: Done) -> float:
    if isinstance(done.value, Inked):
        return 0.0 if done.operation.kind == "guide" else float(done.value.path.box()[1][0])
    return done.value.x if isinstance(done.value, Point) else 0.0


def _item(drawn: Draft, done: Done, over: Motion | None, seams: set[tuple[str, str]]) -> Item:
    label, value = drawn.label(done), done.value
    if isinstance(value, Inked):
        path = value.path if over is None else Path(over(value.path.cubics))
        return Item(done, path, None, label, (done.piece, done.operation.name) in seams)
    at = value.at if isinstance(value, Point) else np.zeros(2)
    return Item(done, None, at if over is None else over(at), label)
