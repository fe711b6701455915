"""The new edges of a neckline, drawn on front and back while their upper darts wait."""

from __future__ import annotations

import math
from functools import partial

import numpy as np

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.moves.style_lines import crossed
from zesty_pivot.core.necklines import backs
from zesty_pivot.core.necklines.base import MARK, Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import bent, turned_end
from zesty_pivot.core.piece import Origin, Pattern, Piece, Run, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.bodice_half import BodiceHalf, nearest_place
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import contains
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.procedures.bodice_halves import block_half, half_of
from zesty_pivot.core.procedures.clearing import cleared, first_way
from zesty_pivot.core.procedures.neckline_across import (
    Beyond,
    drawn_across,
    drawn_over_both,
    refuse_whole,
    side_of_line,
)
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

# An edge meets the shoulder within these angles of its way to the tip (radians); steeper or flatter, its end is bent, so that
# the other piece can go on from it. Our own choice.
FLATTEST, STEEPEST = math.radians(60.0), math.radians(125.0)

# The last curve of a scallop is turned no further than to this, lest the back begins with a hook. Our own choice.
UPRIGHT = math.radians(105.0)

_ROUNDS = 5  # in which darts that go with what is cut away are found

ROOM = 5.0  # mm of shoulder that a neckline leaves at least

TURN = 25.0  # mm over which an end is bent where the shape does not say


@record
class NeckTarget:
    """A piece of the block and the numbers for it; the first one decides the place on the shoulder."""

    name: str
    asked: Asked


@record
class NeckEdge:
    """A new edge: the piece of the pattern it is drawn on (a panel, maybe), as it lies with its upper darts put away, and what
    lies above and goes whole. `beyond` is what goes on across a style line, with the darts put away on that panel."""

    of: str
    name: str
    bodice: BodiceHalf
    away: tuple[str, ...]
    asked: Asked
    drawn: Drawn
    beyond: Beyond | None = None
    away_beyond: tuple[str, ...] = ()
    is_far: bool = False  # what goes on across a style line is on the side of the centre that halves are not drawn on
    floor: Origin | None = None  # of a shape with a mark: the place of the lower edge that belongs to it


@record
class NeckEdges:
    """The pattern with darts put away, and the edges on it, the leading one first; a piece that stays as it is has none."""

    pattern: Pattern
    edges: tuple[NeckEdge, ...]
    notes: tuple[Note, ...] = ()


def drawn_on(
    pattern: Pattern, targets: list[NeckTarget], shape: NeckShape, back: tuple[str, float | None], turn: float | None,
    context: Context,
) -> NeckEdges:  # fmt: skip
    """The edges of a shape on its pieces. `back` is the following piece's own shape and depth (mm, or None).

    Raises StepError, PlaceError or GeometryError when it cannot be drawn.
    """
    found: list[NeckEdge] = []
    notes: list[Note] = []
    for target in targets:
        lead = found[0] if found else None
        pattern, edge, said = _one(pattern, target, lead, shape, back, turn, context)
        notes += said
        if edge is not None:
            found.append(edge)
    return NeckEdges(pattern, tuple(found), tuple(notes))


def follows_shoulder(shape: NeckShape) -> bool:
    """Whether the other piece goes on from where the leading one meets the shoulder; else it has the same shape itself."""
    return shape.ends_on == "shoulder" and shape.kind != "raise" and shape.name != "one_shoulder"


