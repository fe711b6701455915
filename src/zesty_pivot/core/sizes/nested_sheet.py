"""The nested sheet: every piece in all sizes over each other, one line each, told apart by dashes and words as well as by
colour. A nested piece is a finished piece, so pages are packed with it as with any other."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.moved import moved_piece
from zesty_pivot.core.finish.pen import LOOKS, LineLook
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sizes.nested import POINTS, NestedLine, NestedPiece, nested, point_of
from zesty_pivot.core.sizes.sized import Sized

# Seven dashes (mm) and five colours, dark enough for a grey printer and told apart by the colour-blind: with 7 and 5 no two of
# thirty-five sizes are alike. The order of the colours after Okabe and Ito, from memory, darkened.
DASHES: tuple[tuple[float, ...], ...] = (
    (), (6.0, 2.5), (2.0, 2.0), (9.0, 2.0, 2.0, 2.0), (14.0, 3.0), (4.0, 2.0, 1.0, 2.0, 1.0, 2.0), (1.0, 2.5),
)  # fmt: skip
COLOURS = ("#1d1b18", "#0b5394", "#a33b00", "#00614a", "#7a1f5c")
MOST = len(DASHES) * len(COLOURS)  # sizes over each other whose lines can be told apart
KEY, KEY_LINE, KEY_ROW = "key", 36.0, 8.0  # the table of lines and sizes: its name, mm of a line, mm from row to row
GRAIN = ("grain", "arrow")
LABEL = 3.0  # mm, how high the name of a size is written at its corner
APART = 1.15  # label heights between two labels, where sizes lie closer

Ring = NDArray[np.float64]


def look_of(number: int) -> LineLook:
    """How the cutting line of a size is drawn, by its number from 0."""
    dash = DASHES[number % len(DASHES)]
    return LineLook(0.5, 1.6, dash, tuple(0.7 * part for part in dash), COLOURS[number % len(COLOURS)])


def look_of_stroke(stroke: Stroke) -> LineLook:
    """How a line of a nested piece is drawn: the cutting line by its size, all else in the colour of its size."""
    if not stroke.of_size:
        return LOOKS[stroke.kind]
    look = look_of(stroke.of_size - 1)
    return look if stroke.kind == "cut" else replace(LOOKS[stroke.kind], colour=look.colour)


@record(eq=False)
class NestedSheet:
    """Nested pieces and the titles of the sizes in them, in their order."""

    title: str
    titles: tuple[str, ...]
    pieces: tuple[FinishedPiece, ...]

    def only(self, number: int) -> NestedSheet:
        """One size of it, by its number from 1, where it lies."""
        pieces = []
        for one in self.pieces:
            strokes, circles, texts = (_of(parts, number) for parts in (one.strokes, one.circles, one.texts))
            pieces.append(replace(one, strokes=strokes, circles=circles, texts=texts))
        return replace(self, title=f"{self.title}: {self.titles[number - 1]}", pieces=tuple(pieces))


def _of(parts: Iterable[Any], number: int) -> tuple[Any, ...]:
    return tuple(part for part in parts if part.of_size in (0, number))


def nested_sheet(title: str, sizes: Sequence[Sized], point: str, base: int = 0) -> NestedSheet:
    """The sheet of all sizes that could be worked out. Raises ZestyError where there are none."""
    there = [size for size in sizes if size.derived is not None]
    if not there:
        raise ZestyError("there is no size to put on a sheet", where="nested sheet", advice="Choose sizes that can be made.")
    number = there.index(sizes[base]) if sizes and sizes[base] in there else 0
    finished = [{piece.name: piece for piece in size.derived.pieces} for size in there if size.derived is not None]
    pieces = tuple(_laid(one, there, finished, number) for one in nested(there, point, number))
    titles = tuple(size.wearer.title for size in there)
    return NestedSheet(title, titles, (*pieces, _key(titles)))


def _laid(one: NestedPiece, sizes: Sequence[Sized], finished: Sequence[dict[str, FinishedPiece]], base: int) -> FinishedPiece:
    made = [(line, finished[line.number][one.name]) for line in one.lines if one.name in finished[line.number]]
    shown = next((piece for line, piece in made if line.number == base), made[0][1])
    strokes, circles, rings = list[Stroke](), list[Circle](), list[Ring]()
    for line, piece in made:
        moved, of_size = moved_piece(piece, Motion.shift(line.shift)), line.number + 1
        for stroke in moved.strokes:
            if stroke.kind not in GRAIN:
                strokes.append(replace(stroke, of_size=of_size, id=f"{of_size}.{stroke.id}"))
            elif piece is shown:  # the same way in every size: one says it
                strokes.append(stroke)
        circles += [replace(c, of_size=of_size, id=f"{of_size}.{c.id}") for c in moved.circles]
        rings.append(moved.ring)
    lines = [line for line, _piece in made]
    texts = (*_said(shown, one, sizes), *labels_of(lines, sizes, label_corner(lines)))
    return FinishedPiece(
        one.name, shown.cut, tuple(strokes), tuple(circles), texts, (), (),
        _round(rings),
    )  # fmt: skip


def _said(shown: FinishedPiece, one: NestedPiece, sizes: Sequence[Sized]) -> tuple[Text, ...]:
    """What stands in a nested piece for all sizes, where the base's own words stand."""
    x, y = shown.texts[0].at if shown.texts else tuple(shown.ring.mean(axis=0).tolist())
    on = f"laid on the {words(one.point)}" if one.point else "laid on where they begin"
    numbers = [line.number for line in one.lines]
    lines = [
        (words(one.name), 8.0), (shown.cut_words, 4.0),
        (f"{len(numbers)} sizes, {sizes[numbers[0]].wearer.title} to {sizes[numbers[-1]].wearer.title}", 4.0), (on, 4.0),
    ]  # fmt: skip
    return tuple(
        Text((x, y + sum(size for _t, size in lines[:n]) * 1.4), text, size) for n, (text, size) in enumerate(lines) if text
    )


