"""How each kind of facing is traced from a piece whose darts lie out of its way."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
import shapely

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.moves.facing import INNER, FacingEdge, chained, inner_curve, shortened, traced_facing
from zesty_pivot.core.moves.shaping import ended_at
from zesty_pivot.core.piece import Dart, Follow, Pattern, Piece, Run, Side, Use
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.refs import side_of_seam
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.bodice_halves import half_of
from zesty_pivot.core.procedures.both_sides import parted
from zesty_pivot.core.procedures.clearing import ABOVE, cleared
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.units import IN
from zesty_pivot.core.record import record

# How near its corner the loose edge of a neck facing keeps: so it is nowhere much shallower than asked. Our own choice.
HUG = 0.86

# A camisole's facing ends 3 1/2 in below the bust line. Common practice, no source.
BELOW_BUST = 3.5 * IN

DOWNWARDS = ("waist", "french", "side_waist", "side_bust")  # where darts go that open above


@record
class TracedFacing:
    """A facing, and what of it follows the garment's edges."""

    piece: Piece
    follows: tuple[Follow, ...]


def has_both_sides(piece: Piece) -> bool:
    """Whether a piece is an unfolded one; a panel of one side of it is not."""
    return piece.is_unfolded and mirror.side_of(piece) is None


def on_both_sides(pattern: Pattern, name: str, trace: Callable[[Pattern], TracedFacing]) -> TracedFacing:
    """The facing of an unfolded piece: traced on each side as on a half, and put together at the centre. Raises as `trace`
    does, StepError where a side's does not reach the centre, GeometryError where something of one side lies on the other."""
    halves = [trace(half) for half in parted(pattern, name).values()]
    if any(half.piece.fold is None for half in halves):
        what = f"the facing of the {words(name)} does not reach its centre on both sides"
        raise StepError(what, where=name, advice="Trace it before it is unfolded.")
    sides = pattern.piece(name).sides
    follows = (
        Follow(side.id(one.edge), side_of_seam(name, sides.id(one.along.parts[0].edge, side)), one.shorter_mm)
        for side, half in zip(Side, halves, strict=True)
        for one in half.follows
    )
    return TracedFacing(mirror.opened(halves[0].piece, halves[1].piece), tuple(follows))


def _of(piece: Piece, role: str) -> list[Path]:
    found = [run.path for run in piece.runs if piece.role(run.edge) == role]
    if not found:
        raise StepError(f"the {words(piece.name)} has no {words(role)}", where=piece.name, advice="Choose another facing.")
    return found


def _line(piece: Piece, role: str) -> Path:
    """An edge as one line. Raises GeometryError where it is open, StepError when there is none."""
    return chained(_of(piece, role), role)


def _edge(piece: Piece, role: str) -> str:
    return next(edge for edge, its in piece.roles if its == role)


def _clean(pattern: Pattern, name: str, context: Context) -> BodiceHalf:
    """The piece with its upper darts closed; those in the side as well, where they can."""
    try:
        made = cleared(pattern, name, context, stations=DOWNWARDS, roles=(*ABOVE, "side_seam"))
    except StepError:
        made = cleared(pattern, name, context, stations=DOWNWARDS)
    piece = made.pattern.piece(name)
    return half_of(piece, context.block.drafted(piece), context.scope.unit)


def neck_facing(pattern: Pattern, name: str, depth: float, shade: float, context: Context) -> TracedFacing:
    """Along the neckline, as deep on the shoulder and at the centre. Raises StepError, PlaceError or GeometryError."""
    bodice = _clean(pattern, name, context)
    piece = bodice.piece
    if has_both_sides(piece):
        return _whole_neck(piece, depth, shade)
    neck = shortened(_line(piece, "neckline"), shade, at_start=False)
    if not any(role == "shoulder" for _edge_id, role in piece.roles):
        what = f"the {words(name)} has no shoulder for a neck facing"
        raise StepError(what, where=name, advice="Choose an all-in-one facing.")
    if depth > bodice.shoulder.length - 3.0:
        left = format_length(bodice.shoulder.length, context.scope.unit)
        what = f"only {left} of the shoulder is left, less than the facing's depth"
        raise StepError(what, where=name, advice="Choose an all-in-one facing, or a shallower one.")
    hole = next((run for run in piece.runs if piece.role(run.edge) == "opening"), None)
    low = _down_centre(bodice, depth, hole)
    # At the shoulder the loose edge runs as the neckline does.
    inner = inner_curve(low, _square(bodice, low), bodice.shoulder.point_at(depth), -neck.end_direction, HUG)
    dart, loose = _darted(piece, inner)
    part = _line(piece, "shoulder").between(0.0, depth)
    sides = [FacingEdge("neckline", "neckline", neck), FacingEdge("shoulder", "shoulder", ended_at(part, neck.end, inner.end))]
    sides += [FacingEdge(INNER, INNER, path, mouth) for path, mouth in loose]
    follows = [Follow("neckline", side_of_seam(name, _edge(piece, "neckline")), shade)]
    if hole is None:
        sides.append(FacingEdge("centre", "centre", Path.straight(low, neck.start)))
    else:
        sides += [
            FacingEdge("centre", "centre", Path.straight(low, hole.path.start)),
            FacingEdge(hole.edge, "opening", hole.path),
            FacingEdge("centre", "centre", Path.straight(hole.path.end, neck.start)),
        ]
        follows.append(Follow(hole.edge, side_of_seam(name, hole.edge), 0.0))
    made = traced_facing(piece, f"{name}_facing", sides, "centre" if piece.fold else None, *_kept(dart))
    return TracedFacing(made, tuple(follows))


