"""A cowl that hangs from the shoulder under the arm: front and back in one piece at the side, cloth let in between their side
seams, the new edge straight from shoulder to shoulder and square to the line down to the lower end of the side."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from zesty_pivot.core.errors import GeometryError, PlaceError, StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.root import root
from zesty_pivot.core.moves.turned_back import COWL
from zesty_pivot.core.piece import EdgeRef, LetIn, Pattern, Piece, Run, Seam, SeamSide, Source, Use, called, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.procedures.side_seam import SIDE, sewn_at_the_side
from zesty_pivot.core.procedures.taping import taped
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

NAME = "front_and_back"  # what the one piece is called
ON_SHOULDER = 15.0  # mm of the shoulder that is left at least. Common practice, no source
WIDEST = math.radians(150.0)  # between the side seams at most: further it would lie over itself. Our own choice
DOWN = 0.5  # of the side, how far below the underarm it usually hangs. Common practice, no source
BELOW_ARM = 5.0  # mm below the underarm point that it hangs at least: less is no cowl
LEAST_UP = 10.0  # mm that the edge is above the lower end of the side at least. Our own choice
TRIED = 60  # heights at which an edge is tried, from the highest down
SPILL = 1e-3  # mm that the half may lie outside the new outline: noise


@record
class CowlHalf:
    """One half with its shoulder point, and what of its darts lies open in it."""

    piece: Piece
    tip: places.Place
    fed: tuple[LetIn, ...]

    @property
    def low(self) -> Vector:
        """The lower end of the side seam."""
        return self.piece.edge(SIDE).runs[-1].path.end

    @property
    def reach(self) -> float:
        """From there to the shoulder point, mm."""
        return math.dist(self.low, places.point(self.piece, self.tip))

    def ways(self, up: float) -> tuple[Vector, Vector]:
        """The unit vectors up along the middle of the cowl and outwards square to it, where the edge is `up` mm above the lower
        end."""
        to_tip = unit(places.point(self.piece, self.tip) - self.low)
        beyond = math.acos(min(1.0, up / self.reach))
        cos, sin = math.cos(beyond), math.sin(beyond)
        turn = 1.0 if self.is_clockwise else -1.0
        along = np.array([cos * to_tip[0] - turn * sin * to_tip[1], turn * sin * to_tip[0] + cos * to_tip[1]])
        return along, np.array([-turn * along[1], turn * along[0]])

    @property
    def is_clockwise(self) -> bool:
        """Whether outwards from the shoulder point to the side is a turn with x towards y about the lower end."""
        one = places.point(self.piece, self.tip) - self.low
        two = self.piece.edge(SIDE).runs[-1].path.start - self.low
        return float(one[0] * two[1] - one[1] * two[0]) > 0.0

    def spills(self, up: float) -> bool:
        """Whether the side would lie outside the cowl, or above its edge."""
        along, out = self.ways(up)
        points = np.concatenate([run.path.outline for run in self.piece.edge(SIDE).runs]) - self.low
        return bool((points @ out).max() > SPILL or (points @ along).max() > up + SPILL)

    def opened(self, up: float) -> float:
        """The angle (radians) between the lowest stretch of the side seam and the middle of the cowl."""
        along, out = self.ways(up)
        side = self.piece.edge(SIDE).runs[-1].path.start - self.low
        return math.atan2(-float(side @ out), float(side @ along))


@record
class DrawnArmholeCowl:
    """The pattern with the one piece and its name, the angle (radians) that was let in at the side beside the darts, half the
    edge of front and back (mm), how far above the lower end of the side it lies (mm), and what the darts gave by piece."""

    pattern: Pattern
    name: str
    angle: float
    long_mm: tuple[float, float]
    up_mm: float
    fed: tuple[tuple[str, LetIn], ...]


def shoulder_point(pattern: Pattern, name: str, inwards: float, context: Context) -> places.Place:
    """The place of the shoulder so far in from the armhole (mm). Raises StepError for a piece that cannot have such a cowl, or
    with too little shoulder."""
    piece, unit_ = pattern.piece(name), context.scope.unit
    roles = [role for _edge, role in piece.roles]
    if piece.is_unfolded or any(roles.count(role) != 1 for role in ("neckline", "shoulder", "armhole", SIDE, "centre")):
        what = f"the {words(name)} is not a half with a shoulder, an armhole and a side seam"
        raise StepError(what, where=name, advice="Make the armhole cowl before the step that changed it.")
    if piece.fullness or piece.turned_back:
        what = f"the {words(name)} has folds or a facing already"
        raise StepError(what, where=name, advice="Make the armhole cowl before them.")
    shoulder = piece.edge(next(id for id, role in piece.roles if role == "shoulder"))
    mouths = [number for number, run in enumerate(shoulder.runs[:-1], start=1) if run.mouth is not None]
    outer = shoulder.runs[mouths[-1] :] if mouths else shoulder.runs  # as far in as a dart that opens there lets it
    room = sum(run.path.length for run in outer) - (5.0 if mouths else ON_SHOULDER)
    if not 0.0 <= inwards <= room:
        what = f"a cowl that begins {format_length(inwards, unit_)} in on the shoulder of the {words(name)}"
        more = ", or move the dart away that opens there" if mouths else ""
        raise StepError(what, where=name, advice=f"Enter 0 to {format_length(max(room, 0.0), unit_)}{more}.")
    return places.along(piece, shoulder.id, shoulder.sewn_length - inwards)


def drawn_armhole_cowl(
    pattern: Pattern, names: tuple[str, str], inwards: float, long: float | None, darts: str, context: Context
) -> DrawnArmholeCowl:
    """Front and back in one piece whose edge is twice `long` mm from shoulder to shoulder, as usual for None; of the darts
    `none`, the `front`'s or `all` go into it, and those that open in its way. Raises StepError, with what works."""
    arm, usual = _depths(context.block.drafted(pattern.piece(names[0])), inwards)
    tips = [shoulder_point(pattern, name, inwards, context) for name in names]
    sewn_at_the_side(pattern, *names)
    halves = []
    for name, tip in zip(names, tips, strict=True):
        origin = places.origin_of(pattern.piece(name), tip)
        wanted = darts == "all" or (darts == "front" and name == names[0])
        pattern, fed = _fed(pattern, name, tip, wanted, context)
        piece = pattern.piece(name)
        halves.append(CowlHalf(piece, places.by_origin(piece, origin), fed))
    up = _up(halves, long, arm, usual, context)
    longs = (_edge(halves[0], up), _edge(halves[1], up))
    for half in halves:
        pattern = pattern.with_piece(_outlined(half, up))
    joined, name = _joined(pattern, names, context)
    angle = sum(half.opened(up) for half in halves)
    gave = tuple((source, entry) for source, half in zip(names, halves, strict=True) for entry in half.fed)
    return DrawnArmholeCowl(joined, name, angle, longs, up, gave)


