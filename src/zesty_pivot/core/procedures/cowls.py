"""A cowl drawn: the part of a half above a slash is swung outwards until its upper edge, straight and square to the centre, is
as long as the folds need; what the darts give is taken first."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError, PlaceError, StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.root import root
from zesty_pivot.core.moves.neckline import neck_source
from zesty_pivot.core.moves.spread import wedge
from zesty_pivot.core.piece import Edge, Hang, LetIn, Origin, Pattern, Piece, Run, Source, Use, called, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.piece.region import slash_fault
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.procedures.bodice_halves import half_of
from zesty_pivot.core.procedures.clearing import cleared
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

FED = "cowl"  # what the darts that go into it are called while they do
FARTHEST = math.radians(75.0)  # that the part above is swung: further it would lie over itself. Our own choice
ABOVE_DART = 3.0  # mm above the fed dart's mouth that the slash begins
ON_SHOULDER = 15.0  # mm of the shoulder that is left at least. Common practice, no source


@record
class Worn:
    """How a cowl is worn: the shoulder point's place (on the cloth), how far from the centre it is (mm), and its height (y)."""

    origin: Origin
    open_mm: float
    y: float


@record
class DrawnCowl:
    """The half with its cowl edge, what there is to say, the angles (radians) that the darts and the slash gave, the height on
    the centre (mm from its lower end) below which nothing was changed, half the edge (mm), and the darts that went into it, as
    they are called, with the shares that did."""

    pattern: Pattern
    notes: tuple[Note, ...]
    dart_angle: float
    slash_angle: float
    below_mm: float
    long_mm: float
    fed: tuple[tuple[str, float], ...]


def worn_half(pattern: Pattern, name: str, context: Context) -> BodiceHalf:
    """The half as it is worn, its upper darts closed. Raises StepError for what cannot have a cowl."""
    piece = pattern.piece(name)
    roles = [role for _edge, role in piece.roles]
    if piece.is_unfolded or any(roles.count(role) != 1 for role in ("neckline", "shoulder", "centre", "armhole")):
        what = f"the {words(name)} is not a half with centre, neckline, shoulder and armhole"
        raise StepError(what, where=name, advice="Make the cowl before the line that cut it.")
    if not lies_on_fold(piece):
        what = f"the centre of the {words(name)} is not one straight line on the fold"
        raise StepError(what, where=name, advice="Move a dart away from it, or make the cowl before it is shaped.")
    made = cleared(pattern, name, context)
    whole = made.pattern.piece(name)
    return half_of(whole, context.block.drafted(whole), context.scope.unit)


def worn_at(half: BodiceHalf, widen: float, piece: Piece, context: Context) -> Worn:
    """The shoulder point `widen` mm out from the neck point. Raises StepError where too little of the shoulder is left."""
    unit_ = context.scope.unit
    if not 0.0 <= widen <= half.shoulder.length - ON_SHOULDER:
        most = format_length(half.shoulder.length - ON_SHOULDER, unit_)
        what = f"a neck {format_length(widen, unit_)} wider on the shoulder"
        raise StepError(what, where=piece.name, advice=f"Enter 0 to {most}.")
    point = half.shoulder.point_at(widen)
    edge = next(edge for edge, role in piece.roles if role == "shoulder")
    origin = places.origin_of(piece, places.along(piece, edge, max(widen, 1e-3)))
    return Worn(origin, _off(half.piece, point), float(point[1]))


def centre_of(piece: Piece) -> tuple[Vector, Vector]:
    """The lower end of the centre, and the way up along its lowest stretch."""
    first = piece.edge(piece.fold or "centre").runs[0].path
    return first.start, unit(first.end - first.start)


def _off(piece: Piece, point: Vector) -> float:
    """How far a point is from the centre line, mm."""
    on, up = centre_of(piece)
    gap = point - on
    return abs(float(up[0] * gap[1] - up[1] * gap[0]))


