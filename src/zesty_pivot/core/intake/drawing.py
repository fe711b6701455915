"""What a file draws, before anybody knows what it means: lines, points and words, with what the file says of them."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.record import record, replace

Array = NDArray[np.float64]

MOST_SEGMENTS = 200_000  # of all lines of a file together; a marker of thirty pieces has some 20,000
MOST_LINES = 20_000
MOST_WORDS = 5_000
LARGEST = 1e7  # file units; nothing that is drawn is larger, and arithmetic beyond it loses hundredths


@record(eq=False)
class DrawnLine:
    """One line as the file has it. `layer` is what the file calls its kind (layer, group, pen), `group` the block or group of a
    piece that it stands in; both may be empty."""

    path: Path
    layer: str = ""
    group: str = ""


@record
class WrittenWords:
    """Words in a file, at the place where they begin."""

    at: tuple[float, float]
    text: str
    layer: str = ""
    group: str = ""


@record
class Dot:
    """A point that the file marks: a drill hole, a turn or curve point; `radius` in file units where it is a circle."""

    at: tuple[float, float]
    layer: str = ""
    group: str = ""
    radius: float = 0.0


@record(eq=False)
class Drawing:
    """All that a file draws, x to the right and y down, in the file's own units.

    `mm` is how many millimetres one unit is, None where the file does not say; `stated` what it says in its own words. `notes`
    are sentences about what was left out.
    """

    lines: tuple[DrawnLine, ...]
    words: tuple[WrittenWords, ...] = ()
    dots: tuple[Dot, ...] = ()
    mm: float | None = None
    notes: tuple[str, ...] = ()
    stated: str = ""

    def in_mm(self, mm: float) -> Drawing:
        """The same in millimetres, where one unit of the file is `mm` of them."""
        lines = tuple(replace(line, path=Path(line.path.cubics * mm)) for line in self.lines)
        words = tuple(replace(one, at=(one.at[0] * mm, one.at[1] * mm)) for one in self.words)
        dots = tuple(replace(dot, at=(dot.at[0] * mm, dot.at[1] * mm), radius=dot.radius * mm) for dot in self.dots)
        return replace(self, lines=lines, words=words, dots=dots, mm=1.0)


class Collector:
    """Gathers a drawing while a file is read, and refuses one that is too large to be a pattern."""

    def __init__(self) -> None:
        self.lines: list[DrawnLine] = []
        self.words: list[WrittenWords] = []
        self.dots: list[Dot] = []
        self._notes: dict[str, int] = {}
        self._segments = 0

    def line(self, cubics: Array, layer: str = "", group: str = "") -> None:
        """A chain of cubics (n, 4, 2) in file units. What is no number is left out and told, and so is what draws nothing.
        Raises FileError when the file draws more than a pattern can."""
        if not np.isfinite(cubics).all() or np.abs(cubics).max(initial=0.0) > LARGEST:
            self.note("a line that lies farther off than any paper reaches")
            return
        size = np.abs(np.diff(cubics, axis=1)).max(axis=(1, 2)) if len(cubics) else np.zeros(0)
        drawn = cubics[size > 1e-9]
        if len(drawn) == 0:
            return
        self._segments += len(drawn)
        if self._segments > MOST_SEGMENTS or len(self.lines) >= MOST_LINES:
            raise FileError("it draws more lines than a pattern has", advice="Save only the block's pieces, without pictures.")
        self.lines += [DrawnLine(Path(part), layer[:200], group[:200]) for part in _connected(drawn)]

    def text(self, at: tuple[float, float], text: str, layer: str = "", group: str = "") -> None:
        """Words at a place."""
        plain = " ".join("".join(c if c.isprintable() else " " for c in text).split())[:200]
        if plain and all(map(math.isfinite, at)) and len(self.words) < MOST_WORDS:
            self.words.append(WrittenWords((float(at[0]), float(at[1])), plain, layer[:200], group[:200]))

    def dot(self, at: tuple[float, float], layer: str = "", group: str = "", radius: float = 0.0) -> None:
        """A marked point."""
        if all(map(math.isfinite, (*at, radius))) and max(map(abs, at)) <= LARGEST and len(self.dots) < MOST_WORDS:
            self.dots.append(Dot((float(at[0]), float(at[1])), layer[:200], group[:200], float(radius)))

    def note(self, what: str) -> None:
        """What was left out, counted."""
        self._notes[what] = self._notes.get(what, 0) + 1

    def made(self, mm: float | None, stated: str = "") -> Drawing:
        """The drawing. Raises FileError when nothing was drawn."""
        if not self.lines:
            raise FileError("it draws no line", advice="Save the block's outlines as lines, not as a picture.")
        notes = tuple(f"Left out: {what}{f' ({count} times)' if count > 1 else ''}." for what, count in self._notes.items())
        return Drawing(tuple(self.lines), tuple(self.words), tuple(self.dots), mm, notes, stated)


def _connected(cubics: Array) -> list[Array]:
    """A chain parted where a cubic does not begin at the end of the one before."""
    gaps = np.flatnonzero(np.abs(cubics[1:, 0] - cubics[:-1, 3]).max(axis=1) > JOIN_TOL) + 1
    parts: list[Array] = np.split(cubics, gaps)
    return parts


def arc(centre: Array, start: Array, turn: float, mapped: Callable[[Array], Array] | None = None) -> Array:
    """A circle's arc as cubics (n, 4, 2), from a point about a centre by an angle (radians, positive from +x to +y).

    With n parts of angle a the error of a cubic is below r (a / (pi/2))^6 2.8e-4 (common knowledge, from memory); it is kept
    under a ten-thousandth of a unit of a circle of a metre.
    """
    parts = max(1, math.ceil(abs(turn) / (math.pi / 8.0)))
    step = turn / parts
    out = start - centre
    pull = 4.0 / 3.0 * math.tan(step / 4.0)
    found = []
    for index in range(parts):
        first, last = _turned(out, step * index), _turned(out, step * (index + 1))
        found.append(
            np.stack([first, first + pull * np.array([-first[1], first[0]]), last - pull * np.array([-last[1], last[0]]), last])
        )
    cubics: Array = np.stack(found) + centre
    return cubics if mapped is None else mapped(cubics)


def _turned(vector: Array, angle: float) -> Array:
    cos, sin = math.cos(angle), math.sin(angle)
    return np.array([vector[0] * cos - vector[1] * sin, vector[0] * sin + vector[1] * cos])
