"""A piece finished for the paper: all its lines, marks and words."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import field

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.conventions.options import Finish, cut_words, is_on_fold
from zesty_pivot.core.conventions.schools import ALLOWANCES
from zesty_pivot.core.finish.allowance import Stretch, cut_ring
from zesty_pivot.core.finish.as_worn import right_side_up, side_words
from zesty_pivot.core.finish.balance import balance_point, is_beside_a_dart, notch_place
from zesty_pivot.core.finish.darts import SewnDart, sewn_dart, worn_outline
from zesty_pivot.core.finish.labels import Row, label, label_rows
from zesty_pivot.core.finish.let_in_marks import (
    arrows_of,
    fold_numbers,
    folded_bands,
    folded_ends,
    lines_of,
    notches_of,
    rows_of,
    words_of,
)
from zesty_pivot.core.finish.marks import Circle, Text, balance_notches, drill, drills_inside, grain_arrow, notch
from zesty_pivot.core.finish.reference import block_waist, references
from zesty_pivot.core.finish.slits import slits
from zesty_pivot.core.finish.taken import mark_folded, mark_opened
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.laid_open import LaidOpen, laid_open
from zesty_pivot.core.moves.open_up import OpenedMouth, open_up
from zesty_pivot.core.moves.turned_back import turned_out
from zesty_pivot.core.piece import Body, Dart, EdgeRef, Hold, Piece, Use, dart_key
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.names import FOLD, words
from zesty_pivot.core.piece.piece import Point
from zesty_pivot.core.piece.place import point
from zesty_pivot.core.piece.region import cloth
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.record import record, replace

# A dart that is pressed away is eased over this much of the seam (mm) to either side. Common practice, no source.
PRESSED_OVER = 20.0


ONE_NOTCH = 1.5  # mm; notches nearer than this are one. Our own choice

GRAIN_LEAST = 0.4  # of the grain line's length that must lie on the cloth; less of it is drawn elsewhere. Our own choice

MARK_TEXT = 3.5  # mm, how high what a part of its own is marked with is written

GRAIN_SHARES = (1.0, 0.5, 0.3)  # of its length that the grain line is drawn, the first beside which the label fits
GRAIN_CLEAR = 4.0  # mm that the grain arrow keeps from an edge that cuts it short


@record
class Stroke:
    """Lines of one kind: `layer` is the group in the files (seam, cut, marks), `kind` the line's look. Where sizes lie over
    each other, `of_size` is the number of the size that they are of, from 1."""

    layer: str
    kind: str
    id: str
    paths: tuple[Path, ...]
    of_size: int = field(default=0, repr=False)


@record
class FinishedPiece:
    """A piece with its strokes, drill holes and words; `ring` (m, 2) mm is the closed cut line, `stretches` the seam it goes
    round with its allowances, `garment` (k, 2) mm the cloth that is seen once it is sewn. A piece with a `fault` could not be
    finished: it has no cut line, and `ring` is its outline."""

    name: str
    cut: str
    strokes: tuple[Stroke, ...]
    circles: tuple[Circle, ...]
    texts: tuple[Text, ...]
    darts: tuple[SewnDart, ...]
    opened: tuple[OpenedMouth, ...]
    ring: NDArray[np.float64]
    stretches: tuple[Stretch, ...] = ()
    fault: str = ""
    garment: NDArray[np.float64] | None = None

    @property
    def cut_words(self) -> str:
        """The cutting order in words."""
        return cut_words(self.cut)

    def box(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom in mm of everything drawn."""
        low, high = self.ring.min(axis=0), self.ring.max(axis=0)
        for stroke in self.strokes:
            for path in stroke.paths:
                a, b = path.box()
                low, high = np.minimum(low, a), np.maximum(high, b)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])


def cut_order(piece: Piece, finish: Finish) -> str:
    """`fold`, `pair`, `one` or `up`: as the user decided, else on the fold while the centre is whole, and right side up where
    it is unfolded."""
    asked = finish.cut.get(piece.name, "auto")
    if asked != "auto":
        return asked
    if piece.is_unfolded:
        return "up"
    return "fold" if lies_on_fold(piece) else "pair"


def allowance_of(piece: Piece, edge: str, finish: Finish, scope: Scope) -> float:
    """The allowance of an edge in mm: the user's own by `piece.edge`, else the school's; nothing on the fold."""
    own = finish.allowances.get(str(EdgeRef(piece.name, edge)))
    if own is not None:
        return max(0.0, length_mm(own, scope))
    if edge == piece.fold and is_on_fold(cut_order(piece, finish)):
        return 0.0
    plain = ALLOWANCES[finish.allowance].of(piece.role(edge), piece.body)
    wider = sum(mm for id, _how, mm in piece.sewn_as if id == piece.sides.name(edge))
    return plain + wider if plain > 0.0 else plain


