"""A drape: darts led to a stretch of a seam and slashes that begin there, in the order in which their folds lie."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from typing import Literal

import numpy as np
import shapely

from zesty_pivot.core.errors import GeometryError, StepError, ZestyError
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.moves.let_lines import anchor
from zesty_pivot.core.moves.turned_back import turned_out
from zesty_pivot.core.piece import Fullness, Hold, LetLine, Lies, Notch, Pattern, Piece, Place, Taking, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import FOLD, words
from zesty_pivot.core.piece.region import crosses_itself, slash_fault
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.record import record, replace

TakenUp = Literal["pleats", "tucks", "gathers"]

USES: dict[str, Use] = {"pleats": Use.PLEAT, "tucks": Use.TUCK, "gathers": Use.GATHERS}
TAKINGS: dict[str, Taking] = {"pleats": Taking.PLEATS, "tucks": Taking.TUCKS, "gathers": Taking.GATHERS}
STYLES = {"pleats": "draped pleat", "tucks": "draped tuck", "gathers": "gathers"}

MOST_TRIED = 48  # ways in which darts and slashes are laid out before it is given up
SAMPLES = 24  # places of a far edge that are tried for a slash
FAN = 0.7  # radians to both sides that the outermost slashes lead. Our own choice
SLANT = 1.5  # times its depth that the cloth of a slash lies along the seam that it meets at a slant. Our own choice
CLEAR = 1.5  # mm between a fold and its neighbour. Our own choice
LEAST_LONG = 50.0  # mm that a slash is long at least: less is a corner of the piece. Our own choice


@record
class Drape:
    """What a drape is made of: the edge, the stretch of it that the folds lie on (mm), the darts led there and the slashes with
    what each is opened by (mm); where those lead (an edge with shares of it, or any across the piece), how all are taken up,
    which way folds point, and how far tucks are stitched (mm). `order` are darts by their ids and slashes by their numbers
    (from 1) along the seam, where it is to be that."""

    on: str
    edge: str
    stretch: tuple[float, float]
    darts: tuple[str, ...]
    slashes: tuple[float, ...]
    to: str | None
    across: tuple[float, float]
    taken: TakenUp
    lies: Lies
    stitched: float
    order: tuple[str, ...] = ()


@record
class Fold:
    """One fold in the order along the seam: a dart, or a slash by its number (from 0) and the edge where it hinges; and how far
    along (mm) it lies."""

    at: float
    dart: str | None = None
    slash: int = -1
    hinge: str = ""


def draped(pattern: Pattern, drape: Drape, context: Context, *, may_leave: bool = False) -> tuple[Pattern, tuple[Fold, ...]]:
    """The pattern with the drape, and its folds in order along the seam. Where it `may_leave` darts that cannot be led there,
    or that do not fold side by side, as few as need be are left. Raises StepError, with what works, where lines would cross or
    cloth would lie over itself."""
    fault: ZestyError | None = None
    sizes = range(len(drape.darts), -1, -1) if may_leave else (len(drape.darts),)
    for darts in (darts for size in sizes for darts in itertools.combinations(drape.darts, size)):
        if not darts and not drape.slashes:
            continue
        wanted = replace(drape, darts=darts)
        if may_leave and darts and not _has_room(pattern.piece(drape.on), wanted):
            continue
        for tried, folds in enumerate(_plans(pattern.piece(drape.on), wanted)):
            if tried >= MOST_TRIED:
                break
            try:
                return _let_in(_led(pattern, wanted, folds, context), wanted, folds)
            except ZestyError as found:
                fault = fault or found
    assert fault is not None
    raise fault


def _has_room(piece: Piece, drape: Drape) -> bool:
    """Whether all folds lie side by side on the stretch, or nearly; gathers always do."""
    low, high = drape.stretch
    on = places.point(piece, places.along(piece, drape.edge, (low + high) / 2.0))
    folds = [*(Fold(0.0, dart) for dart in drape.darts), *(Fold(0.0, None, k) for k in range(len(drape.slashes)))]
    return drape.taken == "gathers" or sum(_depth(piece, drape, fold, on) for fold in folds) <= 1.2 * (high - low)


def _plans(piece: Piece, drape: Drape) -> Iterator[tuple[Fold, ...]]:
    """The orders in which folds can lie, the most even first: darts by the direction that their pivots are in, those of one
    pivot together, slashes before, between and behind them."""
    low, high = drape.stretch
    middle = places.along(piece, drape.edge, (low + high) / 2.0)
    on, along = places.point(piece, middle), piece.runs[middle.run].path.direction_at(middle.at)
    if drape.order:
        asked = [Fold(0.0, None, int(name) - 1) if name.isdigit() else Fold(0.0, name) for name in drape.order]
        yield _placed(piece, drape, asked, on)
        return
    groups: dict[str, list[Fold]] = {}
    for dart in drape.darts:
        groups.setdefault(piece.dart(dart).pivot, []).append(Fold(0.0, dart))
    order = sorted(groups, key=lambda pivot: _leads(piece.pivot(pivot) - on, along))
    count, gaps = len(drape.slashes), len(groups) + 1
    shares = [cut for cut in itertools.product(range(count + 1), repeat=gaps) if sum(cut) == count]
    shares.sort(key=lambda cut: max(cut) - min(cut))
    for cut in shares:
        slashes = iter(Fold(0.0, None, number) for number in range(count))
        folds: list[Fold] = []
        for gap, number in enumerate(cut):
            folds += itertools.islice(slashes, number)
            folds += groups[order[gap]] if gap < len(order) else []
        yield _placed(piece, drape, folds, on)


def _leads(way: Vector, along: Vector) -> float:
    """The angle (radians) between the way straight into the piece from an edge and a direction; positive onwards along it."""
    inwards = np.array([-along[1], along[0]])
    return math.atan2(float(way @ along), float(way @ inwards))


def _placed(piece: Piece, drape: Drape, folds: Sequence[Fold], on: Vector) -> tuple[Fold, ...]:
    """Folds at their places. A slash's cloth lies on the side that its fold points away from: it has room for that as far as
    there is any; darts share what is left by their depth, and may lie over each other."""
    low, high = drape.stretch
    deep = [_depth(piece, drape, fold, on) + (CLEAR if fold.dart is None else 0.0) for fold in folds]
    slashes, darts = (
        sum(mm for mm, fold in zip(deep, folds, strict=True) if (fold.dart is None) is its) for its in (True, False)
    )
    room = high - low
    if darts == 0.0 or slashes + darts <= room:
        share = (room / (slashes + darts),) * 2
    else:
        kept = min(slashes, 0.8 * room)
        share = (kept / slashes if slashes else 1.0, (room - kept) / darts)
    cells = [mm * share[0 if fold.dart is None else 1] for mm, fold in zip(deep, folds, strict=True)]
    ends = low + np.cumsum([0.0, *cells])
    at = ends[1:] if drape.lies is Lies.AFTER else ends[:-1]
    if drape.taken == "gathers":
        at = (ends[1:] + ends[:-1]) / 2.0
    return tuple(replace(fold, at=float(there)) for fold, there in zip(folds, at, strict=True))


def _depth(piece: Piece, drape: Drape, fold: Fold, on: Vector) -> float:
    """How deep (mm) a fold will be, about: of a dart half of its opening so far from its pivot."""
    if fold.dart is None:
        return drape.slashes[fold.slash] / 2.0 * SLANT
    pin = piece.pivot(piece.dart(fold.dart).pivot)
    return max(math.dist(pin, on) * math.sin(piece.angle(fold.dart) / 2.0), 2.0)


def _led(pattern: Pattern, drape: Drape, folds: Sequence[Fold], context: Context) -> Pattern:
    """The pattern with the darts at their places on the seam: one after the other, from either end."""
    order = [fold for fold in folds if fold.dart is not None]
    fault: ZestyError | None = None
    made = pattern
    for way in (order, order[::-1]):
        try:
            made = pattern
            for fold in way:
                spot = Spot(edge=drape.edge, at=f"{fold.at!r} mm")
                made = move_dart(DartMove(drape.on, fold.dart or "", spot), made, context).pattern
            break
        except ZestyError as found:
            what = f"the {dart_words(pattern.piece(drape.on), fold.dart or '')} dart cannot be led there: {found.what}"
            fault = StepError(what, where=drape.on, advice="Leave it out, or choose another stretch of the seam.")
    else:
        assert fault is not None
        raise fault
    piece = made.piece(drape.on)
    each = (drape.stretch[1] - drape.stretch[0]) / len(folds)
    hold = {
        "pleats": Hold(), "tucks": Hold(stitched_mm=drape.stitched), "gathers": Hold(each / 2.0, each / 2.0),
    }[drape.taken]  # fmt: skip
    darts = tuple(replace(d, use=USES[drape.taken], hold=hold) if d.id in drape.darts else d for d in piece.darts)
    return made.with_piece(replace(piece, darts=darts))


def _let_in(pattern: Pattern, drape: Drape, folds: Sequence[Fold]) -> tuple[Pattern, tuple[Fold, ...]]:
    """The pattern with the slashes opened and the folds numbered."""
    piece = pattern.piece(drape.on)
    found = {fold.slash: line for fold, line in _lines(piece, drape, [fold for fold in folds if fold.dart is None])}
    folds = tuple(replace(fold, hinge=found[fold.slash][1]) if fold.dart is None else fold for fold in folds)
    if found:
        lines = tuple(found[fold.slash][0] for fold in folds if fold.dart is None)
        taken = {full.id for other in pattern.pieces for full in other.fullness}
        names = (f"{piece.name}.drape{number or ''}" for number in range(len(taken) + 1))
        stitched = drape.stitched if drape.taken == "tucks" else 0.0
        full = Fullness(next(name for name in names if name not in taken), TAKINGS[drape.taken], lines,
                        style=STYLES[drape.taken], stitched_mm=stitched, treated=("soft",))  # fmt: skip
        if drape.taken == "gathers":
            ends = [places.origin_of(piece, places.along(piece, drape.edge, at)) for at in drape.stretch]
            full = replace(full, stretch=(ends[0], ends[1]))
        piece = replace(piece, fullness=(*piece.fullness, full))
        if crosses_itself(turned_out(laid_open(piece)[0])[0]):
            what = f"slashes opened so far fold the {words(piece.name)} over itself"
            raise StepError(what, where=piece.name, advice="Open them less, or take fewer of them.")
    marks = []
    for number, fold in enumerate(folds, start=1):
        origin = places.origin_of(piece, places.along(piece, drape.edge, fold.at))
        marks.append(Notch(f"{FOLD}{number}", f"fold {number}", origin))
    kept = tuple(mark for mark in piece.notches if not mark.id.startswith(FOLD))
    return pattern.with_piece(replace(piece, notches=(*kept, *marks))), folds


def _lines(piece: Piece, drape: Drape, folds: Sequence[Fold]) -> Iterator[tuple[Fold, tuple[LetLine, str]]]:
    """Each slash with the edge where it hinges: spread out as a fan, each by the clear way that is nearest to its own, none
    across another. Raises StepError where one has no clear way."""
    known: list[shapely.LineString] = []
    far = _far_places(piece, drape)
    for number, fold in enumerate(folds):
        begin = places.along(piece, drape.edge, fold.at)
        on, along = places.point(piece, begin), piece.runs[begin.run].path.direction_at(begin.at)
        wanted = FAN * (2.0 * (number + 0.5) / len(folds) - 1.0)
        spots = sorted(far, key=lambda place: abs(_leads(unit(places.point(piece, place) - on), along) - wanted))
        for place in spots:
            end = places.point(piece, place)
            line = shapely.LineString([on, end])
            if line.length < LEAST_LONG or any(line.intersects(other) for other in known):
                continue
            if places.mouth_at(piece, begin) is None and slash_fault(piece, on, end) is None:
                known.append(line)
                by = drape.slashes[fold.slash]
                made = LetLine(anchor(piece, begin), anchor(piece, place), (by, 0.0), drape.lies)
                yield fold, (made, piece.runs[place.run].edge)
                break
        else:
            what = f"slash {fold.slash + 1} has no clear way across the {words(piece.name)}"
            raise GeometryError(what, where=piece.name, advice="Leave a dart out, take fewer slashes, or begin elsewhere.")


def _far_places(piece: Piece, drape: Drape) -> list[Place]:
    """Places where slashes may hinge: of the edge that is asked for, else of any but the centre, those beside the seam
    and one that is folded back."""
    low, high = drape.across
    if drape.to is not None:
        long = piece.edge(drape.to).sewn_length
        ats = [(drape.to, long * (1.0 - share)) for share in np.linspace(low, high, SAMPLES)]
    else:
        own, role = piece.sides.of(drape.edge), piece.role(drape.edge)
        folded = {facing.edge for facing in piece.turned_back}  # a slash that hinges there would bend the fold
        ids = [
            id
            for id, its in piece.roles
            if its != "centre" and piece.sides.name(id) not in folded and not (its == role and piece.sides.of(id) is own)
        ]
        ats = [(id, piece.edge(id).sewn_length * float(share)) for id in ids for share in np.linspace(0.08, 0.92, SAMPLES)]
    return [place for id, at in ats if places.mouth_at(piece, place := places.along(piece, id, float(at))) is None]