def _edge(half: CowlHalf, up: float) -> float:
    return math.sqrt(max(half.reach**2 - up**2, 0.0))


def _depths(drafted: Piece, inwards: float) -> tuple[float, float]:
    """How far below the shoulder the underarm point is, and how far a cowl hangs when nothing is asked for, mm: half way down
    the side, to the waist at most."""
    tip = next(float(run.path.start[1]) for run in drafted.runs if drafted.role(run.edge) == "armhole")
    side = drafted.edge(SIDE)
    under, low = float(side.runs[0].path.start[1]), float(side.runs[-1].path.end[1])
    return under - tip, under - tip + DOWN * (min(drafted.levels.get("waist", low), low) - under) + 0.5 * inwards


def _up(halves: list[CowlHalf], long: float | None, arm: float, usual: float, context: Context) -> float:
    """How far above the lower end of the side the edge lies, mm; the usual edge is made to fit. Raises StepError for one asked
    for that cannot be, or that does not hang below the underarm."""
    highest = min(half.reach for half in halves)

    def half_edge(up: float) -> float:
        return 0.5 * sum(_edge(half, up) for half in halves)

    def fits(up: float) -> bool:
        return not any(half.spills(up) for half in halves) and sum(half.opened(up) for half in halves) <= WIDEST

    unit_, where = context.scope.unit, halves[0].piece.name
    tried = np.linspace(highest, min(LEAST_UP, 0.5 * highest), TRIED)
    first = next((k for k, up in enumerate(tried) if fits(up)), None)
    if first is None:
        what = "the side seam bulges so far that no cowl from shoulder to shoulder lies over it"
        raise StepError(what, where=where, advice="Straighten the side seam, or cut the piece at the waist first.")
    last = next((k - 1 for k in range(first, TRIED) if not fits(tried[k])), TRIED - 1)
    top = tried[first] if first == 0 else _last(tried[first], tried[first - 1], fits)
    bottom = tried[last] if last == TRIED - 1 else _last(tried[last], tried[last + 1], fits)
    least, most = max(half_edge(top), arm + BELOW_ARM), half_edge(bottom)
    long = min(max(usual, least), most) if long is None else long
    if not least - 1e-6 <= long <= most + 1e-6:
        why = "is no cowl: it has to hang below the arm" if long < least else "would fold the piece over itself"
        what = f"an armhole cowl that hangs {format_length(long, unit_)} below the shoulder {why}"
        low, high = math.ceil(least), math.floor(most)
        raise StepError(what, where=where, advice=f"Enter {format_length(low, unit_)} to {format_length(high, unit_)}.")
    if half_edge(highest) >= long:
        return highest
    return root(lambda up: half_edge(up) - long, 0.0, highest)


