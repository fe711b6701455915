"""The frame of printed marks that a block is photographed in: where each mark lies, and how it is drawn.

A frame is as large as some pages laid edge over edge; of its twelve marks none lies across a join. The numbers of the marks
tell
which paper it was. The marks are the first of OpenCV's dictionary of 4 x 4 fields with fifty marks, so that any program can
find them; the table below is that dictionary's.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import record

SIZE = 40.0  # mm, a mark's black square
STRIP = 60.0  # mm, how wide the frame is; within it the table is seen
CLEAR = 4.0  # mm that a mark keeps from a join of pages

# By number: the sixteen fields of a mark row by row, the first the highest bit, white 1; round them a black border of one
# field.
BITS = (
    0xB532, 0x0F9A, 0x332D, 0x9946, 0x549E, 0x79CD, 0x9E2E, 0xC4F2, 0xFEDA, 0xCF56, 0xF991, 0x11A7, 0x0EB7, 0x2A0F, 0x24B1,
    0x263E, 0x4665, 0x6600, 0x6C5E, 0x76AF, 0x868B, 0xB02B, 0xCCD5, 0xDD82, 0xFE47, 0x9471, 0xACE4, 0xA554, 0x2123, 0x346F,
    0x4415, 0x57B2, 0x9ECF, 0xF0CB, 0x08AE, 0x0929,
)  # fmt: skip

# By paper: the printed field of a page and from one page's field to the next (mm), pages across and down, its first mark.
# Pages as the sheets are tiled: 10 mm of margin, 10 mm of overlap.
PAGES: dict[str, tuple[float, float, float, float, int, int, int]] = {
    "A4": (190.0, 277.0, 180.0, 267.0, 4, 3, 0),
    "A3": (277.0, 400.0, 267.0, 390.0, 3, 2, 12),
    "Letter": (195.9, 259.4, 185.9, 249.4, 4, 3, 24),
}
ACROSS, DOWN = 4, 2  # marks along the upper and lower strip, and along each side between


@record
class FrameMark:
    """A printed mark: its number, and its upper left corner on the frame, mm."""

    number: int
    x: float
    y: float

    @property
    def corners(self) -> Array:
        """The square's corners clockwise from the upper left, (4, 2) mm."""
        x, y = self.x, self.y
        return np.array([(x, y), (x + SIZE, y), (x + SIZE, y + SIZE), (x, y + SIZE)])

    @property
    def fields(self) -> list[tuple[float, float, float]]:
        """The white squares within the black one: left, top and side, mm."""
        side, bits = SIZE / 6.0, BITS[self.number]
        return [
            (self.x + (column + 1) * side, self.y + (row + 1) * side, side)
            for row in range(4)
            for column in range(4)
            if bits >> (15 - 4 * row - column) & 1
        ]


@record
class Mat:
    """A frame: the paper that it is printed on, its size in mm, its marks."""

    paper: str
    width: float
    height: float
    marks: tuple[FrameMark, ...]

    @property
    def window(self) -> tuple[float, float, float, float]:
        """Where the block lies: left, top, right, bottom, mm."""
        return STRIP, STRIP, self.width - STRIP, self.height - STRIP

    def mark(self, number: int) -> FrameMark | None:
        """The mark of a number."""
        return next((mark for mark in self.marks if mark.number == number), None)


@lru_cache(maxsize=8)
def mat(paper: str) -> Mat:
    """The frame of a paper. Raises KeyError for one that has none."""
    wide, high, right, down, columns, rows, first = PAGES[paper]
    width, height = (columns - 1) * right + wide, (rows - 1) * down + high
    inset = (STRIP - SIZE) / 2.0
    xs = [_clear(x, right, columns) for x in np.linspace(inset, width - inset - SIZE, ACROSS)]
    ys = [_clear(y, down, rows) for y in np.linspace(inset, height - inset - SIZE, DOWN + 2)[1:-1]]
    far_x, far_y = width - inset - SIZE, height - inset - SIZE
    places = [*((x, inset) for x in xs), *((x, far_y) for x in xs), *((side, y) for y in ys for side in (inset, far_x))]
    return Mat(paper, width, height, tuple(FrameMark(first + n, round(x, 3), round(y, 3)) for n, (x, y) in enumerate(places)))


def _clear(at: float, step: float, count: int) -> float:
    """A place along a strip moved so that the mark keeps clear of the joins."""
    overlap = 10.0
    for join in range(1, count):
        start, stop = join * step - CLEAR, join * step + overlap + CLEAR
        if at < stop and at + SIZE > start:
            return start - SIZE if abs(start - SIZE - at) < abs(stop - at) else stop
    return at


def mat_of(numbers: set[int]) -> Mat | None:
    """The frame that most of the marks with these numbers belong to."""
    best = max(PAGES, key=lambda paper: sum(mat(paper).mark(number) is not None for number in numbers))
    return mat(best) if any(mat(best).mark(number) for number in numbers) else None
