"""An edge flared: slashed at several places and spread there, the slashes hanging straight or radiating, past darts or fed by
them."""

from __future__ import annotations

import itertools
import math
from dataclasses import field
from functools import partial

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.spread import wedge
from zesty_pivot.core.piece import Pattern, Piece, Place, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import crosses, first_hit, slash_fault
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.clearing import first_way, station_of
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.procedures.legs import made_equal
from zesty_pivot.core.procedures.parking import bring_home, park
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

NUDGE = 2.0  # mm by which a slash is moved aside to find a clear way
ASIDE = 0.75  # of the way to the next slash that one may be moved aside
INWARDS = 0.01  # mm inside the edge from which a hanging slash is drawn up

# Where a dart in the way waits while the edge is slashed, the first that leaves all slashes clear.
WAITING = (
    "waist",
    "mid_shoulder",
    "mid_armhole",
    "mid_neck",
    "centre_neck",
    "side_bust",
    "french",
    "centre_bust",
    "centre_waist",
)


@record
class Flaring:
    """What is asked: the edge, the edge of the hinges (None: straight up, parallel to the centre), shares (0 to 1) of both
    edges for each slash, how far each opens (mm), and whether darts in the way are fed into the slashes."""

    on: str
    edge: str
    hinge: str | None
    shares: tuple[tuple[float, float], ...]
    by_mm: float
    feed: bool = False


@record
class FlareCut:
    """A slash on the piece before any is opened; `reach` is its length, `aside` how far it was moved to be clear, mm."""

    place: Place
    hinge: Place
    reach: float
    aside: float = 0.0

    def angle(self, by: float) -> float:
        """The angle (radians) at which it stands open by `by` mm: 2 asin(by / 2 reach)."""
        return 2.0 * math.asin(by / (2.0 * self.reach))


@record
class Slashed:
    """The pattern with darts put away as far as needed, the slashes on it (with the
    shares that they were asked at), and what was put away or fed."""

    pattern: Pattern
    slashes: tuple[FlareCut, ...]
    shares: tuple[tuple[float, float], ...]
    away: tuple[str, ...] = ()
    fed: tuple[DartMove, ...] = ()
    notes: tuple[Note, ...] = field(default=())


def flared(asked: Flaring, pattern: Pattern, context: Context) -> Outcome:
    """The pattern with the edge flared. Raises StepError or GeometryError where a slash has no clear way."""
    before = _open_length(pattern.piece(asked.on), asked.edge)
    ready = slashed(asked, pattern, context)
    piece = start = ready.pattern.piece(asked.on)
    for slash in ready.slashes:
        at, stop = (places.by_origin(piece, places.origin_of(start, spot)) for spot in (slash.place, slash.hinge))
        piece = wedge(piece, at, stop, slash.angle(asked.by_mm))
    made = Outcome(ready.pattern.with_piece(piece), ready.notes)
    if ready.away:
        made = made.then(bring_home(made.pattern, asked.on, ready.away, context))
    change = _open_length(made.pattern.piece(asked.on), asked.edge) - before
    stays = f"; the {words(asked.hinge)} stays" if asked.hinge is not None else ""
    text = f"the {words(asked.edge)} is {format_length(change, context.scope.unit)} longer{stays}"
    return Outcome(made.pattern, (*made.notes, Note(text, asked.on, change)))


def _open_length(piece: Piece, edge: str) -> float:
    """The length (mm) of an edge with what is left open as flare in it."""
    wide = (piece.intake(d.id) for d in piece.darts if d.use is Use.FLARE and piece.dart_edge(d.id) == edge)
    return piece.edge(edge).sewn_length + sum(wide)


def slashed(asked: Flaring, pattern: Pattern, context: Context) -> Slashed:
    """Where the slashes lie, darts in the way put away or fed. Raises StepError where one has no clear way."""
    if asked.by_mm <= 0.0:
        raise StepError("the slashes must open by more than 0", where=asked.on, advice="Enter an amount such as 3 cm.")
    if asked.edge == asked.hinge:
        raise StepError("the hinges lie on the edge that is flared", where=asked.on, advice="Choose another edge for them.")
    ready = _past_darts(asked, pattern, context) if not asked.feed else _feeding(asked, pattern, context)
    unit, total = context.scope.unit, ready.pattern.piece(asked.on).edge(asked.edge).sewn_length
    for slash in ready.slashes:
        if asked.by_mm > slash.reach:
            what = f"a slash of {format_length(slash.reach, unit)} cannot open by {format_length(asked.by_mm, unit)}"
            raise StepError(what, where=asked.on, advice="Spread less, or use more slashes.")
    starts = [share[0] * total + slash.aside for share, slash in zip(ready.shares, ready.slashes, strict=True)]
    if any(after - before < NUDGE for before, after in itertools.pairwise(starts)):
        what = "two slashes would have to pass the same dart"
        raise StepError(what, where=asked.on, advice="Use fewer, or begin and end them elsewhere.")
    moved = [
        f"slash {number} by {format_length(abs(slash.aside), unit, fine=True)}"
        for number, slash in enumerate(ready.slashes, start=1)
        if abs(slash.aside) > 0.0
    ]
    told = (Note(f"moved aside to have a clear way: {', '.join(moved)}", asked.on),) if moved else ()
    return replace(ready, notes=(*ready.notes, *told))