def _last(inside: float, outside: float, fits: Callable[[float], bool]) -> float:
    """The last of the values between one that fits and one that does not."""
    for _ in range(50):
        middle = 0.5 * (inside + outside)
        inside, outside = (middle, outside) if fits(middle) else (inside, middle)
    return inside


def _fed(pattern: Pattern, name: str, tip: places.Place, wanted: bool, context: Context) -> tuple[Pattern, tuple[LetIn, ...]]:
    """The pattern with darts open in the armhole, the side seam or the shoulder beyond the cowl's `tip`: those that do already,
    and all where they are wanted; what they give."""
    piece, fed = pattern.piece(name), list[LetIn]()
    for dart in piece.darts:
        is_there = piece.role(piece.dart_edge(dart.id)) in ("armhole", SIDE) or _is_beyond(piece, dart.id, tip)
        if is_there and dart.use is not Use.DART:
            what = f"the {dart_words(piece, dart.id)} dart of the {words(name)} is {dart.use.value} where the cowl will be"
            raise StepError(what, where=name, advice="Move it elsewhere first, or make it a dart.")
        if dart.use is not Use.DART or not (wanted or is_there):
            continue
        if not is_there:
            pattern = _moved_out(pattern, name, dart.id, context)
        fed.append(LetIn(dart.id, dart.pivot, piece.angle(dart.id), Use.DRAPE, called(piece, dart.id)))
    return pattern, tuple(fed)


def _is_beyond(piece: Piece, dart: str, tip: places.Place) -> bool:
    """Whether a dart opens in the shoulder where the cowl begins, or from there to the armhole."""
    at = piece.mouth_run(dart)
    return piece.role(piece.runs[at].edge) == "shoulder" and at >= tip.run


def _moved_out(pattern: Pattern, name: str, dart: str, context: Context) -> Pattern:
    """The pattern with a dart open at the side, as high as its pivot where it has a clear way there."""
    piece = pattern.piece(name)
    side, arm = (piece.edge(next(id for id, role in piece.roles if role == its)) for its in (SIDE, "armhole"))
    level = piece.pivot(piece.dart(dart).pivot)[1]
    top = side.runs[0].path.start[1]
    first = min(max(float(level - top), 5.0), side.sewn_length * 0.9) / side.sewn_length
    spots = [Spot(edge=side.id, at=first), Spot(edge=side.id, at=0.3), Spot(edge=side.id, at=0.6)]
    spots += [Spot(edge=arm.id, at=at) for at in (0.9, 0.75, 0.5)]
    why = ""
    for spot in spots:
        try:
            return move_dart(DartMove(name, dart, spot), pattern, context).pattern
        except (GeometryError, PlaceError, StepError) as fault:
            why = why or fault.what
    said = f"the {dart_words(piece, dart)} dart of the {words(name)} cannot go into the cowl: {why}"
    raise StepError(said, where=name, advice="Move it elsewhere first, or leave it out of the cowl.")


