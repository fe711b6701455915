"""What lies on the table beside the pattern, drawn: tracing paper with its marks, and darts folded shut."""

from __future__ import annotations

import math
from collections import OrderedDict
from collections.abc import Iterable, Iterator, Sequence
from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QPainter, QPen

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.finish.fold import TEAR, crossings, folded
from zesty_pivot.core.moves.laid_open import from_paper, laid_open, layers, on_paper, shut_in_part
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.record import replace
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.lying import FLAT, Layout
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.table.words import MARK, MEASURED, Way, Words, plain, slip
from zesty_pivot.desk.theme import NOW, text_font

if TYPE_CHECKING:
    from zesty_pivot.core.ledger.differences import Differences

# Where small words on the paper go when their own place is taken, px.
NEAR = (
    (0.0, 0.0), (16.0, 0.0), (-16.0, 0.0), (0.0, -14.0), (0.0, 14.0), (0.0, -24.0), (0.0, 24.0), (-30.0, 0.0), (30.0, 0.0),
    (60.0, 0.0), (-60.0, 0.0),
)  # fmt: skip

# Where words go when their own place is taken, px.
BESIDE = (
    (0.0, 0.0),
    (0.0, -24.0),
    (0.0, 24.0),
    (60.0, 0.0),
    (-60.0, 0.0),
    (0.0, -48.0),
    (0.0, 48.0),
    (80.0, -24.0),
    (-80.0, 24.0),
)

SHARP_DEG = 3.0  # a corner over this in a joined seam is a finding of the checks

HALFWAY = 0.5  # of the slider's way that shuts pleats and gathers where there are darts as well

_kept: OrderedDict[tuple[int, float, Sewing], tuple[Piece, Piece]] = OrderedDict()


def shown_piece(piece: Piece, fold: float, sewing: Sewing) -> Piece:
    """The piece with its darts shut by a share, as they are sewn; the same piece and share give the same value."""
    if fold <= 0.0:
        return piece
    key = (id(piece), fold, sewing)
    found = _kept.get(key)
    if found is None or found[0] is not piece:
        found = (piece, _folded(piece, sewing, fold))
        _kept[key] = found
        while len(_kept) > 64:
            _kept.popitem(last=False)
    return found[1]


def _folded(piece: Piece, sewing: Sewing, fold: float) -> Piece:
    """Pleats and gathers are shut first, one after the other, the darts of the piece after them."""
    if not piece.fullness:
        return folded(piece, sewing, fold)
    own = HALFWAY if piece.darts else 1.0
    if fold < own:
        return shut_in_part(piece, fold / own)
    return (
        folded(replace(piece, fullness=()), sewing, (fold - own) / (1.0 - own)) if piece.darts else replace(piece, fullness=())
    )


def tears(piece: Piece) -> tuple[tuple[QPointF, QPointF, QPointF], ...]:
    """The torn places of a folded piece, mm: one side of the tear, the pivot, the other side."""
    found = []
    for dart in piece.darts:
        if dart.id.startswith(TEAR):
            first, second = piece.mouth(dart.id)
            found.append((QPointF(*first), QPointF(*piece.pivot(dart.pivot)), QPointF(*second)))
    return tuple(found)


def paint_traced(painter: QPainter, pattern: Pattern, layout: Layout, px: float) -> None:
    """The outlines of another pattern on tracing paper: dashed, in the cool colour. `px` is one pixel in mm."""
    pen = QPen(NOW.color("cool"), 1.7 * px, Qt.PenStyle.CustomDashLine, Qt.PenCapStyle.FlatCap)
    pen.setDashPattern([5, 3])
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for piece in pattern.pieces:
        shapes = shapes_of(piece)
        painter.save()
        layout.get(piece.name, FLAT).place(painter)
        painter.drawPath(shapes.seams)
        painter.drawPath(shapes.folds)
        painter.drawPath(shapes.legs)
        painter.restore()