def finish_piece(
    piece: Piece, finish: Finish, scope: Scope, style: str, version: str = "", panel: str = "", drafted: Piece | None = None
) -> FinishedPiece:  # fmt: skip
    """A piece ready to draw; `drafted` is the piece of the block that it comes from.

    Raises FormulaError when a length of the finish cannot be read, GeometryError when it can have no cut line.
    """
    order = cut_order(piece, finish)
    piece = right_side_up(piece)
    paper, let_in = laid_open(pressed_away(piece, finish))
    paper, turned = turned_out(paper)
    drawn, opened = open_up(paper)
    finish = _carried(finish, piece, drawn)
    darts = tuple(sewn_dart(drawn, dart.id, finish, scope) for dart in drawn.darts)
    stretches = _stretches(drawn, darts, finish, scope)
    ring = cut_ring(stretches)
    marked = [*(mark_opened(found, ring, scope) for found in opened), *(mark_folded(d) for d in darts if d.use is not Use.DART)]
    strokes = [*_seams(drawn, order), *_dart_strokes(darts), *_fisheye_strokes(drawn), *_cut_strokes(ring, drawn, order)]
    for dart in darts:
        notches = tuple(notch(end, dart.legs[side].end, ring) for side, end in enumerate(dart.mouth))
        strokes.append(Stroke("marks", "notch", f"{dart.dart}.notches", notches))
    for mark in marked:
        if mark.notches:
            strokes.append(Stroke("marks", "notch", f"{mark.id}.notches", mark.notches))
        if mark.arrow:
            strokes.append(Stroke("marks", "arrow", f"{mark.id}.arrow", mark.arrow))
    strokes += _let_in_strokes(let_in, drawn, ring)
    strokes += _balance_strokes(drawn, ring, folded_ends(let_in))
    strokes += [Stroke("cut", "cut", slit.id, slit.paths) for slit in slits(drawn, piece)]
    strokes += [Stroke("marks", "crease", f"{edge}.fold", (path,)) for edge, path in turned]
    strokes += [Stroke("marks", mark.kind, mark.id, (mark.path,)) for mark in drawn.marks if mark.path is not None]
    if finish.block_waist and drafted is not None and not piece.is_unfolded:
        strokes.append(Stroke("marks", "thin", "waist.block", block_waist(piece, drafted, ring)))
    known = references(drawn, order)
    strokes += [Stroke("marks", "cross" if len(paths) > 1 else "centre", id, paths) for id, paths in known.lines]
    rows = label_rows(words(piece.name), style, panel, order, finish, version)
    covered = known.covered.union(folded_bands(let_in))
    grain, texts = _lettered(drawn, grain_inside(drawn, shapely.Polygon(ring)), rows, covered)
    if grain is not None:
        strokes.append(Stroke("marks", "grain", "grain", grain_arrow(grain)))
    texts += known.texts
    circles = tuple(drill(dart) for dart in darts if dart.use is Use.DART)
    circles += tuple(circle for eye in drawn.fisheyes for circle in drills_inside(eye))
    circles += tuple(Circle(mark.at, mark.radius, mark.id) for mark in drawn.marks if mark.kind == "hole")
    texts += tuple(Text(mark.at, mark.text, MARK_TEXT) for mark in drawn.marks if mark.text)
    texts += tuple(mark.text for mark in marked)
    texts += tuple(text for laid in let_in for text in words_of(laid, scope))
    texts += fold_numbers(drawn)
    texts += side_words(piece)
    garment = worn_outline(drawn, darts)
    return FinishedPiece(piece.name, order, tuple(strokes), circles, texts, darts, opened, ring, stretches, garment=garment)


def _carried(finish: Finish, piece: Piece, drawn: Piece) -> Finish:
    """The finish for a piece as it is drawn: with fewer darts some are called otherwise, but they are decided of as before."""
    if not finish.darts:
        return finish
    keys = {dart_key(drawn, dart.id): finish.darts.get(dart_key(piece, dart.id)) for dart in drawn.darts}
    return finish.model_copy(update={"darts": {key: own for key, own in keys.items() if own is not None}})


def _lettered(
    piece: Piece, grain: tuple[Point, Point] | None, rows: Sequence[Row], covered: shapely.Geometry
) -> tuple[tuple[Point, Point] | None, tuple[Text, ...]]:
    """The grain line as it is drawn, and the label beside it and beside what is covered. On a piece so narrow that both do not
    fit side by side, the grain line is drawn over a part of its length."""
    clear = cloth(piece)
    for eye in piece.fisheyes:
        clear = clear.difference(shapely.Polygon(eye.outline))
    clear = _beside(clear, covered)
    if grain is None:
        return None, label(rows, clear)
    found: list[tuple[tuple[Point, Point], tuple[Text, ...]]] = []
    for share in GRAIN_SHARES:
        drawn = _part_of(grain, share)
        found.append((drawn, label(rows, _beside(clear, shapely.LineString(drawn).buffer(GRAIN_CLEAR)))))
        if min(text.size for text in found[-1][1]) >= min(size for _text, size, _bold in rows) - 1e-9:
            return found[-1]
    return found[0]


