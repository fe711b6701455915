"""A sheet cut into what a plotter draws at once: panels where the roll is narrower than it, lengths where the paper ends,
with crosses to lay them together by."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.lettering.outlines import outlines
from zesty_pivot.core.nest.joins import letters
from zesty_pivot.core.record import record

Line = NDArray[np.float64]

SHARED = 20.0  # mm that neighbouring panels share
CROSS = 6.0  # mm, half a pass mark
FLAT = 0.01  # mm that a plotted line may lie off its curve: less than a step of the plotter
ROUND = 48  # chords of a drill hole's circle
LEAST_ROLL, MOST_ROLL = 150.0, 3000.0  # mm
MOST_FRAMES = 60

# The pen of each kind of line. Common practice, no source: cut and sewing lines in two pens, everything else in a third.
PENS = {"cut": 1, "seam": 2, "leg": 2, "cap": 2, "fold": 2, "notch": 1}
OTHER_PEN = 3


@record
class Roll:
    """The paper: `width` mm across, and `length` mm that are drawn before it is moved on (0: without an end). `pens` 1 draws
    all with one pen."""

    width: float = 900.0
    length: float = 0.0
    pens: int = 3


@record
class Frame:
    """What is drawn at once: lines (n, 2) mm by pen, x along the roll, y across it from 0; `size` is (along, across) mm."""

    name: str
    size: tuple[float, float]
    lines: tuple[tuple[int, Line], ...]


def frames(laid: Sequence[Laid], size: tuple[float, float], roll: Roll) -> tuple[Frame, ...]:
    """The frames of a sheet of `size` mm, its x along the roll. Raises ZestyError for paper that is none or too many."""
    if not LEAST_ROLL <= roll.width <= MOST_ROLL:
        raise ZestyError(
            f"a roll of {roll.width:g} mm", where="plotter", advice=f"Give a width from {LEAST_ROLL:g} to {MOST_ROLL:g} mm."
        )
    if roll.length and roll.length < LEAST_ROLL:
        raise ZestyError(
            f"a length of {roll.length:g} mm", where="plotter", advice=f"Give at least {LEAST_ROLL:g} mm, or none."
        )
    pen = _Lines(roll.pens)
    draw(laid, pen)
    along = _cuts(size[0], roll.length or math.inf)
    across = _cuts(size[1], roll.width)
    if len(along) * len(across) > MOST_FRAMES:
        raise ZestyError(f"it takes {len(along) * len(across)} panels", where="plotter", advice="Take a wider roll.")
    found: list[Frame] = []
    for n, (left, right) in enumerate(along):
        for m, (top, bottom) in enumerate(across):
            lines = [] if len(along) * len(across) > 1 else pen.lines
            if len(along) * len(across) > 1:
                lines = list(_clipped(pen.lines, (left, top, right, bottom)))
                lines += _marks(n, m, along, across, roll.pens)
            shift = np.array([left, top])
            name = letters(len(found))
            found.append(Frame(name, (right - left, bottom - top), tuple((number, line - shift) for number, line in lines)))
    return tuple(found)


def _cuts(length: float, most: float) -> list[tuple[float, float]]:
    """Stretches of at most so many mm that cover a length, neighbours sharing SHARED."""
    if length <= most:
        return [(0.0, length)]
    count = math.ceil((length - SHARED) / (most - SHARED) - 1e-9)
    step = (length - SHARED) / count
    return [(k * step, k * step + step + SHARED) for k in range(count)]


def _clipped(lines: Iterable[tuple[int, Line]], box: tuple[float, float, float, float]) -> Iterable[tuple[int, Line]]:
    """The parts of lines that lie in a box (left, top, right, bottom)."""
    for number, line in lines:
        low, high = line.min(axis=0), line.max(axis=0)
        if high[0] < box[0] or low[0] > box[2] or high[1] < box[1] or low[1] > box[3]:
            continue
        if low[0] >= box[0] and high[0] <= box[2] and low[1] >= box[1] and high[1] <= box[3]:
            yield number, line
            continue
        merged = shapely.line_merge(shapely.intersection(shapely.LineString(line), shapely.box(*box)))
        for part in shapely.get_parts(merged):
            if part.geom_type == "LineString" and part.length > 0.0:
                yield number, shapely.get_coordinates(part)


def _marks(
    n: int, m: int, along: Sequence[tuple[float, float]], across: Sequence[tuple[float, float]], pens: int
) -> list[tuple[int, Line]]:
    """Pass marks in the strips that a frame shares: crosses on both neighbours at the same places, with a letter."""
    found: list[tuple[int, Line]] = []
    pen = min(pens, OTHER_PEN)
    (left, right), (top, bottom) = along[n], across[m]
    strips: list[tuple[float, float, str]] = []
    for k in range(len(along) - 1):
        if k in (n, n - 1):
            x = along[k][1] - SHARED / 2.0
            strips += [(x, top + share * (bottom - top), letters(k)) for share in (0.2, 0.8)]
    for k in range(len(across) - 1):
        if k in (m, m - 1):
            y = across[k][1] - SHARED / 2.0
            strips += [(left + share * (right - left), y, letters(len(along) - 1 + k)) for share in (0.2, 0.8)]
    for x, y, name in strips:
        found.append((pen, np.array([(x - CROSS, y), (x + CROSS, y)])))
        found.append((pen, np.array([(x, y - CROSS), (x, y + CROSS)])))
        found += [(pen, line) for line in _words(Text((x + 6.0, y - 2.0), name, 4.0))]
    return found


class _Lines:
    """Gathers the lines of pieces, mm on the sheet."""

    def __init__(self, pens: int) -> None:
        self.lines: list[tuple[int, Line]] = []
        self._pens = pens
        self._shift = np.zeros(2)

    def begin(self, piece: FinishedPiece, dx: float, dy: float) -> None:
        self._shift = np.array([dx, dy])

    def _add(self, kind: str, line: Line) -> None:
        self.lines.append((min(self._pens, PENS.get(kind, OTHER_PEN)), line + self._shift))

    def stroke(self, stroke: Stroke) -> None:
        for path in stroke.paths:
            self._add(stroke.kind, path.flatten(FLAT))

    def circle(self, circle: Circle) -> None:
        turns = np.linspace(0.0, 2.0 * math.pi, ROUND + 1)
        self._add("hole", np.array(circle.at) + circle.radius * np.stack([np.cos(turns), np.sin(turns)], axis=1))

    def text(self, text: Text) -> None:
        for line in _words(text):
            self._add("text", line)


def _words(text: Text) -> list[Line]:
    """A line of writing as the outlines of its letters, about its middle."""
    lines, wide = outlines(text.text, bold=text.bold)
    cos, sin = math.cos(text.turn), math.sin(text.turn)
    turn = np.array([[cos, sin], [-sin, cos]]) * text.size
    return [(line - (wide / 2.0, 0.0)) @ turn + text.at for line in lines]
