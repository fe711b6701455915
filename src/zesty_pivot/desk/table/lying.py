"""Where each piece lies on the table: by itself, and where the user has put it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPainter, QTransform

from zesty_pivot.core.formats.table_lay import TableLay
from zesty_pivot.core.moves.mirror import side_of
from zesty_pivot.core.piece import Pattern, Piece, Side
from zesty_pivot.core.record import record, replace
from zesty_pivot.desk.lay import SPREAD
from zesty_pivot.desk.table.shapes import shapes_of

APART = 150.0  # mm between panels wholly spread apart
WITHIN = 0.6  # of a panel's box; it lies within the other piece then
BELOW = 0.8  # as far as panels beside each other, where they lie below each other
NAMED = 0.22  # of the body's height, between it and a row under it: room for the names of its pieces, in two lines
BESIDE = 20.0  # mm between such a panel and that piece
GAP = 0.38  # between pieces on the table, of the widest: room for a side that opens
STRIP = 4.0  # times as long as it is wide, or as an eighth of the body, a part lies under all else

Point = tuple[float, float]
Place = Sequence[float] | NDArray[np.float64]


@record
class Lying:
    """A piece on the table: turned by so many quarter turns clockwise about its own origin, then shifted (mm)."""

    dx: float = 0.0
    dy: float = 0.0
    quarters: int = 0

    def on_table(self, at: Place) -> Point:
        """A place of the piece (mm) as a place of the table."""
        x, y = _turned(float(at[0]), float(at[1]), self.quarters)
        return x + self.dx, y + self.dy

    def on_piece(self, at: Place) -> Point:
        """A place of the table (mm) as a place of the piece."""
        return _turned(float(at[0]) - self.dx, float(at[1]) - self.dy, -self.quarters)

    @property
    def transform(self) -> QTransform:
        """The same for what Qt draws."""
        made = QTransform.fromTranslate(self.dx, self.dy)
        return made.rotate(90.0 * self.quarters) if self.quarters else made

    def box(self, box: QRectF) -> QRectF:
        """A box of the piece as it lies."""
        return self.transform.mapRect(box)

    def place(self, painter: QPainter) -> None:
        """Sets a painter of the table to the piece."""
        painter.setTransform(self.transform, combine=True)

    def moved(self, dx: float, dy: float) -> Lying:
        """Put further to the right and down by mm."""
        return replace(self, dx=self.dx + dx, dy=self.dy + dy)


def _turned(x: float, y: float, quarters: int) -> Point:
    for _quarter in range(quarters % 4):
        x, y = -y, x
    return x, y


FLAT = Lying()
Layout = Mapping[str, Lying]


def layout_of(block: Pattern, pattern: Pattern, spread: float = SPREAD, own: TableLay | None = None) -> dict[str, Lying]:
    """Where each piece lies, mm: by the block, so that nothing jumps, back beside front as the user likes it; pieces that the
    user has put elsewhere there. An unfolded piece gets room for its other half; panels of one piece lie `spread` times APART
    from each other."""
    found = {name: Lying(*at) for name, at in _offsets(block, pattern, spread, own.left if own is not None else "back").items()}
    for name, put in own.pieces.items() if own is not None else ():
        if name in found:
            piece = next(piece for piece in pattern.with_extras if piece.name == name)
            found[name] = _put(found[name], shapes_of(piece).box, put.x, put.y, put.turn // 90)
    return found


def _put(lying: Lying, box: QRectF, x: float, y: float, quarters: int) -> Lying:
    """A piece put elsewhere, turned about the middle of its box."""
    middle = box.center()
    there = lying.on_table((middle.x(), middle.y()))
    turned = Lying(0.0, 0.0, quarters)
    now = turned.on_table((middle.x(), middle.y()))
    return Lying(there[0] - now[0] + x, there[1] - now[1] + y, quarters)


def _offsets(block: Pattern, pattern: Pattern, spread: float, left: str) -> dict[str, Point]:
    first = {"back": ("back", "front"), "front": ("front", "back")}[left]
    order = sorted(block.pieces, key=lambda piece: [piece.name != name for name in first])
    found: dict[str, Point] = {}
    x = 0.0
    gap = GAP * max(shapes_of(piece).box.width() for piece in block.pieces)
    for piece in order:
        box = QRectF(shapes_of(piece).box)
        panels = pattern.come_from(piece.name)
        if any(panel.is_unfolded for panel in panels):
            box = box.united(QRectF(-box.right(), box.top(), box.width(), box.height()))
        inner = {name: -number * spread * APART for number, name in enumerate(_to_the_left(panels), start=1)}
        lefts = (shapes_of(panel).box.left() + inner.get(panel.name, 0.0) for panel in panels)
        box.setLeft(min([box.left(), *lefts]))  # a wrap laps over to the left
        found[piece.name] = (x - box.left(), 0.0)
        wide = box.width()
        outer = [panel.name for panel in panels if panel.name not in inner]
        for panel in panels:
            if panel.name in inner:
                found[panel.name] = (x - box.left() + inner[panel.name], 0.0)
                continue
            number = outer.index(panel.name)
            away = number * spread * APART
            below = _lies_below(panel, panels[0]) if number else 0
            if below:
                found[panel.name] = (x - box.left(), below * away * BELOW)
                continue
            mine, main = shapes_of(panel).box, shapes_of(panels[0]).box
            shared = mine.intersected(main)
            if number and shared.width() * shared.height() > WITHIN * mine.width() * mine.height():
                # It lies within the piece that it was cut from: beside it there is room.
                away = (wide + BESIDE - (mine.left() - box.left())) * min(1.0, spread / SPREAD)
                wide = max(wide, mine.right() - box.left() + away)
            found[panel.name] = (x - box.left() + away, 0.0)
            wide = max(wide, mine.right() - box.left() + away)
        x += wide + gap
    for piece in pattern.pieces:  # pieces that the block does not have, to the right of all
        if piece.name not in found:
            box = shapes_of(piece).box
            found[piece.name] = (x - gap / 2.0 - box.left(), 0.0)
            x += box.width() + gap / 2.0
    body = QRectF()
    for piece in pattern.pieces:
        body = body.united(shapes_of(piece).box.translated(*found[piece.name]))
    found.update(_extras(pattern, body))
    return found


def _lies_below(panel: Piece, main: Piece) -> int:
    """1 for a panel that was cut off along a line across and lies under the other part, -1 for one above it, else 0."""
    mine, other = shapes_of(panel).box, shapes_of(main).box
    beside = min(mine.right(), other.right()) - max(mine.left(), other.left())
    if beside <= WITHIN * mine.width():
        return 0
    if mine.center().y() > other.center().y():
        return int(mine.bottom() > other.bottom() - 1.0)
    return -int(mine.top() < other.top() + 1.0)


def _to_the_left(panels: Sequence[Piece]) -> list[str]:
    """The panels that lie on the other side of the centre: of a whole piece, and what of a wrap is beyond the far line."""
    main = shapes_of(panels[0]).box if panels else QRectF()
    return [
        panel.name
        for panel in panels[1:]
        if side_of(panel) is Side.RIGHT or shapes_of(panel).box.center().x() < min(main.left(), 0.0)
    ]


def _extras(pattern: Pattern, body: QRectF) -> dict[str, tuple[float, float]]:
    """Where facings and the like lie: in a column beside the body or in a row below it, whichever leaves all larger on a table
    that is half as wide again as it is high. Long strips lie one below the other under all else."""
    boxes = {extra.piece.name: shapes_of(extra.piece).box for extra in pattern.extras}
    strips = {name: box for name, box in boxes.items() if box.width() > STRIP * max(box.height(), 0.15 * body.width())}
    others = {name: box for name, box in boxes.items() if name not in strips}
    found = _beside_body(others, body)
    low = max([body.bottom(), *(box.bottom() + found[name][1] for name, box in others.items())])
    y = low + BESIDE * 3.0
    for name, box in strips.items():
        found[name] = (body.left() - box.left(), y - box.top())
        y += box.height() + BESIDE * 2.5
    return found


def _beside_body(boxes: dict[str, QRectF], body: QRectF) -> dict[str, tuple[float, float]]:
    """Parts in a column or in a row."""
    if not boxes:
        return {}
    tall = sum(box.height() + BESIDE * 2.5 for box in boxes.values())
    wide = sum(box.width() + BESIDE * 2.0 for box in boxes.values())
    column = max((body.width() + max(box.width() for box in boxes.values())) / 1.5, max(tall, body.height()))
    row = max(max(wide, body.width()) / 1.5, body.height() + max(box.height() for box in boxes.values()) + 3.0 * BESIDE)
    found: dict[str, tuple[float, float]] = {}
    x, y = (
        (body.right() + BESIDE * 2.0, body.top())
        if column <= row
        else (body.left(), body.bottom() + max(BESIDE * 3.0, NAMED * body.height()))
    )
    for name, box in boxes.items():
        found[name] = (x - box.left(), y - box.top())
        if column <= row:
            y += box.height() + BESIDE * 2.5
        else:
            x += box.width() + BESIDE * 2.0
    return found