def _past_darts(asked: Flaring, pattern: Pattern, context: Context) -> Slashed:
    """The slashes with a clear way; a dart that bars one waits elsewhere, shut."""
    away: list[str] = []
    notes: tuple[Note, ...] = ()
    while True:
        piece = pattern.piece(asked.on)
        found = [_clear(asked, piece, share) for share in asked.shares]
        if all(slash is not None for slash in found):
            return Slashed(
                pattern, tuple(slash for slash in found if slash is not None), asked.shares, tuple(away), notes=notes
            )
        share = next(share for share, slash in zip(asked.shares, found, strict=True) if slash is None)
        dart = _in_the_way(asked, piece, share)
        if dart is None or dart in away:
            raise StepError(_why(asked, piece, share), where=asked.on, advice="Move the slashes, or use fewer.")
        named = dart_words(piece, dart)
        level, told = made_equal(piece, [dart], context.scope.unit)
        notes += told
        made = first_way(
            pattern.with_piece(level),
            asked.on,
            dart,
            [station_of(name) for name in WAITING],
            context,
            partial(_is_clear, asked, share),
            park,
        )
        if made is None:
            what = f"the {named} dart bars a slash and cannot wait elsewhere"
            raise StepError(what, where=asked.on, advice="Move it first, or let it feed the slashes.")
        pattern = made.pattern
        notes += (Note(f"the {named} dart was shut while the {words(asked.edge)} was slashed", asked.on),)
        away.append(dart)


def _feeding(asked: Flaring, pattern: Pattern, context: Context) -> Slashed:
    """The slashes that nothing bars, and for each that a dart bars as much of that dart let into the edge instead. A dart that
    has not enough for all the slashes it feeds is shared out among them."""
    first = pattern.piece(asked.on)
    total = first.edge(asked.edge).sewn_length
    barred = {share: _in_the_way(asked, first, share) for share in asked.shares if _clear(asked, first, share) is None}
    notes: tuple[Note, ...] = ()
    fed: list[DartMove] = []
    for dart in dict.fromkeys(dart for dart in barred.values() if dart is not None):
        named, pin, held = dart_words(first, dart), first.pivot(first.dart(dart).pivot), first.angle(dart)
        mine = [share for share, bar in barred.items() if bar == dart]
        reaches = [math.dist(places.point(first, places.along(first, asked.edge, share[0] * total)), pin) for share in mine]
        wanted = [2.0 * math.asin(min(1.0, asked.by_mm / (2.0 * reach))) for reach in reaches]
        given = min(1.0, held / sum(wanted))
        left = held
        for share, angle in zip(mine, wanted, strict=True):
            part = min(1.0, angle * given / left)
            move = DartMove(
                asked.on, dart, Spot(edge=asked.edge, at=f"{share[0] * total!r} mm"), 1.0 if part > 1.0 - 1e-9 else part
            )
            left -= angle * given
            pattern, note = _fed(asked, move, pattern, context)
            notes += (note,)
            fed.append(move)
        if given < 1.0:
            notes += (Note(f"the {named} dart has not more to give: its slashes open less than asked", asked.on),)
    piece = pattern.piece(asked.on)
    found: list[FlareCut] = []
    clear = tuple(share for share in asked.shares if barred.get(share) is None)
    for share in clear:
        slash = _clear(asked, piece, share)
        if slash is None:
            raise StepError(_why(asked, piece, share), where=asked.on, advice="Move the slashes, or use fewer.")
        found.append(slash)
    return Slashed(pattern, tuple(found), clear, (), tuple(fed), notes)


def _fed(asked: Flaring, move: DartMove, pattern: Pattern, context: Context) -> tuple[Pattern, Note]:
    """A share of a dart opened in the edge, and left open as flare."""
    before = pattern.piece(asked.on)
    named = dart_words(before, move.dart)
    pattern = move_dart(move, pattern, context).pattern
    piece = pattern.piece(asked.on)
    known = {dart.id for dart in before.darts}
    made = next((dart.id for dart in piece.darts if dart.id not in known), move.dart)
    darts = tuple(replace(dart, use=Use.FLARE) if dart.id == made else dart for dart in piece.darts)
    wide = format_length(piece.intake(made), context.scope.unit)
    whole = "the rest of the" if move.share >= 1.0 else "part of the"
    note = Note(f"{whole} {named} dart opens the {words(asked.edge)} by {wide}", asked.on)
    return pattern.with_piece(replace(piece, darts=darts)), note


