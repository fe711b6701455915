"""A screen or a projector, and how it was told what is true size on it. What a system says of a screen's size cannot be
trusted: a bar is measured on it with a ruler, or marks are laid on the crosses of a cutting mat."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry.projective import Places, projected, projection
from zesty_pivot.core.quantity.fields import Model
from zesty_pivot.core.record import record

BAR = 0.8  # of the width and the height of a screen is how long the bars are that are measured
FINEST, COARSEST = 60.0, 0.3  # px to a mm that any screen or projector has
UNLIKE = 1.5  # times: pixels that are so much longer one way than the other were measured wrongly
MARKS = {4: (2, 2), 6: (3, 2), 9: (3, 3)}  # by number: columns and rows of the marks on the mat

Size = tuple[float, float]


class Display(Model):
    """What is kept of one screen or projector at one resolution. Marks are px of its picture, from its upper left corner, in
    rows from the mat's upper left mark."""

    way: Literal["bars", "marks"] = Field(default="marks", description="measured on it, or marks on a mat")
    bars: tuple[float | None, float | None] = Field(
        default=(None, None), description="mm that the bars across and down measure; none for one that nobody measured"
    )
    count: Literal[4, 6, 9] = 9
    mat: tuple[float, float] = Field(default=(500.0, 300.0), description="mm from the first mark to the last, across and down")
    marks: tuple[tuple[float, float], ...] = Field(default=(), max_length=9)
    grid: bool = True
    inverted: bool = Field(default=True, description="light lines on a dark ground")
    mirrored: bool = False
    line: float = Field(default=1.0, ge=0.1, le=10.0, description="mm that a line is wide")


@record(eq=False)
class TrueSize:
    """How mm of the pattern lie on a device: `matrix` (3, 3) takes mm, from the middle of the mat or of the screen, x to the
    right and y down, to px. `off` is how far the marks lie from where it puts them, mm (root of the mean square over what
    they tell beyond a projection), and `worst` the one that fits worst; None where they tell nothing of it."""

    matrix: Places
    off: float | None = None
    worst: int | None = None

    def to_px(self, places: Places) -> Places:
        """Places (..., 2) mm as px."""
        return projected(self.matrix, np.asarray(places, dtype=float))

    def to_mm(self, pixels: Places) -> Places:
        """Places (..., 2) px as mm."""
        return projected(np.asarray(np.linalg.inv(self.matrix), dtype=float), np.asarray(pixels, dtype=float))


def mark_places(device: Display) -> Places:
    """Where the marks belong on the mat, (n, 2) mm from its middle, in rows."""
    (columns, rows), (wide, tall) = MARKS[device.count], device.mat
    return np.array([(x, y) for y in np.linspace(-tall / 2, tall / 2, rows) for x in np.linspace(-wide / 2, wide / 2, columns)])


def first_marks(device: Display, size: Size) -> tuple[tuple[float, float], ...]:
    """Marks before anybody has laid them: over two thirds of a picture of `size` px."""
    places = mark_places(device)
    scale = 0.66 * min(size[0] / device.mat[0], size[1] / device.mat[1])
    return tuple((size[0] / 2 + scale * float(x), size[1] / 2 + scale * float(y)) for x, y in places)


def unset_marks(device: Display, size: Size) -> tuple[int, ...]:
    """The marks, from 1 on, that nobody has laid yet: they lie where all begin."""
    first = first_marks(device, size)
    if device.way != "marks" or len(device.marks) != device.count:
        return ()
    return tuple(n for n, (mark, begun) in enumerate(zip(device.marks, first, strict=True), start=1) if mark == begun)


def bar_px(size: Size) -> Size:
    """How long the bars across and down are, px."""
    return BAR * size[0], BAR * size[1]


def shown_by(device: Display, size: Size) -> TrueSize | None:
    """How the pattern lies on a device with a picture of `size` px; None while it was not told yet. Raises ZestyError for
    measures that no screen has, and for marks that do not lie as those of a mat do."""
    if device.way == "bars":
        across, down = device.bars
        return None if across is None or down is None else _by_bars((across, down), size)
    return None if len(device.marks) != device.count or unset_marks(device, size) else _by_marks(device)


def _by_bars(bars: Size, size: Size) -> TrueSize:
    across, down = (px / max(mm, 1e-9) for px, mm in zip(bar_px(size), bars, strict=True))
    if not (COARSEST <= across <= FINEST and COARSEST <= down <= FINEST):
        raise ZestyError("no screen has bars of this length", where="true size", advice="Measure both bars with a ruler.")
    if max(across, down) > UNLIKE * min(across, down):
        raise ZestyError(
            "the two bars do not belong to one screen", where="true size",
            advice="Measure them again: the longer one lies across.",
        )  # fmt: skip
    return TrueSize(np.array([[across, 0.0, size[0] / 2], [0.0, down, size[1] / 2], [0.0, 0.0, 1.0]]))


def _by_marks(device: Display) -> TrueSize:
    places, pixels = mark_places(device), np.array(device.marks)
    crossed = ZestyError(
        "the marks lie crosswise", where="true size", advice="Lay each on its own cross: they are numbered in rows."
    )
    try:
        matrix = projection(places, pixels)
    except ZestyError as fault:
        raise crossed from fault
    depth = np.array([*places, (0.0, 0.0)]) @ matrix[2, :2] + matrix[2, 2]
    if not np.isfinite(matrix).all() or abs(np.linalg.det(matrix)) < 1e-15 or depth.min() * depth.max() <= 0.0:
        raise crossed
    matrix = matrix / matrix[2, 2]
    shown = TrueSize(matrix)
    tiny = shown.to_px(np.array([[0.0, 0.0], [1.0, 0.0], [0.0, 1.0]]))
    if abs(np.linalg.det(np.stack([tiny[1] - tiny[0], tiny[2] - tiny[0]]))) < COARSEST**2:
        raise crossed
    told = 2 * len(places) - 8
    if not told:
        return shown
    gaps = np.hypot(*(shown.to_mm(pixels) - places).T)
    off = math.sqrt(float((gaps**2).sum()) / told)
    if off > 0.1 * min(device.mat):
        raise crossed
    return TrueSize(matrix, off, _worst(places, pixels))


def _worst(places: Places, pixels: Places) -> int:
    """The mark without which the others fit best: that it lies far off by itself says little, it pulls the others along."""
    left = []
    for number in range(len(places)):
        rest = np.arange(len(places)) != number
        matrix = projection(places[rest], pixels[rest])
        left.append(float(((projected(matrix, places[rest]) - pixels[rest]) ** 2).sum()))
    return int(np.argmin(left))