def _part_of(grain: tuple[Point, Point], share: float) -> tuple[Point, Point]:
    """The upper part of a grain line."""
    (x0, y0), (x1, y1) = grain
    return (x0, y0), (x0 + (x1 - x0) * share, y0 + (y1 - y0) * share)


def _beside(clear: shapely.Geometry, covered: shapely.Geometry) -> shapely.Geometry:
    """What is left of a region beside what is covered; all of it where little would be left."""
    left = clear.difference(covered)
    return left if left.area > clear.area / 2.0 else clear


def _largest(region: shapely.Geometry) -> shapely.Polygon:
    """The largest part of a region."""
    return max(shapely.get_parts(region), key=lambda part: float(part.area))


def grain_inside(piece: Piece, cut: shapely.Polygon | None = None) -> tuple[Point, Point] | None:
    """The grain line as it is drawn: on the cloth, where a dart may open across it or the edge come in. Its longest part there;
    where little or nothing of it lies there, a line beside it through the widest place of the piece. `cut` is what is inside
    the cut line, where that is known: a bowed dart that is cut away takes more than the piece shows."""
    if piece.grain is None:
        return None
    line, inside = shapely.LineString(piece.grain), cloth(piece)
    if cut is not None:
        inside = inside.intersection(cut)
    if shapely.contains_properly(inside, line):
        return piece.grain
    inner = inside.buffer(-GRAIN_CLEAR)
    inside = inside if inner.is_empty else inner  # a strip narrower than that still has its line inside
    own = _longest(line, inside)
    if own is None or own.length < GRAIN_LEAST * line.length:
        beside = _longest(_through_widest(piece.grain, inside), inside)
        own = max((part for part in (own, beside) if part is not None), key=lambda part: float(part.length), default=None)
    if own is None:
        return piece.grain
    (x0, y0), (x1, y1) = own.coords[0], own.coords[-1]
    return (float(x0), float(y0)), (float(x1), float(y1))


def _longest(line: shapely.LineString, inside: shapely.Geometry) -> shapely.LineString | None:
    """The longest part of a line that lies in a region; the line itself where all of it does."""
    parts = shapely.get_parts(shapely.intersection(line, inside))
    parts = [part for part in parts if part.geom_type == "LineString" and part.length > 0.0]
    return max(parts, key=lambda part: float(part.length), default=None)


def _through_widest(grain: tuple[Point, Point], inside: shapely.Geometry) -> shapely.LineString:
    """A line in the direction of the grain and as long, its middle at the middle of the widest place of a region."""
    if inside.is_empty:
        return shapely.LineString(grain)
    middle = np.asarray(shapely.maximum_inscribed_circle(_largest(inside), tolerance=1.0).coords[0])
    half = (np.asarray(grain[1]) - np.asarray(grain[0])) / 2.0
    return shapely.LineString([middle - half, middle + half])


def pressed_away(piece: Piece, finish: Finish) -> Piece:
    """The piece with the darts that are pressed away instead of sewn counted as ease."""

    def eased(dart: Dart) -> Dart:
        own = finish.darts.get(dart_key(piece, dart.id))
        if own is None or own.end != "press_away" or dart.use is not Use.DART:
            return dart
        return replace(dart, use=Use.EASE, hold=Hold(PRESSED_OVER, PRESSED_OVER))

    return replace(piece, darts=tuple(eased(dart) for dart in piece.darts))


def _stretches(piece: Piece, darts: tuple[SewnDart, ...], finish: Finish, scope: Scope) -> tuple[Stretch, ...]:
    """The outline to cut round, mouths capped or their inside cut away."""
    sewn = {dart.dart: dart for dart in darts}
    found: list[Stretch] = []
    for run in piece.runs:
        found.append(Stretch(run.path, allowance_of(piece, run.edge, finish, scope)))
        if run.mouth is None:
            continue
        dart = sewn[run.mouth]
        if dart.cap is not None:
            found += [Stretch(path, allowance_of(piece, edge, finish, scope)) for edge, path in dart.cap_parts]
        else:
            down, up = dart.legs
            found += [Stretch(down, dart.cut_away_mm), Stretch(up.reversed(), dart.cut_away_mm)]
    return tuple(found)