def _kept(dart: Dart | None) -> tuple[tuple[Dart, ...], tuple[str, ...]]:
    return ((dart,), (dart.pivot,)) if dart else ((), ())


def _down_centre(bodice: BodiceHalf, depth: float, hole: Run | None = None) -> Vector:
    """The point of the centre so far below its upper end, or below the opening in it."""
    at = bodice.centre.length - depth
    if hole is not None:
        below = [run for run in bodice.piece.runs if bodice.piece.role(run.edge) == "centre"]
        at = below[0].path.length - depth
    if at < 5.0:
        raise StepError("the facing is deeper than the piece", where=bodice.piece.name, advice="Choose a shallower one.")
    return bodice.centre.point_at(at)


def _square(bodice: BodiceHalf, point: Vector) -> Vector:
    return bodice.square(float(point[1]) - bodice.top)


def _whole_neck(piece: Piece, depth: float, shade: float) -> TracedFacing:
    """The facing of an unfolded neckline, from shoulder to shoulder; the shade comes off at both."""
    necks = [run for run in piece.runs if piece.role(run.edge) == "neckline"]
    ends = [edge for edge, role in piece.roles if role == "neckline"]
    if len(necks) != 2 or len(ends) != 2:
        raise StepError("this neckline has no facing of its own", where=piece.name, advice="Trace it before it is unfolded.")
    one, two = sorted(necks, key=lambda run: -run.source.u0)
    neck = chained([one.path, two.path])
    neck = shortened(shortened(neck, shade / 2.0, at_start=True), shade / 2.0, at_start=False)
    shoulders: dict[Side, Path] = {}
    for side in Side:
        paths = [run.path for run in piece.runs if run.edge == piece.sides.id("shoulder", side)]
        if paths:
            line = chained(paths, "shoulder")
            shoulders[side] = line if side is Side.LEFT else line.reversed()
    if len(shoulders) < 2 or min(path.length for path in shoulders.values()) < depth + 3.0:
        raise StepError("the facing does not fit on both shoulders", where=piece.name, advice="Choose a shallower one.")
    points = neck.outline
    lowest = points[int(points[:, 1].argmax())]
    low = lowest + np.array([0.0, depth])
    curves = {}
    for side, sign, into in ((Side.LEFT, 1.0, -neck.end_direction), (Side.RIGHT, -1.0, neck.start_direction)):
        curves[side] = inner_curve(low, np.array([sign, 0.0]), shoulders[side].point_at(depth), into, HUG)
    left, right = curves[Side.LEFT], curves[Side.RIGHT]
    sides = [
        FacingEdge("neckline", "neckline", neck),
        FacingEdge(piece.sides.id("shoulder", Side.LEFT), "shoulder", Path.straight(neck.end, left.end)),
        FacingEdge(INNER, INNER, Path.chain([left.reversed(), right])),
        FacingEdge(piece.sides.id("shoulder", Side.RIGHT), "shoulder", Path.straight(right.end, neck.start)),
    ]
    made = traced_facing(piece, f"{piece.name}_facing", sides, None, (), ())
    return TracedFacing(made, (Follow("neckline", side_of_seam(piece.name, one.edge, two.edge), shade),))