def feeding(piece: Piece, half: BodiceHalf, worn: Worn, wanted: str) -> tuple[list[str], list[str]]:
    """The darts that must go into the cowl, as they open in what it takes, and those that may, the upper ones first."""
    must, may = [], []
    neck_to = half.shoulder.length - half.shoulder.along(worn.open_mm) if worn.open_mm else 0.0
    for dart in piece.darts:
        role = piece.role(piece.dart_edge(dart.id))
        if dart.use is not Use.DART:
            continue
        if role in ("neckline", "centre") or (role == "shoulder" and _beyond(piece, dart.id) >= neck_to - 1.0):
            must.append(dart.id)
        else:
            may.append(dart.id)
    order = {"shoulder": 0, "armhole": 1}
    may.sort(key=lambda id: order.get(piece.role(piece.dart_edge(id)), 2))
    if wanted == "none":
        may = []
    elif wanted == "upper":
        may = [id for id in may if piece.role(piece.dart_edge(id)) in order]
    return must, may


def _beyond(piece: Piece, dart: str) -> float:
    """How much of the shoulder (mm) lies beyond a dart's mouth."""
    at = piece.mouth_run(dart)
    return sum(run.path.length for run in piece.runs[at + 1 :] if piece.role(run.edge) == "shoulder")


def drawn_cowl(
    pattern: Pattern, name: str, worn: Worn, long: float | None, darts: tuple[list[str], list[str]], context: Context,
    spread: float | None = None,
) -> DrawnCowl:  # fmt: skip
    """The half with an edge `long` mm from the centre to the shoulder point, or with a slash that is `spread` mm open at the
    centre. Raises StepError, with what works, where it cannot be so, or would be longer with the darts that must go into it."""
    notes: list[Note] = []
    must, may = darts
    fed: list[LetIn] = []
    shares: list[tuple[str, float]] = []
    for dart in (*must, *may):
        share = 1.0 if dart in must or long is None else _share(pattern.piece(name), dart, worn, long)
        if share > 1e-9:
            pattern, entry = fed_at_centre(pattern, name, dart, share, context)
            fed.append(entry)
            shares.append((entry.called, share))
    piece = pattern.piece(name)
    now = _reached(piece, worn)
    unit_ = context.scope.unit
    if long is not None and now > long + 1e-6:
        least = math.sqrt(max(now**2 - worn.open_mm**2, 0.0))
        what = f"the darts at the neckline give an edge of {format_length(now, unit_)} already"
        raise StepError(what, where=name, advice=f"Let it hang {format_length(least, unit_)} or more, or move a dart away.")
    angle = 0.0
    if long is None or now < long - 1e-7:
        piece, angle = _swung(piece, worn, long, spread or 0.0, context)
    for entry in fed:
        degrees = math.degrees(entry.angle)
        notes.append(Note(f"{degrees:.1f}° of the {entry.called} dart go into the cowl", name))
    if angle > 0.0:
        notes.append(Note(f"the part above the slash is swung by {math.degrees(angle):.1f}°", name))
    made, below = _squared(piece, worn, name)
    made = replace(made, let_in=(*made.let_in, *fed))
    total = sum(entry.angle for entry in fed)
    return DrawnCowl(pattern.with_piece(made), tuple(notes), total, angle, below, _reached(made, worn), tuple(shares))


def _reached(piece: Piece, worn: Worn) -> float:
    """How far the shoulder point is from the centre now, mm."""
    return _off(piece, places.point(piece, places.by_origin(piece, worn.origin)))


def _share(piece: Piece, dart: str, worn: Worn, long: float) -> float:
    """How much of a dart the edge needs: the shoulder point turns about its pivot."""
    pin, angle = piece.pivot(piece.dart(dart).pivot), piece.angle(dart)
    at = places.point(piece, places.by_origin(piece, worn.origin))

    def off(share: float) -> float:
        return _off(piece, Motion.turn(pin, angle * share)(at)) - long

    if angle < 1e-9 or off(0.0) >= 0.0:
        return 0.0
    return 1.0 if off(1.0) <= 0.0 else root(off, 0.0, 1.0)