def _one(
    pattern: Pattern, target: NeckTarget, lead: NeckEdge | None, shape: NeckShape, back: tuple[str, float | None],
    turn: float | None, context: Context,
) -> tuple[Pattern, NeckEdge | None, tuple[Note, ...]]:  # fmt: skip
    name = worked_piece(pattern, target.name)
    leave: set[str] = set()
    if shape.name == "keyhole_yoke" and side_of_line(pattern, name) is not None:
        refuse_whole(pattern, target.name)
    pattern, floor = (pattern, None) if lead is not None else _marked(pattern, name, target, shape, context)
    for _ in range(_ROUNDS):
        made = cleared(pattern, name, context, leave)
        piece = made.pattern.piece(name)
        bodice = half_of(piece, context.block.drafted(piece), context.scope.unit)
        drawing = _Drawing(target, lead, shape, back, turn, context)
        known = side_of_line(made.pattern, name)
        beyond, is_far = None, False
        away_beyond: tuple[str, ...] = ()
        if known is None:
            drawn = drawing(bodice)
        else:
            if shape.kind == "raise" and "shoulder" not in _roles(piece):
                what = f"the line through the neckline of the {words(target.name)} separates it from the shoulder"
                raise StepError(what, where=target.name, advice="Raise the neckline before that line.")
            aside = cleared(made.pattern, known[0].name, context)
            away_beyond = aside.darts
            made = replace(made, pattern=aside.pattern, notes=(*made.notes, *aside.notes))
            panel = aside.pattern.piece(known[0].name)
            if shape.goes_over(leads=lead is None):
                bodice, drawn, beyond, is_far = drawn_over_both(bodice, panel, known[1], drawing)
            else:
                bodice, drawn, beyond = drawn_across(bodice, panel, known[1], drawing)
        if drawn is None:
            return pattern, None, ()
        above = _above(pattern.piece(name), piece, drawn, made.darts, shape) - leave
        barred = [dart for dart in crossed(piece, drawn.path) if piece.dart(dart).pivot in leave]
        if barred and not above:  # it would be cut in two: it opens in what goes instead
            pattern = _into_what_goes(pattern, name, barred[0], context)
            continue
        if not above:
            asked = drawing.asked(bodice)
            edge = NeckEdge(target.name, name, bodice, made.darts, asked, drawn, beyond, away_beyond, is_far, floor)
            return made.pattern, edge, made.notes
        leave |= above
    raise StepError("the darts above the edge are in each other's way", where=name, advice="Move them down first.")


def _into_what_goes(pattern: Pattern, name: str, dart: str, context: Context) -> Pattern:
    """The pattern with a dart whose pivot is cut away moved to the neckline, with which it goes. Raises StepError."""
    made = first_way(pattern, name, dart, [Spot(edge="neckline", at=f"{share}%") for share in (50, 30, 70, 10, 90)], context)
    if made is None:
        what = f"the {dart_words(pattern.piece(name), dart)} dart would be cut in two"
        raise StepError(what, where=name, advice="Move it to the neckline or the side first.")
    return made.pattern


def _marked(
    pattern: Pattern, name: str, target: NeckTarget, shape: NeckShape, context: Context
) -> tuple[Pattern, Origin | None]:
    """The pattern with a shape's mark on the cloth, its darts as they are. Raises StepError when it misses the lower edge."""
    if shape.mark is None:
        return pattern, None
    piece = pattern.piece(name)
    beyond = side_of_line(pattern, name)
    more = None if beyond is None else beyond[0]
    half = half_of(piece, context.block.drafted(piece), context.scope.unit)
    at, floor = shape.mark(replace(half, more=more), target.asked)
    for panel in [piece] if more is None else [piece, more]:
        place = nearest_place(panel, floor, partial(_is_lower, panel))
        if place is not None:
            marked = replace(panel, landmarks={**panel.landmarks, MARK: (float(at[0]), float(at[1]))})
            return pattern.with_piece(marked), places.origin_of(panel, place)
    what = "the mouth of a dart" if beyond is None else "the seam between the panels"
    raise StepError(f"it would end in {what}", where=name, advice="Let it end farther away, or nearer.")


def _is_lower(piece: Piece, run: Run) -> bool:
    return piece.role(run.edge) in ("waist", "hem")


@record
class _Drawing:
    """What draws the edge on a half."""

    target: NeckTarget
    lead: NeckEdge | None
    shape: NeckShape
    back: tuple[str, float | None]
    turn: float | None
    context: Context

    def _both(self, bodice: BodiceHalf) -> tuple[Asked, Drawn | None]:
        if self.lead is not None and follows_shoulder(self.shape):
            return _following(bodice, self.lead, self.target, self.back, self.turn, self.context)
        drawn = self.shape.draw(bodice, self.target.asked)
        if drawn.ends_on == "shoulder" and self.shape.kind == "cut":
            drawn = _meeting_well(bodice, self.target.asked, drawn, self.turn)
        return self.target.asked, drawn

    def __call__(self, bodice: BodiceHalf) -> Drawn | None:
        return self._both(bodice)[1]

    def asked(self, bodice: BodiceHalf) -> Asked:
        """The numbers that it was drawn by."""
        return self._both(bodice)[0]


def worked_piece(pattern: Pattern, name: str) -> str:
    """The piece that a neckline is drawn on: itself, or the panel at the centre. Raises StepError or PlaceError."""
    parts = pattern.come_from(name) or (pattern.piece(name),)
    whole = next((piece for piece in parts if piece.is_unfolded), None)
    if whole is not None:
        what = f"the {words(whole.name)} is unfolded"
        raise StepError(what, where=name, advice="Shape the neckline before it is unfolded.")
    held = [piece for piece in parts if {"neckline", "centre"} <= _roles(piece)]
    for piece in sorted(held, key=lambda piece: piece.name != name):
        beyond = side_of_line(pattern, piece.name)
        if "armhole" in _roles(piece) | (_roles(beyond[0]) if beyond is not None else set()):
            return piece.name
    at = words(held[0].name) if held else "more than one piece"
    what = f"the neckline of the {words(name)} is on the {at} by itself" if held else f"the {words(name)} has no neckline here"
    raise StepError(what, where=name, advice="Shape the neckline before the line that cuts it off.")


