"""A yoke's seam that takes a dart in as a taper at the armhole: the shoulder dart is shut in the yoke, and the part below falls
away from the seam towards the armhole."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.moves.bend import bent
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.shaping import ended_at
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.piece import Pattern, Piece, Place, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.procedures.into_panels import free_line
from zesty_pivot.core.procedures.legs import made_equal
from zesty_pivot.core.procedures.line_cutting import Cutting, sewn_parts
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

Begun = tuple[Path, Vector]  # a line as far as a dart's point, and the direction in which it goes on

NEAR = 40.0  # mm from a seam that a dart's point is led to it. Our own choice.

_MARK = "*yoke"
_EVEN = 1e-9  # mm; the taper is as long as the yoke's edge above it


def meeting(piece: Piece, dart: str, drawn: Path) -> float | None:
    """How far (mm) along a yoke's line, drawn from the centre outwards, it passes nearest to a dart's pivot; None where that is
    too far from it, or too near to an end."""
    pin = piece.pivot(piece.dart(dart).pivot)
    steps = np.linspace(0.0, drawn.length, 400)
    points = np.array([drawn.point_at(step) for step in steps])
    at = int(np.hypot(*(points - pin).T).argmin())
    return float(steps[at]) if math.dist(points[at], pin) <= NEAR and 0.15 < at / 399.0 < 0.9 else None


def cut_with_taper(
    pattern: Pattern, asked: Cutting, dart: str, run: Callable[[Path, float], Begun], context: Context
) -> Outcome:  # fmt: skip
    """The pattern with a yoke cut past the point of a shoulder dart, which is led to the line.

    Beyond that point the line falls on the flat piece by the dart's angle, so that with the dart shut the yoke's edge runs
    straight on; the part below has the other leg, drawn as a curve that is as long. `run` is how it runs from the centre so
    far along the line as it is drawn, and the direction (2,) in which it goes on. Source: common practice, no source.

    Raises StepError, PlaceError or GeometryError when it cannot be cut.
    """
    piece = pattern.piece(asked.on)
    held, pivot, called = piece.angle(dart), piece.dart(dart).pivot, dart_words(piece, dart)
    piece, told = made_equal(piece, [dart], context.scope.unit)
    drawn = asked.drawn(piece)
    at = meeting(piece, dart, drawn)
    if at is None:
        raise StepError(f"the {called} dart ends too far from the yoke's seam", where=asked.on, advice="Cut it nearer to it.")
    first, way = run(drawn, at)
    piece = bent(piece, (dart,), _MARK, first.end)
    place = asked.ends(piece)[0]
    before, outer = piece, _falling(piece, first.end, way, piece.angle(dart))
    moved = move_dart(DartMove(asked.on, dart, outer), pattern.with_piece(piece), context)
    piece = moved.pattern.piece(asked.on)
    index, lips = piece.mouth_run(dart), piece.mouth(dart)
    line = Path.chain([first, Path.straight(first.end, lips[0])])
    refuse_unclear(piece, line)
    edge = free_line(piece, asked.edge)
    start, stop = places.by_origin(piece, places.origin_of(before, place)), Place(index, piece.runs[index].path.length)
    one, two = across(piece, start, stop, line, edge, STYLE_LINE, (piece.name, asked.made))
    angle = piece.angle(dart)
    parts = [
        _tapered(part, dart, edge, (first, way), (angle - held, pivot)) if part.has_dart(dart) else part for part in (one, two)
    ]
    parts = [replace(part, landmarks={name: p for name, p in part.landmarks.items() if name != _MARK}) for part in parts]
    after, _main, _cut, note = sewn_parts(
        moved.pattern, asked, piece, (parts[0], parts[1]), (line, edge), context, ((pivot, angle),)
    )  # fmt: skip
    wide = format_length(math.dist(*lips), context.scope.unit)
    text = f"the {called} dart is shut in the {words(asked.made)}; below it is a taper of {wide} at the armhole"
    return Outcome(after, (note, *told, Note(text, asked.on, math.dist(*lips))))


def _falling(piece: Piece, on: Vector, way: Vector, angle: float) -> Spot:
    """The place of the armhole that is met from a point in a direction turned down by an angle (radians). Raises StepError when
    it is missed."""
    c, s = math.cos(angle), math.sin(angle)
    down = np.array([c * way[0] - s * way[1], s * way[0] + c * way[1]])
    hits = [
        (away, places.sewn_distance(piece, Place(index, run.path.distance_of(segment, t))), run.edge)
        for index, run in enumerate(piece.runs)
        if piece.role(run.edge) == "armhole"
        for segment, t, away in with_line(run.path.cubics, on, down)
        if away > 1.0
    ]
    if not hits:
        raise StepError("the taper misses the armhole", where=piece.name, advice="Cut the yoke higher, or without a taper.")
    _away, along, edge = min(hits)
    return Spot(edge=edge, at=f"{along!r} mm")


def _tapered(part: Piece, dart: str, edge: str, begun: Begun, changed: tuple[float, str]) -> Piece:
    """The part below with its seam led along the dart's far leg, as long as along the near one, and the dart gone. `changed` is
    what leading it to the line has changed of its angle (radians), and its pivot."""
    first, ahead = begun
    onto, lip = first.end, part.mouth(dart)[1]
    way, long = unit(lip - onto), math.dist(lip, onto)
    size = long
    for _ in range(20):  # the curve is a hair longer than its chord, so it ends a hair before the lip
        end = onto + way * size
        curve = Path(np.array([[onto, onto + ahead * size * 0.4, end - way * size * 0.3, end]]))
        if abs(curve.length - long) <= _EVEN:
            break
        size -= curve.length - long
    index = part.mouth_run(dart)
    after = part.after(index)
    runs = list(part.runs)
    is_out = runs[index].edge == edge  # the line is walked from the centre out, and the armhole follows
    line, beside = (index, after) if is_out else (after, index)
    path = Path.chain([first, curve])
    runs[line] = replace(runs[line], path=path if is_out else path.reversed(), mouth=None)
    near = runs[beside].path
    runs[beside] = replace(runs[beside], path=ended_at(near, start=curve.end) if is_out else ended_at(near, end=curve.end))
    runs[index] = replace(runs[index], mouth=None)
    more, pivot = changed
    kept = tuple(d for d in part.darts if d.id != dart)
    return replace(part, runs=tuple(runs), darts=kept, added=(*part.added, (pivot, more)))