def _clear(asked: Flaring, piece: Piece, share: tuple[float, float]) -> FlareCut | None:
    """The slash of a share of the edge, or the nearest one beside it with a clear way; None for none within ASIDE of the way to
    the next slash."""
    total = piece.edge(asked.edge).sewn_length
    known = sorted(one for one, _two in asked.shares)
    room = min((b - a for a, b in itertools.pairwise(known)), default=0.2) * total * ASIDE
    for steps in range(int(room / NUDGE) + 1):
        for aside in (steps * NUDGE, -steps * NUDGE) if steps else (0.0,):
            at = share[0] * total + aside
            if not 1.0 < at < total - 1.0:
                continue
            ends = _ends(asked, piece, at, share[1])
            if ends is not None and _fault(piece, *ends) is None:
                return FlareCut(*ends, math.dist(places.point(piece, ends[0]), places.point(piece, ends[1])), aside)
    return None


def _is_clear(asked: Flaring, share: tuple[float, float], piece: Piece) -> bool:
    return _clear(asked, piece, share) is not None


def _ends(asked: Flaring, piece: Piece, at: float, hinge_share: float) -> tuple[Place, Place] | None:
    """Where a slash begins and where its hinge is; None where a hanging one meets nothing above."""
    place = places.along(piece, asked.edge, at)
    if asked.hinge is not None:
        return place, places.along(piece, asked.hinge, hinge_share * piece.edge(asked.hinge).sewn_length)
    up = _upwards(piece)
    hit = first_hit(piece, places.point(piece, place) + up * INWARDS, up)
    return None if hit is None or piece.runs[hit.run].edge == asked.edge else (place, hit)


def _upwards(piece: Piece) -> np.ndarray:
    """The direction of the piece's own centre, upwards; of a piece without one the paper's."""
    centre = [run.path for run in piece.runs if piece.role(run.edge) == "centre"]
    if not centre:
        return np.array([0.0, -1.0])
    along = max(centre, key=lambda path: path.length).end_direction
    return along if along[1] < 0.0 else -along


def _fault(piece: Piece, place: Place, hinge: Place) -> str | None:
    if places.mouth_at(piece, place) or places.mouth_at(piece, hinge):
        return "a dart opens where the slash ends"
    if piece.runs[place.run].edge == piece.runs[hinge.run].edge:
        return "the hinge lies on the edge that is slashed"
    return slash_fault(piece, places.point(piece, place), places.point(piece, hinge))


def _why(asked: Flaring, piece: Piece, share: tuple[float, float]) -> str:
    ends = _ends(asked, piece, share[0] * piece.edge(asked.edge).sewn_length, share[1])
    return (None if ends is None else _fault(piece, *ends)) or "a slash has no clear way"


def _in_the_way(asked: Flaring, piece: Piece, share: tuple[float, float]) -> str | None:
    """The dart that bars a slash, the one met first from the edge; None where something else does."""
    ends = _ends(asked, piece, share[0] * piece.edge(asked.edge).sewn_length, share[1])
    if ends is None:  # it leaves the piece by a mouth
        start = places.point(piece, places.along(piece, asked.edge, share[0] * piece.edge(asked.edge).sewn_length))
        return next((dart.id for dart in piece.darts if _meets_mouth(piece, dart.id, start)), None)
    start, stop = (places.point(piece, end) for end in ends)
    bars = [
        dart.id
        for dart in piece.darts
        if crosses(replace(piece, darts=(dart,), fisheyes=()), start, stop) == f"the dart {dart.id!r}"
    ]
    bars += [
        dart.id for dart in piece.darts if asked.hinge is None and _meets_mouth(piece, dart.id, start) and dart.id not in bars
    ]
    opened = places.mouth_at(piece, ends[0]) or places.mouth_at(piece, ends[1])
    if opened is not None and opened not in bars:
        bars.append(opened)
    return min(
        bars,
        key=lambda id: math.dist(start, np.mean([*piece.mouth(id), piece.pivot(piece.dart(id).pivot)], axis=0)),
        default=None,
    )


def _meets_mouth(piece: Piece, dart: str, start: Vector) -> bool:
    """Whether the line straight up from a point of the edge goes through a dart's mouth."""
    up = _upwards(piece)
    sides = [float(up[0] * (end - start)[1] - up[1] * (end - start)[0]) for end in piece.mouth(dart)]
    above = min(float((end - start) @ up) for end in piece.mouth(dart)) > INWARDS
    return above and sides[0] * sides[1] <= 0.0