def label_corner(lines: Sequence[NestedLine]) -> str:
    """The corner that goes farthest from the first size to the last: there names have room."""
    ends = (lines[0], lines[-1])
    return max(POINTS, key=lambda point: _spread(ends, point))


def labels_of(lines: Sequence[NestedLine], sizes: Sequence[Sized], corner: str, tall: float = LABEL) -> tuple[Text, ...]:
    """The name of each size at a corner; where they lie too close they stand under each other, `tall` mm high."""
    is_one_group = len({group for line in lines if (group := sizes[line.number].wearer.group)}) <= 1
    order = sorted(lines, key=lambda line: float(_at(line, corner)[1]))
    spots = np.array([_at(line, corner) for line in order])
    downs = spots[:, 1].copy()
    for n in range(1, len(downs)):
        downs[n] = max(downs[n], downs[n - 1] + tall * APART)
    downs += (spots[:, 1] - downs).mean()  # as far up as down from where they belong
    wearers = [sizes[line.number].wearer for line in order]
    return tuple(
        Text((x + 2.0 * tall, y), one.short if is_one_group else one.title, tall, of_size=line.number + 1)
        for line, one, x, y in zip(order, wearers, spots[:, 0].tolist(), downs.tolist(), strict=True)
    )


def _at(line: NestedLine, corner: str) -> NDArray[np.float64]:
    found = point_of(line.piece, corner)
    return (line.piece.runs[0].path.start if found is None else found) + line.shift


def _spread(lines: Sequence[NestedLine], point: str) -> float:
    """How far a point goes from one size to another, mm; negative where one of them lacks it."""
    if any(point_of(line.piece, point) is None for line in lines):
        return -1.0
    return float(np.ptp([_at(line, point) for line in lines], axis=0).sum())


def _round(rings: Iterable[Ring]) -> Ring:
    """One closed line round all of them."""
    whole = shapely.union_all([shapely.make_valid(shapely.Polygon(ring)) for ring in rings])
    part = whole if whole.geom_type == "Polygon" else shapely.convex_hull(whole)
    return np.asarray(shapely.get_coordinates(part.exterior))


def _key(titles: Sequence[str]) -> FinishedPiece:
    """Which line is which size."""
    rows = [Path.straight(np.array([0.0, y]), np.array([KEY_LINE, y])) for y in KEY_ROW * np.arange(1.5, len(titles) + 1.5)]
    strokes = tuple(Stroke("cut", "cut", f"{n}.key", (row,), n) for n, row in enumerate(rows, 1))
    texts = tuple(
        Text((KEY_LINE + 28.0, KEY_ROW * (n + 0.5) + LABEL / 3.0), title, 4.0, of_size=n) for n, title in enumerate(titles, 1)
    )
    wide, tall = KEY_LINE + 60.0, KEY_ROW * (len(titles) + 1.0)
    ring = np.array([[0.0, 0.0], [wide, 0.0], [wide, tall], [0.0, tall], [0.0, 0.0]])
    return FinishedPiece(KEY, "", strokes, (), (Text((wide / 2.0, 5.0), "Sizes", 5.0, bold=True), *texts), (), (), ring)