def write_tags(words: Words, tags: Iterable[tuple[QPointF, str, str]]) -> None:
    """A few words each on a slip of paper: its middle in px, the words, the colour; beside it where there is no room there."""
    font = text_font(8.5, bold=True)
    for at, text, color in tags:
        words.add(MEASURED, text, [slip(text, font, at + QPointF(*by), color) for by in BESIDE])


def write_marks(words: Words, marks: Iterable[tuple[QPointF, str]], others: Sequence[QRectF] = ()) -> None:
    """Small words on the paper, their middles in px; those of a piece do not slip onto the ground of others."""
    font = text_font(8.5)
    for at, text in marks:
        words.add(MARK, text, _beside(text, font, at, [box for box in others if not box.contains(at)]))


def _beside(text: str, font: QFont, at: QPointF, others: Sequence[QRectF]) -> Iterator[Way]:
    for dx, dy in NEAR:
        box = QRectF(at.x() - 50 + dx, at.y() - 9 + dy, 100, 18)
        way = plain(text, font, box, "cool", Qt.AlignmentFlag.AlignCenter)
        if not any(other.intersects(way.box) for other in others):
            yield way


def difference_marks(canvas: Canvas, pattern: Pattern, figures: Differences, layout: Layout) -> list[tuple[QPointF, str, str]]:
    """Slips for each difference: seams at their middle, darts at their mouth."""
    found: list[tuple[QPointF, str, str]] = []
    for row in figures.edges:
        if row.is_change and row.now_mm is not None and row.other_mm is not None and pattern.has(row.piece):
            piece = pattern.piece(row.piece)
            run = max(piece.edge(row.edge).runs, key=lambda run: run.path.length)
            sign = "+" if row.difference_mm > 0 else "−"
            text = f"{sign}{canvas.length_words(abs(row.difference_mm))}"
            found.append((_px(canvas, piece, run.path.point_at(run.path.length / 2.0), layout), text, "cool"))
    for dart in figures.darts:
        if dart.is_change and dart.now is not None and pattern.has(dart.piece):
            piece = pattern.piece(dart.piece)
            middle = np.mean(piece.mouth(dart.dart), axis=0)
            now = f"{dart.now.angle_deg:.1f}°"
            if dart.other is None:
                text = f"{now} new"
            elif dart.other.station != dart.now.station:
                text = f"{now} moved here"
            else:
                text = f"{dart.other.angle_deg:.1f}° → {now}"
            found.append((_px(canvas, piece, middle, layout), text, "cool"))
    return found


def write_crossings(words: Words, canvas: Canvas, pattern: Pattern, fold: float, layout: Layout, sewing: Sewing) -> None:
    """At each folded mouth, the corner of the seam across it once shut, in degrees."""
    tags: list[tuple[QPointF, str, str]] = []
    for flat in pattern.pieces:
        piece = shown_piece(flat, fold, sewing)
        for row in crossings(flat, sewing):
            first, second = piece.mouth(row.dart)
            middle = (first + second) / 2.0
            inwards = piece.pivot(piece.dart(row.dart).pivot) - middle
            ways = inwards / max(math.hypot(*inwards), 1e-9) * 32.0 / canvas.scale
            at = _px(canvas, piece, middle + ways, layout)
            is_sharp = abs(row.corner_deg) > SHARP_DEG
            # The words say it as well as the colour does.
            told = f"corner {abs(row.corner_deg):.1f}°" if is_sharp else f"smooth, {abs(row.corner_deg):.1f}°"
            tags.append((at, told, "citrus" if is_sharp else "good"))
        for done in laid_open(flat)[1] if flat.fullness else ():
            for end in done.ends:
                if end.held:
                    x, y = from_paper(flat, (float(end.middle[0]), float(end.middle[1])))
                    where = on_paper(piece, (x, y)) if piece.fullness else (x, y)
                    at = _px(canvas, piece, np.array(where) - end.outwards * 30.0, layout)
                    tags.append((at, f"{layers(done, end):.2g} layers", "cool"))
    write_tags(words, tags)


def _px(canvas: Canvas, piece: Piece, at: np.ndarray, layout: Layout) -> QPointF:
    return canvas.to_px(*layout.get(piece.name, FLAT).on_table(at))
