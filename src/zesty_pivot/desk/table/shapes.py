"""Pieces as Qt paths, kept per piece so that only what changed is drawn anew."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainterPath

from zesty_pivot.core.conventions.leg_lines import leg_lines
from zesty_pivot.core.finish.as_worn import right_side_up, side_words
from zesty_pivot.core.finish.let_in_marks import fold_numbers
from zesty_pivot.core.finish.marks import grain_arrow
from zesty_pivot.core.finish.piece import grain_inside
from zesty_pivot.core.finish.slits import slits
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.moves.mirror import side_of
from zesty_pivot.core.moves.open_up import bridge, open_up
from zesty_pivot.core.moves.turned_back import turned_out
from zesty_pivot.core.piece import Pattern, Piece, Side, Use
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.desk.lay import SPREAD
from zesty_pivot.desk.table.use_marks import let_in_marks, use_marks

APART = 150.0  # mm between panels wholly spread apart
WITHIN = 0.6  # of a panel's box; it lies within the other piece then
BELOW = 0.8  # as far as panels beside each other, where they lie below each other
BESIDE = 20.0  # mm between such a panel and that piece

GAP = 0.38  # between pieces on the table, of the widest: room for a side that opens


@dataclass(frozen=True)
class Shapes:
    """A piece's lines in mm. `fill` is its paper with the darts cut out; `marks` are the notches, waves and arrows of other
    uses, with `words` at their places."""

    fill: QPainterPath
    marks: QPainterPath
    words: tuple[tuple[QPointF, str], ...]
    seams: QPainterPath
    folds: QPainterPath
    legs: QPainterPath
    grain: QPainterPath
    label: QPointF
    box: QRectF


def add_path(drawn: QPainterPath, path: Path, *, joined: bool = False) -> None:
    """A path's cubics added to a Qt path; `joined` goes on from where it is."""
    points = path.cubics.tolist()
    x, y = points[0][0]
    if joined and drawn.elementCount():
        drawn.lineTo(x, y)
    else:
        drawn.moveTo(x, y)
    for _start, (ax, ay), (bx, by), (cx, cy) in points:
        drawn.cubicTo(ax, ay, bx, by, cx, cy)


def qt_path(paths: Iterable[Path]) -> QPainterPath:
    """Several paths as one Qt path."""
    drawn = QPainterPath()
    for path in paths:
        add_path(drawn, path)
    return drawn


_kept: OrderedDict[int, tuple[Piece, Shapes]] = OrderedDict()


def shapes_of(piece: Piece) -> Shapes:
    """The shapes of a piece; the same piece gives the same shapes."""
    found = _kept.get(id(piece))
    if found is None or found[0] is not piece:
        found = (piece, _drawn(piece))
        _kept[id(piece)] = found
        while len(_kept) > 256:
            _kept.popitem(last=False)
    return found[1]


def _drawn(piece: Piece) -> Shapes:
    fill, seams, folds, legs = QPainterPath(), QPainterPath(), QPainterPath(), QPainterPath()
    flat, let_in = laid_open(piece)
    flat, turned = turned_out(flat)
    paper, opened = open_up(flat)
    fold = paper.fold if lies_on_fold(paper) else None
    for index, run in enumerate(paper.runs):
        add_path(fill, run.path, joined=index > 0)
        add_path(folds if run.edge == fold else seams, run.path)
        if run.mouth is None:
            continue
        if paper.dart(run.mouth).use is not Use.DART:  # a tuck or pleat: the cloth goes on
            after = paper.runs[paper.after(index)].path
            add_path(seams, bridge(run.path.end, run.path.end_direction, after.start, after.start_direction))
        else:
            pin = paper.pivot(paper.dart(run.mouth).pivot)
            first, second = leg_lines(paper, run.mouth, pin)
            add_path(fill, first, joined=True)
            add_path(fill, second.reversed(), joined=True)
            add_path(legs, first)
            add_path(legs, second)
    fill.closeSubpath()
    for eye in paper.fisheyes:
        hole = QPainterPath()
        for number, leg in enumerate(eye.legs):
            add_path(hole, leg, joined=number > 0)
        legs.addPath(hole)
        hole.closeSubpath()
        fill = fill.subtracted(hole)
    grain = QPainterPath()
    inside = grain_inside(paper)
    if inside is not None:
        grain = qt_path(grain_arrow(inside))
    box = fill.controlPointRect()
    label = QPointF(box.left() + box.width() * 0.42, box.top() + box.height() * 0.33)
    marks, words = use_marks(paper, opened)
    more, said = let_in_marks(paper, let_in)
    marks.addPath(more)
    words += said
    for path in [path for _edge, path in turned] + [mark.path for mark in paper.marks if mark.path is not None]:
        add_path(marks, path)
    for path in [path for slit in slits(paper, piece) for path in slit.paths if slit.id == "twist.slit"]:
        add_path(marks, path)
    for mark in paper.marks:
        if mark.kind == "hole":
            marks.addEllipse(QPointF(*mark.at), mark.radius, mark.radius)
    words += tuple((QPointF(*mark.at), mark.text) for mark in paper.marks if mark.text)
    words += tuple((QPointF(*text.at), text.text) for text in fold_numbers(paper))
    words += tuple((QPointF(*text.at), text.text) for text in side_words(paper))
    if right_side_up(paper) is not paper:
        middle = 0.0 if side_of(paper) is None else box.center().x()
        words += ((QPointF(middle, box.bottom() - 25.0), "seen from inside"),)
    return Shapes(fill, marks, words, seams, folds, legs, grain, label, box)


def offsets(block: Pattern, pattern: Pattern, spread: float = SPREAD) -> dict[str, tuple[float, float]]:
    """Where each piece lies on the table, mm: back to the left of front, by the block, so that nothing jumps. An unfolded piece
    gets room for its other half; panels of one piece lie `spread` times APART from each other."""
    order = sorted(block.pieces, key=lambda piece: (piece.name != "back", piece.name != "front"))
    found: dict[str, tuple[float, float]] = {}
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


STRIP = 4.0  # times as long as it is wide, or as an eighth of the body, a part lies under all else


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
    x, y = (body.right() + BESIDE * 2.0, body.top()) if column <= row else (body.left(), body.bottom() + BESIDE * 3.0)
    for name, box in boxes.items():
        found[name] = (x - box.left(), y - box.top())
        if column <= row:
            y += box.height() + BESIDE * 2.5
        else:
            x += box.width() + BESIDE * 2.0
    return found
