"""Fullness let in from an edge: where its slashes lie, which way its folds point, and the notches on both sides of the seam."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from contextlib import suppress
from typing import Literal

import numpy as np

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.geometry import unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.laid_open import LaidOpen, laid_open
from zesty_pivot.core.moves.let_lines import anchor
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.piece import EdgeRef, Fullness, LetLine, Lies, Notch, Pattern, Piece, Place, SeamSide, Taking, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import crosses, crosses_itself, first_hit, slash_fault
from zesty_pivot.core.piece.sides import Body
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.record import record, replace

Heading = Literal["centre", "side", "up", "down"]

Held = Callable[[Sequence[str]], bool]

INWARDS = 0.01  # mm inside the edge from which a slash is drawn across
AT_THE_FOLD = 0.5  # mm from the centre within which a pleat is meant to lie on it
ALONG = 0.85  # the cosine of the angle (32 degrees) under which an edge runs along a slash. Our own choice
LEAST_LONG = 20.0  # mm that a slash is long at least: less is a corner of the piece. Our own choice


@record
class Slot:
    """One slash as it is asked for: how far (mm) along the edge, how far it is parted there (mm), and where its fold points;
    `leads` is where it leads among those that radiate, from 0 for the first to 1 for the last: in their order when None."""

    at: float
    by: float
    lies: Lies = Lies.AFTER
    at_fold: bool = False
    leads: float | None = None

    @property
    def parts(self) -> float:
        """How far this piece is parted, mm: of what lies at the fold a half has half."""
        return self.by / 2.0 if self.at_fold else self.by


@record
class Across:
    """How slashes lie: to places of another edge (shares of its length, the first for the first slash), or straight across
    where `to` is None; `far` is what they are parted at the far end, as a share of the near one."""

    to: str | None = None
    stretch: tuple[float, float] = (0.25, 0.75)
    far: float = 1.0


def reach(slot: Slot) -> float:
    """How far (mm) folded cloth lies to a side of its slash."""
    return slot.by / (4.0 if slot.lies is Lies.MEET else 2.0)


def edge_place(spot: Spot, piece: Piece, context: Context) -> tuple[str, float]:
    """The edge of a spot and how far (mm) along it the spot lies, mouths skipped. Raises PlaceError. At a corner it is on the
    edge that the spot names."""
    pivot = piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")
    place = resolve(spot, piece, context.block.drafted(piece), context.scope, pivot)
    edge = piece.runs[place.run].edge
    if spot.edge is not None and edge != spot.edge and places.is_joint(piece, place) and spot.edge in dict(piece.roles):
        after = piece.runs[piece.after(place.run)]
        if after.edge == spot.edge:
            return spot.edge, 0.0
    return edge, places.sewn_distance(piece, place)


def heads_on(piece: Piece, edge: str, heading: Heading) -> bool:
    """Whether one goes on clockwise round the piece along an edge when one goes this way."""
    runs = piece.edge(edge).runs
    start, stop = runs[0].path.start, runs[-1].path.end
    if heading in ("up", "down"):
        return bool((stop[1] > start[1]) == (heading == "down"))
    on, along = _centre(piece)
    away = [abs(float(along[0] * (end - on)[1] - along[1] * (end - on)[0])) for end in (start, stop)]
    return (away[1] > away[0]) == (heading == "side")


def headings(piece: Piece, edge: str) -> tuple[Heading, Heading]:
    """The two ways along an edge, in words: towards the centre or the side, on one that runs up and down up or down."""
    return ("centre", "side") if _is_level(piece, edge) else ("up", "down")


def _centre(piece: Piece) -> tuple[Vector, Vector]:
    """A point of the centre and the way along it; of a panel without one its left, where the
    centre of fronts and backs is drawn, and straight up."""
    runs = [run.path for run in piece.runs if piece.role(run.edge) == "centre"]
    if not runs:
        return np.array([min(float(run.path.start[0]) for run in piece.runs), 0.0]), np.array([0.0, -1.0])
    longest = max(runs, key=lambda path: path.length)
    return longest.start, longest.end_direction


def _is_level(piece: Piece, edge: str) -> bool:
    """Whether an edge runs across the piece rather than up and down it."""
    if piece.role(edge) in ("neckline", "shoulder"):
        return True
    runs = piece.edge(edge).runs
    chord = unit(runs[-1].path.end - runs[0].path.start)
    _on, along = _centre(piece)
    return abs(float(chord @ along)) < math.sqrt(0.5)


def let_in(
    pattern: Pattern, piece: Piece, edge: str, slots: Sequence[Slot], across: Across, full: Fullness, held: Held
) -> tuple[Piece, LaidOpen]:
    """The piece with fullness let in at slots of an edge, in their order along it, and how it lies on the paper. `held` tells
    of the edges at the far end whether it is taken up there.

    Raises StepError where a slash would lie over a dart, leaves the piece, or folds reach past the end of the edge.
    """
    for number, slot in enumerate(slots, start=1):
        near, far = slot.at - reach(slot), slot.at + reach(slot)
        over = next((what for low, high, what in covered(piece, edge) if low < far and near < high), None)
        if over is not None and full.taking is not Taking.GATHERS:
            said = f"{full.taking.value.removesuffix('s')} {number} would lie over the {over} on the {words(edge)}"
            raise StepError(said, where=piece.name, advice="Begin elsewhere, or make them less deep.")
    lines = [_line(piece, edge, slot, number, len(slots), across, full) for number, slot in enumerate(slots)]
    there = dict.fromkeys(piece.runs[places.by_origin(piece, line.stop).run].edge for line in lines)
    named = replace(full, id=_own_id(pattern, piece, full.taking.value), lines=tuple(lines), held=(True, held(tuple(there))))
    made = replace(piece, fullness=(*piece.fullness, named))
    paper, laid = laid_open(made)
    if crosses_itself(paper):
        what = f"with {full.taking.value} there the outline would cross itself: the far edge runs along the slashes"
        raise StepError(what, where=piece.name, advice="Leave 0% at the far end, or lead them to another edge.")
    return made, laid[-1]


def _own_id(pattern: Pattern, piece: Piece, taking: str) -> str:
    taken = {full.id for other in pattern.pieces for full in other.fullness}
    names = (f"{piece.name}.{taking}{number or ''}" for number in range(len(taken) + 1))
    return next(name for name in names if name not in taken)


def _line(piece: Piece, edge: str, slot: Slot, number: int, count: int, across: Across, full: Fullness) -> LetLine:
    total = piece.edge(edge).sewn_length
    at = min(max(slot.at, 0.0), total)
    begin = places.along(piece, edge, at)
    called = f"{full.taking.value.removesuffix('s')} {number + 1}"
    if slot.at_fold:
        runs = piece.edge(piece.fold or "").runs
        ends = [places.settled(piece, piece.runs.index(runs[0]), 0.0)]
        ends.append(places.settled(piece, piece.runs.index(runs[-1]), runs[-1].path.length))
        here = places.point(piece, begin)
        far = max(ends, key=lambda end: math.dist(places.point(piece, end), here))
        return LetLine(anchor(piece, begin), anchor(piece, far), (slot.by, slot.by * across.far), Lies.MEET, at_fold=True)
    dart = places.mouth_at(piece, begin)
    if dart is not None:
        raise _over(piece, called, dart)
    leads = slot.leads if slot.leads is not None else number / (count - 1) if count > 1 else 0.5
    end = _far(piece, begin, edge, leads, across)
    if isinstance(end, str):
        raise _over(piece, called, end)
    fault = None if end is None else slash_fault(piece, places.point(piece, begin), places.point(piece, end))
    if end is None or fault is not None:
        barred = end is not None and _barring(piece, begin, end)
        if barred:
            raise _over(piece, called, barred)
        what = f"the slash of {called} has no clear way across the {words(piece.name)}"
        raise StepError(what, where=piece.name, advice="Begin elsewhere, or lead it to a place of another edge.")
    return LetLine(anchor(piece, begin), anchor(piece, end), (slot.by, slot.by * across.far), slot.lies)


def covered(piece: Piece, edge: str) -> list[tuple[float, float, str]]:
    """The stretches of an edge (mm) that gathers, pleats and tucks lie on already, and what they are."""
    found: list[tuple[float, float, str]] = []
    for full in piece.fullness:
        ends = [(at, by, line.lies) for line in full.lines for at, by in zip((line.start, line.stop), line.by, strict=True)]
        for at, by, lies in ends:
            with suppress(PlaceError):
                place = places.by_origin(piece, at)
                if piece.runs[place.run].edge == edge and by > 0.0:
                    middle, beside = places.sewn_distance(piece, place), reach(Slot(0.0, by, lies))
                    found.append((middle - beside, middle + beside, full.taking.value))
    return found


def _over(piece: Piece, called: str, dart: str) -> StepError:
    what = f"{called} would lie over the {dart_words(piece, dart)} dart"
    return StepError(what, where=piece.name, advice="Move that dart away first, or begin elsewhere.")


def _barring(piece: Piece, begin: Place, end: Place) -> str | None:
    start, stop = places.point(piece, begin), places.point(piece, end)
    for dart in piece.darts:
        if crosses(replace(piece, darts=(dart,), fisheyes=()), start, stop) == f"the dart {dart.id!r}":
            return dart.id
    return None


def _far(piece: Piece, begin: Place, edge: str, leads: float, across: Across) -> Place | str | None:
    """Where a slash ends: a place, or the dart whose mouth it would leave by, or nothing."""
    if across.to is not None:
        # Both edges are walked the same way round, so the places are counted from the other end.
        low, high = across.stretch
        share = low + (high - low) * leads
        there = piece.edge(across.to).sewn_length * (1.0 - share)
        end = places.along(piece, across.to, there)
        return places.mouth_at(piece, end) or end
    on = places.point(piece, begin)
    way = way_across(piece, edge, begin)
    hit = first_hit(piece, on + way * INWARDS, way)
    if hit is None:
        start = on + way * INWARDS
        for dart in piece.darts:
            sides = [float(way[0] * (tip - start)[1] - way[1] * (tip - start)[0]) for tip in piece.mouth(dart.id)]
            if sides[0] * sides[1] <= 0.0:
                return dart.id
        return None
    if math.dist(places.point(piece, hit), on) < LEAST_LONG:
        return None
    return places.mouth_at(piece, hit) or hit


def way_across(piece: Piece, edge: str, begin: Place) -> Vector:
    """The way straight across a piece from a point of an edge: along the centre from one that runs across the piece, square to
    it from one that runs up and down; into the piece."""
    _on, along = _centre(piece)
    way = along if _is_level(piece, edge) else np.array([along[1], -along[0]])
    run = piece.runs[begin.run]
    forward = run.path.direction_at(begin.at)
    if run.edge != edge:
        forward = piece.runs[piece.after(begin.run)].path.start_direction
    inwards = np.array([-forward[1], forward[0]])
    return way if float(way @ inwards) > 0.0 else -way


def clear_share(piece: Piece, edge: str, at: float, across: Across, leads: float) -> bool:
    """Whether a slash at a distance (mm) along an edge passes every dart, and does not end on an edge that runs along it."""
    try:
        begin = places.along(piece, edge, at)
    except StepError:
        return False
    if places.mouth_at(piece, begin) is not None:
        return False
    end = _far(piece, begin, edge, leads, across)
    if end is None or isinstance(end, str) or (across.far > 0.0 and not _is_across(piece, begin, end)):
        return False
    return slash_fault(piece, places.point(piece, begin), places.point(piece, end)) is None


def _is_across(piece: Piece, begin: Place, end: Place) -> bool:
    """Whether the edge at the far end of a slash runs across it rather than along it."""
    way = unit(places.point(piece, end) - places.point(piece, begin))
    path = piece.runs[end.run].path
    return abs(float(way @ path.direction_at(end.at))) < ALONG


def notched(pattern: Pattern, piece: str, edge: str, distances: Sequence[float], name: str) -> Pattern:
    """The pattern with notches at distances (mm) along an edge and where they meet the edge that it is sewn to, as far as that
    is one; single of a front, double of a back on both sides of the seam."""
    ref, other = EdgeRef(piece, edge), partner(pattern, piece, edge)
    strokes = 2 if pattern.piece(piece).body is Body.BACK else 1
    made = pattern.with_piece(_with_notches(pattern.piece(piece), edge, distances, name, strokes))
    mate = None if other is None else other.only
    if mate is None or not pattern.has(mate.piece) or mate.piece == piece:
        return made
    long, there = pattern.edge_length(ref), pattern.edge_length(mate)
    turned = _against(pattern.piece(piece), edge, made.piece(mate.piece), mate.edge)
    shares = [(long - at if turned else at) * there / long for at in distances]
    return made.with_piece(_with_notches(made.piece(mate.piece), mate.edge, shares, name, strokes))


def _against(one: Piece, edge: str, two: Piece, other: str) -> bool:
    """Whether two partner edges are walked against each other. Both sides of one cut tell by their provenance, wherever they
    were turned over since; other partners begin at the same landmark."""
    if one.role(edge) != STYLE_LINE:
        return False
    first, second = (piece.edge(id).runs for piece, id in ((one, edge), (two, other)))
    return (first[-1].source.u1 > first[0].source.u0) != (second[-1].source.u1 > second[0].source.u0)


def _with_notches(piece: Piece, edge: str, distances: Sequence[float], name: str, strokes: int) -> Piece:
    total = piece.edge(edge).sewn_length
    made = []
    for number, at in enumerate(distances):
        if 1.0 < at < total - 1.0:  # a notch at the very end of a seam marks nothing
            origin = places.origin_of(piece, places.along(piece, edge, at))
            made.append(Notch(f"{name}.{number}", f"{name} {number + 1}", origin, strokes))
    known = {mark.id for mark in made}
    return replace(piece, notches=(*(mark for mark in piece.notches if mark.id not in known), *made))


def partner(pattern: Pattern, piece: str, edge: str) -> SeamSide | None:
    """What an edge is sewn to, as far as a seam has it alone on one side."""
    ref = EdgeRef(piece, edge)
    for seam in pattern.seams:
        for mine, mate in ((seam.a, seam.b), (seam.b, seam.a)):
            if mine.only == ref:
                return mate
    return None