def _roles(piece: Piece) -> set[str]:
    return {role for _edge, role in piece.roles}


def _above(before: Piece, piece: Piece, drawn: Drawn, darts: tuple[str, ...], shape: NeckShape) -> set[str]:
    """The pivots of darts that lie above a new edge, with which they go; where one shoulder is bare, it is that side which
    counts."""
    points = drawn.path.outline
    if shape.name == "one_shoulder":
        points = np.array([-1.0, 1.0]) * points[::-1]
    over = float(points[:, 1].min()) - 1000.0
    above = np.vstack([points, [points[-1, 0], over], [points[0, 0], over]])
    return {before.dart(dart).pivot for dart in darts if contains(above, piece.pivot(before.dart(dart).pivot))}


def _meeting_well(bodice: BodiceHalf, asked: Asked, drawn: Drawn, turn: float | None) -> Drawn:
    """The edge with its end bent where it must be to cross the shoulder."""
    x = asked["width"]
    path = drawn.path
    reach = turn if turn is not None else asked.numbers.get("turn", TURN)
    if reach <= 0.0:
        raise StepError("the rounding must be longer than 0", where=bodice.piece.name, advice="Enter a length such as 2 cm.")
    angle = bodice.shoulder.angle_of(x, -path.end_direction)
    if drawn.turns:
        path = turned_end(path, bodice.shoulder.into(x, min(max(angle, FLATTEST), UPRIGHT)))
    elif drawn.bends:
        path = bent(path, bodice.shoulder.into(x), reach)
    elif not drawn.is_straight and not FLATTEST <= angle <= STEEPEST:
        path = bent(path, bodice.shoulder.into(x, min(max(angle, FLATTEST), STEEPEST)), reach)
    else:
        return drawn
    return replace(drawn, parts=(EdgePart(path),))


def _following(
    bodice: BodiceHalf, lead: NeckEdge, target: NeckTarget, back: tuple[str, float | None], turn: float | None, context: Context
) -> tuple[Asked, Drawn | None]:
    """The edge of the piece that follows: from the same place of the shoulder, going on from the leading edge's end."""
    kind, asked_depth = back
    unit = context.scope.unit
    along = lead.bodice.shoulder.along(lead.asked["width"])
    if along > bodice.shoulder.length - ROOM:
        most = format_length(bodice.shoulder.length - ROOM, unit)
        what = f"the {words(bodice.piece.name)} has no shoulder left at this width"
        raise StepError(what, where=bodice.piece.name, advice=f"Let the neckline take up to {most} of the shoulder.")
    if kind == "keep" and along < 0.01:
        return target.asked, None
    x = float(bodice.shoulder.point_at(along)[0])
    drafted = block_half(context, target.name)
    front = block_half(context, lead.of)
    gain = lead.asked.numbers.get("depth", front.bust) - front.natural
    wide = float(drafted.shoulder.point_at(min(along, drafted.shoulder.length))[0])
    least = float(drafted.shoulder.at(wide)[1]) - drafted.top
    depth = backs.depth_of(drafted, kind, wide, gain) if asked_depth is None else asked_depth
    if not max(least, drafted.natural) - 1e-6 <= depth <= drafted.lowest - 20.0:
        low = format_length(max(least, drafted.natural), unit)
        high = format_length(drafted.lowest - 20.0, unit)
        what = f"a depth of {format_length(depth, unit)} at the centre back does not go with this width"
        raise StepError(what, where=bodice.piece.name, advice=f"Enter {low} to {high} below the neck point.")
    angle = lead.bodice.shoulder.angle_of(lead.asked["width"], -lead.drawn.path.end_direction)
    into = bodice.shoulder.into(x, math.pi - angle)
    reach = turn if turn is not None else lead.asked.numbers.get("turn", TURN)
    try:
        path, pointed = backs.draw(bodice, kind, x, depth, into, reach)
    except PlaceError as fault:
        raise StepError(fault.what, where=bodice.piece.name, advice=fault.advice) from fault
    numbers = {"width": x, "depth": depth}
    return Asked(numbers), Drawn((EdgePart(path),), is_pointed=pointed, bends=False)