def fed_at_centre(pattern: Pattern, name: str, dart: str, share: float, context: Context) -> tuple[Pattern, LetIn]:
    """The pattern with a share of a dart open at the centre, level with its pivot."""
    piece = pattern.piece(name)
    held, what = piece.dart(dart), called(piece, dart)
    angle = piece.angle(dart) * share
    on, up = centre_of(piece)
    edge = piece.edge(piece.fold or "centre")
    level = float((piece.pivot(held.pivot) - on) @ up)
    first = edge.runs[0].path.length  # below a mouth that is there already
    at = next(
        (first for d in piece.darts if d.group == FED and d.pivot == held.pivot), min(max(level, 5.0), edge.sewn_length - 5.0)
    )
    spot = Spot(edge=edge.id, at=f"{at!r} mm")
    try:
        made = move_dart(DartMove(name, dart, spot, share), pattern, context).pattern
    except (GeometryError, PlaceError, StepError) as fault:
        said = f"the {dart_words(piece, dart)} dart cannot go into the cowl: {fault.what}"
        raise StepError(said, where=name, advice="Move it elsewhere first, or leave it out of the cowl.") from fault
    new = _laid_back(made.piece(name), piece)
    (host,) = [d.id for d in new.darts if new.role(new.dart_edge(d.id)) == "centre" and d.pivot == held.pivot]
    marked = replace(new, darts=tuple(replace(d, group=FED) if d.id == host else d for d in new.darts))
    return made.with_piece(marked), LetIn(dart, held.pivot, angle, Use.DRAPE, what)


def _laid_back(piece: Piece, before: Piece) -> Piece:
    """A piece whose upper part has stayed, as the centre is longer there, laid so that its lower part lies as it did before."""
    now, was = (centre_of(one) for one in (piece, before))
    motion = Motion.lay((now[0], now[0] + now[1]), (was[0], was[0] + was[1]))

    def at(point: tuple[float, float]) -> tuple[float, float]:
        x, y = motion(np.array(point))
        return float(x), float(y)

    return replace(
        piece,
        runs=tuple(replace(run, path=run.path.moved(motion)) for run in piece.runs),
        landmarks={name: at(point) for name, point in piece.landmarks.items()},
        fisheyes=tuple(eye.moved(motion) for eye in piece.fisheyes),
    )


def _swung(piece: Piece, worn: Worn, long: float | None, spread: float, context: Context) -> tuple[Piece, float]:
    """The part above a slash from the centre to the middle of the armhole, swung until the edge is so long, or the slash so far
    open."""
    edge = piece.edge(piece.fold or "centre")
    arm = next(id for id, role in piece.roles if role == "armhole")
    hinge = places.along(piece, arm, piece.edge(arm).sewn_length * 0.5)
    opening = _opening(piece, edge, places.point(piece, hinge), context)
    pin, at = places.point(piece, hinge), places.point(piece, places.by_origin(piece, worn.origin))

    def off(angle: float) -> float:
        return _off(piece, Motion.turn(pin, angle)(at)) - (long or 0.0)

    unit_ = context.scope.unit
    if long is None:
        reach = math.dist(places.point(piece, opening), pin)
        most = 2.0 * reach * math.sin(FARTHEST / 2.0)
        if not 0.0 < spread <= most:
            what = f"a slash of {format_length(reach, unit_)} opened by {format_length(spread, unit_)}"
            raise StepError(what, where=piece.name, advice=f"Enter more than 0, up to {format_length(most, unit_)}.")
        angle = 2.0 * math.asin(spread / (2.0 * reach))
    elif off(FARTHEST) < 0.0:
        most = off(FARTHEST) + long
        deep = format_length(math.floor(math.sqrt(max(most**2 - worn.open_mm**2, 0.0))), unit_)
        what = f"an edge of {format_length(long, unit_)} would fold the {words(piece.name)} over itself"
        raise StepError(what, where=piece.name, advice=f"Let it hang {deep} at most, or let more of the darts go into it.")
    else:
        angle = root(off, 0.0, FARTHEST)
    try:
        return _laid_back(wedge(piece, opening, hinge, angle), piece), angle
    except GeometryError as fault:
        what = f"the slash of the cowl has no clear way: {fault.what}"
        raise StepError(what, where=piece.name, advice="Let the upper darts go into it, or move them away.") from fault