def _outlined(half: CowlHalf, up: float) -> Piece:
    """The half with the edge from its shoulder point to the middle of the cowl, and that as its side."""
    piece, tip = half.piece, half.tip
    along, _out = half.ways(up)
    top, point = half.low + along * up, places.point(piece, tip)
    arm = next(id for id, role in piece.roles if role == "armhole")
    runs: list[Run] = []
    for k, run in enumerate(piece.runs):
        role = piece.role(run.edge)
        if role in ("armhole", SIDE) or (role == "shoulder" and k > tip.run):
            continue
        if k != tip.run:
            runs.append(run)
            continue
        if tip.at > 1e-6:
            share = tip.at / run.path.length
            kept = run if share > 1.0 - 1e-12 else replace(
                run, path=run.path.split_at(tip.at)[0], source=run.source.parted(share)[0]
            )  # fmt: skip
            runs.append(replace(kept, mouth=None))
        name = piece.of or piece.name
        runs.append(Run(arm, Path.straight(point, top), Source(f"{name}.{arm}{COWL}", 0.0, 1.0)))
        runs.append(Run(SIDE, Path.straight(top, half.low), Source(f"{name}.{SIDE}{COWL}", 0.0, 1.0)))
    open_ = {run.mouth for run in runs}
    darts = tuple(dart for dart in piece.darts if dart.id in open_)
    made = replace(piece, runs=well_begun(tuple(runs), dict(piece.roles)), darts=darts)
    lines = {(run.source.edge, run.source.is_mirrored) for run in made.runs}
    notches = tuple(mark for mark in piece.notches if (mark.at.line, mark.at.is_mirrored) in lines)
    return replace(made, notches=notches, let_in=(*piece.let_in, *half.fed))


def _joined(pattern: Pattern, names: tuple[str, str], context: Context) -> tuple[Pattern, str]:
    """The pattern with both halves taped at the middle of the cowl; the seams between them stay seams, of one piece."""
    front, back = names
    pattern = pattern.with_piece(_own_darts(pattern.piece(back), {dart.id for dart in pattern.piece(front).darts}))
    name = NAME if not pattern.has(NAME) else front
    within = [
        seam
        for seam in pattern.seams
        if {part.piece for part in seam.parts} == set(names) and all(part.edge != SIDE for part in seam.parts)
    ]
    made = taped(pattern, front, back, (SIDE, SIDE), name, context.scope.unit).pattern
    one = made.piece(name)
    made = made.with_piece(replace(one, of=one.of or front))
    known = dict(one.roles)

    def led(side: SeamSide) -> SeamSide:
        parts = (
            EdgeRef(name, part.edge if part.piece == front else f"{part.edge}_{pattern.piece(back).of or back}")
            for part in side.parts
        )
        return SeamSide(tuple(parts))

    kept: list[Seam] = []
    for seam in within:
        mine = replace(seam, a=led(seam.a), b=led(seam.b))
        if all(part.edge in known for part in mine.parts):
            kept.append(mine)
    openings = tuple(replace(one, piece=name) if one.piece in names else one for one in made.openings)
    return replace(made, seams=(*kept, *made.seams), openings=openings), name


def _own_darts(piece: Piece, taken: set[str]) -> Piece:
    """The piece with other ids for darts whose ids are taken."""
    new = {dart.id: f"{piece.of or piece.name}_{dart.id}" for dart in piece.darts if dart.id in taken}
    runs = tuple(replace(run, mouth=new.get(run.mouth, run.mouth) if run.mouth else run.mouth) for run in piece.runs)
    return replace(piece, runs=runs, darts=tuple(replace(dart, id=new.get(dart.id, dart.id)) for dart in piece.darts))