def _let_in_strokes(let_in: Sequence[LaidOpen], drawn: Piece, ring: NDArray[np.float64]) -> list[Stroke]:
    """Lines, arrows and notches of gathers, pleats and tucks."""
    found: list[Stroke] = []
    for laid in let_in:
        for mark in (*lines_of(laid), *rows_of(laid, drawn), *arrows_of(laid), *notches_of(laid, ring)):
            found.append(Stroke("marks", mark.kind, mark.id, mark.paths))
    return found


def _seams(piece: Piece, order: str) -> list[Stroke]:
    found: list[Stroke] = []
    for edge in piece.edges:
        on_fold = edge.id == piece.fold and is_on_fold(order)
        found.append(Stroke("seam", "fold" if on_fold else "seam", edge.id, tuple(run.path for run in edge.runs)))
    return found


def _dart_strokes(darts: tuple[SewnDart, ...]) -> list[Stroke]:
    found: list[Stroke] = []
    for dart in darts:
        found.append(Stroke("seam", "leg", f"{dart.dart}.legs", dart.legs))
        if dart.cap is not None:
            found.append(Stroke("seam", "cap", f"{dart.dart}.cap", (dart.cap,)))
            middle = np.asarray((dart.mouth[0] + dart.mouth[1]) / 2.0)
            if dart.use is Use.DART:
                # Where the legs bend the crease bends too.
                bends = [(a + b) / 2.0 for a, b in zip(*(_inner(leg) for leg in dart.legs), strict=True)]
                crease = Path.straight(dart.point, *reversed(bends), middle)
                found.append(Stroke("marks", "crease", f"{dart.dart}.crease", (crease,)))
    return found


def _fisheye_strokes(piece: Piece) -> list[Stroke]:
    found: list[Stroke] = []
    for eye in piece.fisheyes:
        found.append(Stroke("seam", "leg", f"{eye.id}.legs", eye.legs))
        top, _right, bottom, _left = eye.corners
        found.append(Stroke("marks", "crease", f"{eye.id}.crease", (Path.straight(top, bottom),)))
    return found


def _inner(leg: Path) -> list[NDArray[np.float64]]:
    """The joints inside a leg of several straight lines, from the mouth."""
    return [cubic[0] for cubic in leg.cubics[1:]]


def _balance_strokes(piece: Piece, ring: NDArray[np.float64], folds: Sequence[Vector]) -> list[Stroke]:
    """Balance notches of long seams: one stroke on the front, two on the back; none where a leg or a fold has its own."""
    found: list[Stroke] = []
    for edge in piece.edges:
        place = balance_point(piece, edge.id)
        if place is not None and not is_beside_a_dart(piece, place):
            strokes = balance_notches(piece.runs[place.run].path, place.at, ring, double=piece.body is Body.BACK)
            found.append(Stroke("marks", "notch", f"{edge.id}.balance", strokes))
    for mark in piece.notches:
        place = None if mark.id.startswith(FOLD) else notch_place(piece, mark)
        if place is not None and not any(math.dist(point(piece, place), end) < ONE_NOTCH for end in folds):
            strokes = balance_notches(piece.runs[place.run].path, place.at, ring, double=mark.strokes == 2)
            found.append(Stroke("marks", "notch", f"{mark.id}.notch", strokes))
    return found


def _cut_strokes(ring: NDArray[np.float64], piece: Piece, order: str) -> list[Stroke]:
    """The cut line; along a fold nothing is cut."""
    closed = np.vstack([ring, ring[:1]])
    if not is_on_fold(order) or piece.fold is None:
        return [Stroke("cut", "cut", "cut", (Path.polyline(closed),))]
    runs = piece.edge(piece.fold).runs
    start, stop = runs[0].path.start, runs[-1].path.end
    along = (stop - start) / np.hypot(*(stop - start))
    normal = np.array([-along[1], along[0]])
    folded = np.abs((closed - start) @ normal) <= 1e-3
    cut = ~(folded[:-1] & folded[1:])
    if cut.all():
        return [Stroke("cut", "cut", "cut", (Path.polyline(closed),))]
    # Begin behind the fold so that the cut line is one stretch.
    first = next(k for k in range(len(cut)) if cut[k] and not cut[k - 1])
    order_ = [(first + k) % len(cut) for k in range(len(cut))]
    pieces: list[Path] = []
    points: list[NDArray[np.float64]] = []
    for k in order_:
        if cut[k]:
            points = points or [ring[k]]
            points.append(ring[(k + 1) % len(ring)])
        elif points:
            pieces.append(Path.polyline(np.array(points)))
            points = []
    if points:
        pieces.append(Path.polyline(np.array(points)))
    return [Stroke("cut", "cut", "cut", tuple(pieces))]
