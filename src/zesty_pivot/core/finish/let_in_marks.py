"""The marks of gathers, pleats and tucks that were let in along slashes: fold and placement lines, stitching, arrows, notches,
words."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from contextlib import suppress

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.finish.marks import Text, notch
from zesty_pivot.core.finish.taken import ARROW_INSIDE, WORDS_INSIDE, WORDS_SIZE, upright
from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.laid_open import FoldLines, LaidOpen
from zesty_pivot.core.piece import Origin, Piece, Taking
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import FOLD
from zesty_pivot.core.quantity import Scope, format_length
from zesty_pivot.core.record import record

SOFT_MARK = 100.0  # mm from the edge that the lines of soft pleats are drawn. Our own choice
ARROW_APART = 24.0  # mm from one arrow of a pleat to the next into the piece. Our own choice
BEFORE_ARROWS = 9.0  # mm from the edge that the words of pleats stand. Our own choice
NUMBER_INSIDE, NUMBER_SIZE = 16.0, 6.0  # mm: how far inside the seam a fold's number stands, and how high it is. Our own choice
HEAD = 4.0  # mm of an arrow's head at most


@record
class Marking:
    """A line of a kind as the finish knows its looks: `fold`s are dashed as creases, places thin, stitching as seams."""

    id: str
    kind: str
    paths: tuple[Path, ...]


def lines_of(laid: LaidOpen) -> Iterator[Marking]:
    """The lines of folds: where the cloth is folded, where the fold comes to lie, where it is stitched down."""
    full = laid.fullness
    for number, fold in enumerate(laid.lines, start=1):
        id = f"{full.id}.{number}"
        reach = SOFT_MARK if "soft" in full.treated else math.inf
        if full.taking is Taking.TUCKS:
            sewn = math.inf if full.stitched_mm is None else full.stitched_mm
            yield Marking(f"{id}.stitching", "leg", tuple(_upto(path, sewn) for path in (*fold.folds, *fold.places)))
            yield Marking(f"{id}.fold", "crease", tuple(_upto(path, sewn) for path in fold.inner))
            continue
        yield Marking(f"{id}.fold", "crease", tuple(_upto(path, reach) for path in fold.folds))
        yield Marking(f"{id}.under", "thin", tuple(_upto(path, reach) for path in fold.inner))
        yield Marking(f"{id}.place", "centre", tuple(_upto(path, reach) for path in dict.fromkeys(fold.places)))
        if full.stitched_mm:
            down = tuple(_upto(path, full.stitched_mm) for path in (*fold.folds, *fold.places))
            yield Marking(f"{id}.stitching", "leg", down)
        if "edge-stitched" in full.treated:
            yield Marking(
                f"{id}.edge_stitching", "leg", tuple(_beside(a, b) for a, b in zip(fold.folds, fold.places, strict=True))
            )


def _upto(path: Path, reach: float) -> Path:
    return path if reach >= path.length else path.between(0.0, max(reach, 1.0))


def _beside(fold: Path, place: Path) -> Path:
    """A line 2 mm beside a fold, away from where it is laid."""
    way = place.start - fold.start
    size = math.hypot(way[0], way[1])
    shift = -way / size * 2.0 if size > 0.0 else np.zeros(2)
    return Path(fold.cubics + shift)


def arrows_of(laid: LaidOpen) -> Iterator[Marking]:
    """Arrows from each fold to the place it is laid on, near the first end. Tucks have one from stitching to stitching."""
    for number, fold in enumerate(laid.lines, start=1):
        found: list[Path] = []
        for one, two in zip(fold.folds, fold.places, strict=True):
            for reach in (ARROW_INSIDE, ARROW_INSIDE + ARROW_APART):
                if reach < 0.6 * one.length:
                    found += arrow(one.point_at(reach), two.point_at(reach))
        if found:
            yield Marking(f"{laid.fullness.id}.{number}.arrow", "arrow", tuple(found))


def arrow(tail: Vector, tip: Vector) -> list[Path]:
    """An arrow from a point to another, its head in proportion; nothing where they fall together."""
    if math.dist(tail, tip) < 0.5:
        return []
    along = unit(tip - tail)
    across = np.array([-along[1], along[0]])
    size = min(HEAD, 0.4 * math.dist(tail, tip))
    head = Path.straight(tip - along * size + across * size * 0.5, tip, tip - along * size - across * size * 0.5)
    return [Path.straight(tail, tip), head]


def notches_of(laid: LaidOpen, ring: NDArray[np.float64]) -> Iterator[Marking]:
    """Notches at both ends of each fold and place, where it is taken up; of gathers where they start and stop."""
    full = laid.fullness
    for number, end in enumerate(laid.ends):
        # The stretch that was asked for has notches that its partner has too.
        if full.taking is Taking.GATHERS and end.held and (number or full.stretch is None):
            inside = -end.outwards * 50.0
            yield Marking(
                f"{full.id}.{end.edge}.notches", "notch", tuple(notch(at, at + inside, ring) for at in (end.start, end.stop))
            )
    for number, fold in enumerate(laid.lines, start=1):
        for which, held in enumerate(full.held):
            if held and _opens(fold, which):
                found = dict.fromkeys((*fold.folds, *fold.places))
                ends = [(p.start, p.end) if which == 0 else (p.end, p.start) for p in found]
                yield Marking(f"{full.id}.{number}.{which}.notches", "notch", tuple(notch(at, into, ring) for at, into in ends))


def _opens(fold: FoldLines, which: int) -> bool:
    """Whether a slash is parted at one of its ends."""
    one, two = fold.folds[0], fold.places[0]
    return math.dist(*((one.start, two.start) if which == 0 else (one.end, two.end))) > 0.1


def folded_ends(let_in: Sequence[LaidOpen]) -> list[Vector]:
    """The ends of all folds and places, which have notches of their own."""
    paths = [path for laid in let_in for fold in laid.lines for path in (*fold.folds, *fold.places)]
    return [end for path in paths for end in (path.start, path.end)]


def folded_bands(let_in: Sequence[LaidOpen]) -> shapely.Geometry:
    """What is folded away: from each fold to its place. Nothing is written there."""
    bands = []
    for laid in let_in:
        for fold in laid.lines:
            for one, two in zip(fold.folds, fold.places, strict=True):
                bands.append(shapely.MultiPoint([one.start, one.end, two.end, two.start]).convex_hull.buffer(1.0))
    return shapely.union_all(bands)


def words_of(laid: LaidOpen, scope: Scope) -> Iterator[Text]:
    """What is written at each edge: what it is, from what length to what."""
    full, unit_ = laid.fullness, scope.unit
    for end in laid.ends:
        if not end.held:
            continue
        what = "gather" if full.taking is Taking.GATHERS else full.style
        lengths = f" {format_length(end.open_mm, unit_)} to {format_length(end.sewn_mm, unit_)}" if end.sewn_mm > 0.5 else ""
        text = what + lengths
        if full.taking is not Taking.GATHERS:
            count = len(laid.lines)
            text = f"{count} {what}{'s' if count > 1 else ''}, take up {format_length(end.taken_mm, unit_)}"
        at = end.middle - end.outwards * (WORDS_INSIDE if full.taking is Taking.GATHERS else BEFORE_ARROWS)
        yield Text((float(at[0]), float(at[1])), text, WORDS_SIZE, upright(end.outwards))


def _on_edge(drawn: Piece, at: Origin) -> places.Place | None:
    """Where a place lies on the ring; the nearest of its line where the edge is led over a dart's mouth beside it. None
    where nothing of the line is left."""
    with suppress(PlaceError):
        return places.by_origin(drawn, at)
    ends = [
        (abs(u - at.u), index, share)
        for index, run in enumerate(drawn.runs)
        if run.source.line == (at.line, at.is_mirrored)
        for u, share in ((run.source.u0, 0.0), (run.source.u1, 1.0))
    ]
    _off, index, share = min(ends, default=(0.0, -1, 0.0))
    return places.settled(drawn, index, share * drawn.runs[index].path.length) if ends else None


def rows_of(laid: LaidOpen, drawn: Piece) -> Iterator[Marking]:
    """Rows of shirring: the gathered edge again and again, further inside."""
    full = laid.fullness
    if not full.rows or full.stretch is None:
        return
    here, there = (_on_edge(drawn, at) for at in full.stretch)
    if here is None or there is None:
        return
    edge = drawn.runs[there.run].edge
    begin, stop = sorted(places.sewn_distance(drawn, at) if drawn.runs[at.run].edge == edge else 0.0 for at in (here, there))
    points, inwards = [], []
    for share in np.linspace(0.0, 1.0, 25):
        at = places.along(drawn, edge, begin + (stop - begin) * float(share))
        way = drawn.runs[at.run].path.direction_at(at.at)
        points.append(places.point(drawn, at))
        inwards.append(np.array([-way[1], way[0]]))
    for row in range(1, full.rows + 1):
        shifted = np.array(points) + np.array(inwards) * (full.apart_mm * row)
        yield Marking(f"{full.id}.row.{row}", "leg", (Path.polyline(shifted),))


def fold_numbers(drawn: Piece) -> tuple[Text, ...]:
    """The numbers of a drape's folds, in order along their seam, inside it."""
    found = []
    for mark in drawn.notches:
        if not mark.id.startswith(FOLD):
            continue
        with suppress(PlaceError):
            place = places.by_origin(drawn, mark.at)
            way = drawn.runs[place.run].path.direction_at(place.at)
            at = places.point(drawn, place) + np.array([-way[1], way[0]]) * NUMBER_INSIDE
            found.append(Text((float(at[0]), float(at[1])), mark.id.removeprefix(FOLD), NUMBER_SIZE, bold=True))
    return tuple(found)
