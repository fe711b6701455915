"""The operations of drafting, by name: what each takes, and what it gives.

Frame of a piece: x from the straight centre towards the side, y down from the top line; turns are clockwise on the paper where
positive. Nothing here searches or repeats: circles, lines and fixed curves only.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from types import MappingProxyType

import numpy as np

from zesty_pivot.core.drafting.values import Direction, Inked, Number, Point, Value
from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Motion, Path, between, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.record import record

MEETS = 1e-9  # mm: circles that miss each other by less touch; the noise of the arithmetic at 2 m
PARALLEL = 1e-9  # sine of an angle under which two lines do not cross


@record
class Deed:
    """One operation: the kinds of its arguments (a last one with `*` may stand several times), what it gives, what it does, and
    how it is read aloud with its arguments in braces."""

    takes: tuple[str, ...]
    gives: str
    does: Callable[..., Value]
    summary: str
    said: str = ""


def _at(x: Number, y: Number) -> Point:
    return Point.of(x.amount, y.amount)


def _moved(x: float, y: float) -> Callable[[Point, Number], Point]:
    return lambda p, d: Point.of(p.x + x * d.amount, p.y + y * d.amount)


def _share(p: Point, q: Point, f: Number) -> Point:
    return Point(p.at + (q.at - p.at) * f.amount)


def _on(p: Point, q: Point, d: Number) -> Point:
    return Point(p.at + _way(p, q) * d.amount)


def _perp(p: Point, q: Point, r: Point, d: Number) -> Point:
    along = _way(p, q)
    return Point(r.at + np.array([-along[1], along[0]]) * d.amount)


def _cross(p: Point, q: Point, r: Point, s: Point) -> Point:
    found = _crossing(p.at, _way(p, q), r.at, _way(r, s))
    if found is None:
        raise GeometryError("the two lines run side by side and do not cross")
    return Point(found)


def _arcs(p: Point, r: Number, q: Point, s: Number, near: Point) -> Point:
    one, two = r.amount, s.amount
    if min(one, two) < 0.0:
        raise GeometryError(f"an arc of {min(one, two):.1f} mm")
    gap = q.at - p.at
    apart = math.hypot(gap[0], gap[1])
    if apart > one + two + MEETS or apart < abs(one - two) - MEETS or apart == 0.0:
        raise GeometryError(f"arcs of {one:.1f} mm and {two:.1f} mm, {apart:.1f} mm apart, do not meet")
    along = gap / apart
    reach = (apart**2 + one**2 - two**2) / (2.0 * apart)
    off = math.sqrt(max(0.0, one**2 - reach**2))
    foot, across = p.at + along * reach, np.array([-along[1], along[0]])
    both = (foot + across * off, foot - across * off)
    return Point(min(both, key=lambda found: math.dist(found, near.at)))


def _turn(it: Point | Inked, about: Point, angle: Number) -> Point | Inked:
    motion = Motion.turn(about.at, angle.amount)
    return Point(motion(it.at)) if isinstance(it, Point) else Inked(Path(motion(it.path.cubics)))


def _level(c: Point, k: Point, m: Point) -> Point:
    return _on(c, m, Number(math.dist(c.at, k.at), 1))


def _blend(p: Point, u: Direction, q: Point, v: Direction, k: Number) -> Inked:
    meet = _crossing(p.at, u.way, q.at, v.way)
    if meet is None or float((meet - p.at) @ u.way) < 0.0 or float((q.at - meet) @ v.way) < 0.0:
        raise GeometryError("the curve's two ends do not lead towards each other")
    return Inked(Path(np.array([[p.at, p.at + (meet - p.at) * k.amount, q.at + (meet - q.at) * k.amount, q.at]])))


def _curve(p: Point, u: Direction, first: Number, q: Point, v: Direction, last: Number) -> Inked:
    return Inked(Path(np.array([[p.at, p.at + u.way * first.amount, q.at - v.way * last.amount, q.at]])))


def _line(*points: Point) -> Inked:
    return Inked(Path.straight(*(point.at for point in points)))


def _joined(*strokes: Inked) -> Inked:
    return Inked(Path.chain(stroke.path for stroke in strokes))


def _way(p: Point, q: Point) -> Vector:
    gap = q.at - p.at
    if math.hypot(gap[0], gap[1]) == 0.0:
        raise GeometryError("two points that should show a direction lie on each other")
    return unit(gap)


def _crossing(p: Vector, u: Vector, q: Vector, v: Vector) -> Vector | None:
    sine = float(u[0] * v[1] - u[1] * v[0])
    if abs(sine) < PARALLEL:
        return None
    gap = q - p
    found: Vector = p + u * (float(gap[0] * v[1] - gap[1] * v[0]) / sine)
    return found


def _angle(p: Point, c: Point, q: Point) -> Number:
    return Number(between(_way(c, p), _way(c, q)))


def _dist(p: Point, q: Point) -> Number:
    return Number(math.dist(p.at, q.at), 1)


def _between(u: Direction, v: Direction) -> Number:
    return Number(between(u.way, v.way))


def _turned(u: Direction, angle: Number) -> Direction:
    return Direction(Motion.turn(np.zeros(2), angle.amount)(u.way))


def _x_at(p: Point, q: Point, y: Number) -> Number:
    return Number(_crossing_x(p, q, y.amount), 1)


def _crossing_x(p: Point, q: Point, y: float) -> float:
    if p.y == q.y:
        raise GeometryError("a level line has no place at a height")
    return p.x + (q.x - p.x) * (y - p.y) / (q.y - p.y)


def _same(pick: Callable[..., float]) -> Callable[..., Number]:
    def picked(*numbers: Number) -> Number:
        if len({number.power for number in numbers}) > 1:
            raise GeometryError("a length beside a plain number: give every number its unit, such as 2 cm")
        return Number(pick(*(number.amount for number in numbers)), numbers[0].power)

    return picked


def _of_plain(function: Callable[[float], float], name: str) -> Callable[[Number], Number]:
    def worked(number: Number) -> Number:
        try:
            return Number(function(number.amount))
        except ValueError:
            raise GeometryError(f"there is no {name} of {number.amount:g}") from None

    return worked


OPERATIONS: Mapping[str, Deed] = MappingProxyType({
    "at": Deed(("length", "length"), "point", _at, "so far from the centre and so far down from the top line"),
    "down": Deed(("point", "length"), "point", _moved(0.0, 1.0), "straight down from a point",
                      "{1} straight down from {0}"),
    "up": Deed(("point", "length"), "point", _moved(0.0, -1.0), "straight up from a point", "{1} straight up from {0}"),
    "out": Deed(("point", "length"), "point", _moved(1.0, 0.0), "level from a point towards the side",
                     "{1} from {0}, level, towards the side"),
    "in": Deed(("point", "length"), "point", _moved(-1.0, 0.0), "level from a point towards the centre",
                    "{1} from {0}, level, towards the centre"),
    "mid": Deed(("point", "point"), "point", lambda p, q: Point((p.at + q.at) / 2.0), "the middle of two points",
                     "half way between {0} and {1}"),
    "share": Deed(("point", "point", "number"), "point", _share, "a fraction of the way from one point to another",
                       "{2} of the way from {0} to {1}"),
    "on": Deed(("point", "point", "length"), "point", _on, "so far from a point on the ray to another",
                    "from {0} towards {1}, {2}"),
    "perp": Deed(("point", "point", "point", "length"), "point", _perp,
                      "so far from the third point, square to the line of the first two, clockwise of it",
                      "square to the line {0} {1}, {3} from {2}"),
    "cross": Deed(("point", "point", "point", "point"), "point", _cross, "where two lines cross",
                       "where the line {0} {1} crosses {2} {3}"),
    "arcs": Deed(("point", "length", "point", "length", "point"), "point", _arcs,
                      "where two arcs cross, the crossing nearer to the last point",
                      "an arc of {1} round {0} and an arc of {3} round {2}: their crossing near {4}"),
    "turn": Deed(("point or stroke", "point", "number"), "point or stroke", _turn,
                      "a point or stroke turned about a point, clockwise on the paper where the angle is positive",
                      "{0} turned about {1} by {2}"),
    "level": Deed(("point", "point", "point"), "point", _level,
                       "the third point moved on its ray from the first until it is as far away as the second",
                       "on the line from {0} to {2}, as far from {0} as {1} is"),
    "line": Deed(("point", "point", "point*"), "stroke", _line, "straight lines through points"),
    "blend": Deed(("point", "direction", "point", "direction", "number"), "stroke", _blend,
                       "a curve that leaves one point in a direction and reaches the other in another; its handles lie a share "
                       "of the way to where the two directions cross"),
    "curve": Deed(("point", "direction", "length", "point", "direction", "length"), "stroke", _curve,
                       "a curve that leaves one point in a direction and reaches the other in another, with handles so long"),
    "joined": Deed(("stroke", "stroke*"), "stroke", _joined, "strokes laid end to end"),
    "way": Deed(("point", "point"), "direction", lambda p, q: Direction(_way(p, q)), "the direction between two points"),
    "square": Deed(("direction",), "direction", lambda u: Direction(np.array([-u.way[1], u.way[0]])),
                        "a direction turned a quarter, clockwise on the paper"),
    "turned": Deed(("direction", "number"), "direction", _turned, "a direction turned by an angle"),
    "dist": Deed(("point", "point"), "length", _dist, "how far apart two points are"),
    "length": Deed(("stroke",), "length", lambda s: Number(s.path.length, 1), "how long a stroke is"),
    "angle": Deed(("point", "point", "point"), "number", _angle,
                       "the turn from the first point to the third about the second, clockwise positive"),
    "between": Deed(("direction", "direction"), "number", _between, "the turn between two directions, clockwise positive"),
    "x_at": Deed(("point", "point", "length"), "length", _x_at, "how far out a line lies at a height"),
    "max": Deed(("quantity", "quantity*"), "quantity", _same(max), "the largest", "the larger of {all}"),
    "min": Deed(("quantity", "quantity*"), "quantity", _same(min), "the smallest", "the smaller of {all}"),
    "abs": Deed(("quantity",), "quantity", lambda n: Number(abs(n.amount), n.power), "without its sign", "{0}"),
    "sqrt": Deed(("number",), "number", _of_plain(math.sqrt, "square root"), "the square root"),
    "sin": Deed(("number",), "number", _of_plain(math.sin, "sine"), "the sine"),
    "cos": Deed(("number",), "number", _of_plain(math.cos, "cosine"), "the cosine"),
    "tan": Deed(("number",), "number", _of_plain(math.tan, "tangent"), "the tangent"),
    "asin": Deed(("number",), "number", _of_plain(math.asin, "arc sine"), "the angle of a sine"),
    "acos": Deed(("number",), "number", _of_plain(math.acos, "arc cosine"), "the angle of a cosine"),
    "atan": Deed(("number",), "number", _of_plain(math.atan, "arc tangent"), "the angle of a tangent"),
})  # fmt: skip

# Read by the evaluator itself: only one branch of `if` is worked out, `has` asks for a name that may be missing.
SPECIAL = {"if": 3, "has": 1}

ACROSS, DOWNWARDS = Direction(np.array([1.0, 0.0])), Direction(np.array([0.0, 1.0]))
FIXED: Mapping[str, Direction] = MappingProxyType({
    "outwards": ACROSS, "inwards": Direction(np.array([-1.0, 0.0])), "downwards": DOWNWARDS,
    "upwards":
    Direction(np.array([0.0, -1.0])), })  # fmt: skip