def _opening(piece: Piece, edge: Edge, pin: Vector, context: Context) -> places.Place:
    """Where the slash begins on the centre: just above what the darts opened there, else at the bust line, else at the chest
    line; the first with a clear way to the armhole, and the first of all where none has."""
    on, up = centre_of(piece)
    levels, ends = context.block.drafted(piece).levels, np.cumsum([run.path.length for run in edge.runs]).tolist()
    mouths = [end for end, run in zip(ends[:-1], edge.runs, strict=False) if run.mouth is not None]
    tried = [mouths[-1] + ABOVE_DART] if mouths else []
    tried += [float(np.array([on[0], levels[name]]) @ up - on @ up) for name in ("bust", "chest") if name in levels]
    tried += [ends[-1] * share for share in (0.6, 0.45, 0.3)]
    spots = [places.along(piece, edge.id, min(max(at, 5.0), ends[-1] - 5.0)) for at in tried]
    clear = (spot for spot in spots if slash_fault(piece, places.point(piece, spot), pin) is None)
    return next(clear, spots[0])


def _squared(piece: Piece, worn: Worn, name: str) -> tuple[Piece, float]:
    """The half with the edge straight and square to the centre from the shoulder point, and how much of the centre (mm) below
    was not changed."""
    centre = piece.fold or "centre"
    on, up = centre_of(piece)
    at = places.by_origin(piece, worn.origin)
    point = places.point(piece, at)
    runs = list(piece.runs)
    cut = runs[at.run]
    rest: list[Run] = []
    if at.at < cut.path.length - 1e-6:
        path = cut.path.split_at(at.at)[1] if at.at > 1e-6 else cut.path
        rest = [replace(cut, path=path, source=cut.source.parted(at.at / cut.path.length)[1])]
    top = on + up * float((point - on) @ up)
    kept = [run for run in runs[at.run + 1 :] if run.edge != centre]
    lower = [run for run in runs if run.edge == centre]
    whole = next((k for k, run in enumerate(lower) if run.mouth is not None or _is_off(run, on, up)), len(lower) - 1)
    below = lower[: whole + 1]
    if _is_off(below[-1], on, up):
        below = below[:-1]
    end = below[-1].path.end
    straight = Path.straight(end, top)
    below = [*below[:-1], replace(below[-1], mouth=None)]
    if float((top - end) @ up) <= 1.0:
        raise StepError("the edge would lie below its slash", where=name, advice="Let it hang less deep.")
    source = piece.of or name
    edge = next(id for id, role in piece.roles if role == "neckline")
    ring = [
        Run(edge, Path.straight(top, point), neck_source(piece, "cowl", pointed=False)), *rest, *kept, *below,
        Run(centre, straight, Source(f"{source}.centre.cowl", 0.0, 1.0)),
    ]  # fmt: skip
    made = tuple(run for run in ring if run.path.length > 1e-6)
    gone = {dart.id for dart in piece.darts} - {run.mouth for run in made if run.mouth}
    darts = tuple(dart for dart in piece.darts if dart.id not in gone)
    notches = tuple(mark for mark in piece.notches if mark.id != "slit.end")
    below_mm = sum(run.path.length for run in below)
    return replace(piece, runs=well_begun(made, dict(piece.roles)), darts=darts, notches=notches), below_mm


def _is_off(run: Run, on: Vector, up: Vector) -> bool:
    """Whether a stretch of the centre has been swung off its line."""
    gap = run.path.end - on
    return abs(float(up[0] * gap[1] - up[1] * gap[0])) > 1e-3


def hangs(half: BodiceHalf, piece: Piece, worn: Worn, long: float, anchors: Sequence[float]) -> tuple[Hang, ...]:
    """The folds: the edge itself, and one at each of some places of the shoulder (mm from the shoulder point)."""
    found = [Hang(worn.open_mm, long)]
    edge = next(id for id, role in piece.roles if role == "shoulder")
    start = half.shoulder.along(worn.open_mm) if worn.open_mm > half.shoulder.start[0] else 0.0
    for anchor in anchors:
        on_paper = places.point(piece, places.along(piece, edge, anchor))
        on_body = half.shoulder.point_at(start + anchor)
        found.append(Hang(_off(half.piece, on_body), _off(piece, on_paper), float(on_body[1]) - worn.y))
    return tuple(found)