def whole_facing(
    pattern: Pattern, name: str, depth: float | None, shade: float, context: Context, down: float | None = None
) -> TracedFacing:
    """Neck and armhole in one, to below the underarm; without a depth, to below the bust line as under a camisole. Its side
    seam is `down` mm long where the other facing's is. A dart that it takes in stays open in its loose edge and is folded out.
    Raises StepError, PlaceError or GeometryError."""
    if has_both_sides(pattern.piece(name)):
        return on_both_sides(pattern, name, lambda half: whole_facing(half, name, depth, shade, context, down))
    bodice = _clean(pattern, name, context)
    piece = bodice.piece
    if "centre" not in dict(piece.roles).values():
        what = f"the {words(name)} is not a half with a centre line"
        raise StepError(what, where=name, advice="Choose a neck facing, or trace it before it is unfolded.")
    neck = shortened(_line(piece, "neckline"), shade, at_start=False)
    arm = shortened(_line(piece, "armhole"), shade, at_start=True)
    low, at_side = _lower_ends(bodice, depth)
    seam = _side_part(piece, at_side if down is None else down)
    side = seam.end
    along = bodice.side.direction_at(min(10.0, bodice.side.length / 2.0))
    base = inner_curve(low, _square(bodice, low), side, np.array([-along[1], along[0]]), 0.5)
    if depth is None:
        base = Path.straight(low, side)
    dart, parts = _darted(piece, base)
    sides = [FacingEdge("neckline", "neckline", neck)]
    if math.dist(neck.end, arm.start) > 1e-3:
        role = "shoulder" if "shoulder" in dict(piece.roles).values() else INNER
        top = Path.straight(neck.end, arm.start)
        if role == "shoulder":
            top = ended_at(_line(piece, role), neck.end, arm.start)
        sides.append(FacingEdge("shoulder" if role == "shoulder" else "strap_end", role, top))
    sides += [FacingEdge("armhole", "armhole", arm), FacingEdge("side_seam", "side_seam", seam)]
    sides += [FacingEdge(INNER, INNER, path, mouth) for path, mouth in parts]
    sides.append(FacingEdge("centre", "centre", Path.straight(low, neck.start)))
    made = traced_facing(piece, f"{name}_facing", sides, "centre" if piece.fold else None, *_kept(dart))
    edges = [Follow(role, side_of_seam(name, _edge(piece, role)), shade) for role in ("neckline", "armhole")]
    return TracedFacing(made, tuple(edges))


def _lower_ends(bodice: BodiceHalf, depth: float | None) -> tuple[Vector, float]:
    """Where the loose edge meets the centre, and how far down the side."""
    if depth is not None:
        if depth > bodice.side.length - 5.0:
            raise StepError("the facing is deeper than the side", where=bodice.piece.name, advice="Choose a shallower one.")
        return _down_centre(bodice, depth), depth
    y = bodice.top + bodice.bust + BELOW_BUST
    level = np.array([1.0, 0.0])
    at_centre, at_side = (line.crossing(np.array([0.0, y]), level) for line in (bodice.centre, bodice.side))
    if not at_centre or not at_side:
        what = "a camisole facing would go past the lower edge"
        raise StepError(what, where=bodice.piece.name, advice="Choose an all-in-one facing with a depth.")
    return bodice.centre.point_at(at_centre[0]), at_side[0]


def _side_part(piece: Piece, distance: float) -> Path:
    """The side seam from the underarm down by a distance. Raises StepError where a dart opens in it."""
    runs = [run for run in piece.runs if piece.role(run.edge) == "side_seam"]
    whole = next((number for number, run in enumerate(runs) if run.mouth is not None), len(runs) - 1)
    path = chained([run.path for run in runs[: whole + 1]], "side_seam")  # a dart that is shut parts it no more
    if distance > path.length - 1e-3:
        raise StepError(
            "a dart opens on the side seam where the facing ends", where=piece.name, advice="Choose a shallower one."
        )
    return path.between(0.0, distance)


def _darted(piece: Piece, base: Path) -> tuple[Dart | None, list[tuple[Path, str | None]]]:
    """The loose edge from the side to the centre, parted where a dart that opens below reaches over it."""
    line = shapely.LineString(base.outline)
    back = base.reversed()
    for dart in piece.darts:
        pin = piece.pivot(dart.pivot)
        ends = piece.mouth(dart.id)
        hits = [shapely.get_coordinates(shapely.intersection(shapely.LineString([pin, end]), line)) for end in ends]
        if any(len(hit) == 0 for hit in hits) or dart.use is not Use.DART:
            continue
        reach = float(np.mean([math.dist(hit[0], pin) for hit in hits]))
        first, second = (pin + (end - pin) * (reach / math.dist(end, pin)) for end in ends)
        return Dart(dart.id, dart.pivot), [
            (Path.straight(back.start, first), dart.id), (Path.straight(second, back.end), None)
        ]  # fmt: skip
    return None, [(back, None)]


def with_edge(pattern: Pattern, name: str, role: str) -> str:
    """The piece of a name, or of its panels the one at the centre with an edge. Raises StepError or PlaceError."""
    if pattern.has(name):
        return name
    panels = [piece for piece in pattern.come_from(name) if {role, "centre"} <= set(dict(piece.roles).values())]
    if not panels:
        pattern.piece(name)
        raise PlaceError(f"no piece of the {words(name)} has a {words(role)}", advice="Choose another facing.")
    return panels[0].name
