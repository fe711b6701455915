"""Pieces as Qt paths, kept per piece so that only what changed is drawn anew."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable

import shapely
from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainterPath, QPolygonF

from zesty_pivot.core.conventions.leg_lines import leg_lines
from zesty_pivot.core.finish.as_worn import right_side_up, side_words
from zesty_pivot.core.finish.let_in_marks import fold_numbers
from zesty_pivot.core.finish.marks import grain_arrow
from zesty_pivot.core.finish.piece import grain_inside
from zesty_pivot.core.finish.slits import slits
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.moves.laid_open import LaidOpen, laid_open
from zesty_pivot.core.moves.mirror import side_of
from zesty_pivot.core.moves.open_up import OpenedMouth, bridge, open_up
from zesty_pivot.core.moves.turned_back import turned_out
from zesty_pivot.core.piece import Piece, Use
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.use_marks import Words, let_in_marks, use_marks


@record
class Shapes:
    """A piece's lines in mm. `fill` is its paper with the darts cut out."""

    fill: QPainterPath
    seams: QPainterPath
    folds: QPainterPath
    legs: QPainterPath
    label: QPointF
    box: QRectF
    paper: Piece  # as it lies on the paper, with let-in fullness laid open
    piece: Piece
    let_in: tuple[LaidOpen, ...]
    turned: tuple[tuple[str, Path], ...]
    opened: tuple[OpenedMouth, ...]

    @property
    def marks(self) -> QPainterPath:
        """The notches, waves and arrows of other uses."""
        return self._marked[0]

    @property
    def words(self) -> Words:
        """The words at their places."""
        return self._marked[1]

    @cached_property
    def _marked(self) -> tuple[QPainterPath, Words]:
        """Marks and words, which take twice as long as the lines: sizes over each other do without."""
        paper = self.paper
        marks, words = use_marks(paper, self.opened)
        more, said = let_in_marks(paper, self.let_in)
        marks.addPath(more)
        words += said
        for path in [path for _edge, path in self.turned] + [mark.path for mark in paper.marks if mark.path is not None]:
            add_path(marks, path)
        for path in [path for slit in slits(paper, self.piece) for path in slit.paths if slit.id == "twist.slit"]:
            add_path(marks, path)
        for mark in paper.marks:
            if mark.kind == "hole":
                marks.addEllipse(QPointF(*mark.at), mark.radius, mark.radius)
        words += tuple((QPointF(*mark.at), mark.text) for mark in paper.marks if mark.text)
        words += tuple((QPointF(*text.at), text.text) for text in fold_numbers(paper))
        words += tuple((QPointF(*text.at), text.text) for text in side_words(paper))
        if right_side_up(paper) is not paper:
            middle = 0.0 if side_of(paper) is None else self.box.center().x()
            words += ((QPointF(middle, self.box.bottom() - 25.0), "seen from inside"),)
        return marks, words

    @cached_property
    def grain(self) -> QPainterPath:
        """The arrow of the grain, which takes the longest to find a place for."""
        inside = grain_inside(self.paper)
        return qt_path(grain_arrow(inside)) if inside is not None else QPainterPath()


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


def qt_area(shape: shapely.Geometry) -> QPainterPath:
    """What lies inside the outlines of an area, its holes left out."""
    drawn = QPainterPath()
    for part in shapely.get_parts(shape):
        for ring in (part.exterior, *part.interiors):
            drawn.addPolygon(QPolygonF([QPointF(x, y) for x, y in shapely.get_coordinates(ring).tolist()]))
            drawn.closeSubpath()
    return drawn


KEPT = 512  # pieces: those of a pattern, and of as many sizes over each other as can be told apart

_kept: OrderedDict[int, tuple[Piece, Shapes]] = OrderedDict()


def shapes_of(piece: Piece) -> Shapes:
    """The shapes of a piece; the same piece gives the same shapes."""
    found = _kept.get(id(piece))
    if found is None or found[0] is not piece:
        found = (piece, _drawn(piece))
        _kept[id(piece)] = found
        while len(_kept) > KEPT:
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
    box = fill.controlPointRect()
    label = QPointF(box.left() + box.width() * 0.42, box.top() + box.height() * 0.33)
    return Shapes(fill, seams, folds, legs, label, box, paper, piece, let_in, turned, opened)
