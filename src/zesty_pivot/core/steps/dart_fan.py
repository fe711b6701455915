"""dart.fan: one dart becomes several beside each other on the same edge, radiating from the pivot or with parallel axes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import ClassVar, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import JOIN_TOL, between
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance
from zesty_pivot.core.piece import Pattern, Piece, Shape
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Context, Outcome
from zesty_pivot.core.steps.dart_chain import DartChain, equal_mouths
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.core.steps.hand import Line, Way, line

MOST = 9

# Parallel darts run straight from the seam to this share of the way to the pivot, and from there to the pivot: the bend
# lies about where the sewn point is. Common practice, no source.
BEND_AT = 0.25

# Parallel axes further than this (radians) from the way to the pivot would bend sharply. Common practice, no source.
_MOST_BEND = math.radians(40.0)


class FanDart(DartChain):
    """Shares one dart out to places a spacing apart, centred where it opens now."""

    title: ClassVar[str] = "Divide into darts"
    summary: ClassVar[str] = "Open one dart as several beside each other: radiating or parallel, equal or not."

    do: Literal["dart.fan"] = "dart.fan"
    dart: str = Field(description="the dart to share out", min_length=1)
    count: int = Field(default=3, description="how many darts", ge=2, le=MOST)
    spacing: Length = Field(default="2.5 cm", description="between the mouths, along the sewn seam")
    shares: tuple[Share, ...] | None = Field(default=None, description="how much each takes; equal mouths when not given")
    parallel: bool = Field(default=False, description="axes parallel to the middle one; else they radiate from the pivot")

    @model_validator(mode="after")
    def _all_of_it(self) -> Self:
        if self.shares is not None:
            if len(self.shares) != self.count:
                raise ValueError(f"{self.count} darts need {self.count} shares")
            total = sum(share_of(share) for share in self.shares)
            if abs(total - 1.0) > 1e-9 or min(share_of(share) for share in self.shares) <= 0.0:
                raise ValueError(f"the shares are {100 * total:g}% together; they must be 100% and each over 0%")
        return self

    def words(self) -> str:
        """`waist dart as 3 parallel darts`."""
        return f"{words(self.dart)} dart as {self.count} {'parallel ' if self.parallel else ''}darts"

    def moves(self, pattern: Pattern, context: Context) -> tuple[MoveDart, ...]:
        """Each part in turn. Raises StepError where there is no room."""
        piece = pattern.piece(self.on)
        asked = None if self.shares is None else [share_of(share) for share in self.shares]
        return fanned(piece, piece.dart(self.dart).id, self.count, length_mm(self.spacing, context.scope), context, asked)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the darts. Raises StepError, PlaceError or GeometryError when one cannot be."""
        moves = self.moves(pattern, context)
        outcome = self.after(moves, pattern, context)
        piece = grouped(outcome.pattern.piece(self.on), self.dart, moves)
        if self.parallel:
            piece = _parallel(piece, self.dart, self.on)
        return replace(outcome, pattern=outcome.pattern.with_piece(piece))

    def place_by_hand(self, piece: Piece, move: MoveDart, context: Context) -> Line | None:
        """Counted from the dart's own mouth."""
        return beside(piece, move, context)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """The moves, and for parallel darts how their lines are bent."""
        found = super().by_hand(pattern, context, way)
        if not self.parallel:
            return found
        text = (
            "Redraw the legs of these darts: from the mouth parallel to the middle one for {share} of the way, from there to "
            "the pin; both legs alike."
        )
        return (*found, line("nothing", text, share=f"{100 * (1 - BEND_AT):.0f}%"))


def fanned(
    piece: Piece, dart: str, count: int, spacing: float, context: Context, shares: Sequence[float] | None = None
) -> tuple[MoveDart, ...]:
    """Moves that open a dart at `count` places `spacing` mm apart along its edge, centred on its mouth; equal mouths, or
    shares of its angle. Raises StepError where the edge is too short or another dart opens between."""
    edge, centre = home_edge(piece, dart), mouth_distance(piece, dart)
    if spacing <= 0.0:
        raise StepError("a spacing of nothing", where=piece.name, advice="Give a length such as 2 cm.")
    spots = [centre + (k - (count - 1) / 2.0) * spacing for k in range(count)]
    total = piece.edge(edge).sewn_length
    if spots[0] < JOIN_TOL or spots[-1] > total - JOIN_TOL:
        unit = context.scope.unit
        most = 2.0 * min(centre, total - centre) / (count - 1)
        advice = f"Up to {format_length(most, unit)} apart, or fewer." if most > 1.0 else "Move the dart into the edge first."
        what = f"{count} of them {format_length(spacing, unit)} apart do not fit on the {words(edge)}"
        raise StepError(what, where=piece.name, advice=advice)
    for other in piece.darts:
        if other.id != dart and home_edge(piece, other.id) == edge:
            at = mouth_distance(piece, other.id)
            if spots[0] - 1.0 <= at <= spots[-1] + 1.0:
                what = f"the {words(other.id)} dart opens between them"
                raise StepError(what, where=piece.name, advice="Move one of the two aside first.")
    held = piece.angle(dart)
    if shares is None:
        pin = piece.pivot(piece.dart(dart).pivot)
        legs = [(math.dist(places.point(piece, places.along(piece, edge, spot)), pin), 0.0) for spot in spots]
        angles = equal_mouths(piece.name, held, legs)
    else:
        angles = [share * held for share in shares]
    # With an odd count the dart itself stays in the middle; else it goes to its place last, whole.
    keeps = (count - 1) // 2
    found: list[MoveDart] = []
    left = held
    order = [k for k in range(count) if k != keeps] + ([keeps] if count % 2 == 0 else [])
    for k in order:
        share = 1.0 if k == keeps else angles[k] / left
        name = None if k == keeps else _free_id(piece, dart, k + 1)
        to = Spot(edge=edge, at=f"{spots[k]!r} mm")
        found.append(MoveDart.model_validate({"on": piece.name, "dart": dart, "to": to, "share": share, "as": name}))
        left -= angles[k]
    return tuple(found)


def together(piece: Piece, dart: str) -> tuple[MoveDart, ...]:
    """Moves that make one dart of a family again, where its middle lies. Nothing for a dart alone."""
    family = piece.family(dart)
    if len(family) == 1:
        return ()
    main = family[0].group or family[0].id
    keeper = main if piece.has_dart(main) else family[0].id
    edge = home_edge(piece, keeper)
    if any(home_edge(piece, member.id) != edge for member in family):
        others = [MoveDart(on=piece.name, dart=d.id, to=Spot(dart=keeper)) for d in family if d.id != keeper]
        return tuple(others)
    at = [mouth_distance(piece, member.id) for member in family]
    middle = (min(at) + max(at)) / 2.0
    found: list[MoveDart] = []
    if abs(mouth_distance(piece, keeper) - middle) > JOIN_TOL:
        near = [d.id for d, spot in zip(family, at, strict=True) if abs(spot - middle) < 1.0 and d.id != keeper]
        found += [MoveDart(on=piece.name, dart=id, to=Spot(dart=keeper)) for id in near]
        found.append(MoveDart(on=piece.name, dart=keeper, to=Spot(edge=edge, at=f"{middle!r} mm")))
        family = tuple(d for d in family if d.id not in near)
    return (*found, *(MoveDart(on=piece.name, dart=d.id, to=Spot(dart=keeper)) for d in family if d.id != keeper))


def grouped(piece: Piece, dart: str, moves: Sequence[MoveDart]) -> Piece:
    """The piece with a dart and those that the moves made of it marked as one family."""
    group = piece.dart(dart).group or dart
    made = {dart, *(move.as_ for move in moves)}
    return replace(piece, darts=tuple(replace(each, group=group) if each.id in made else each for each in piece.darts))


def beside(piece: Piece, move: MoveDart, context: Context) -> Line | None:
    """The place of a move counted along the seam from the mouth of the dart that moves, or None for another kind of place."""
    if move.to.edge is None or move.to.at is None or home_edge(piece, move.dart) != move.to.edge:
        return None
    away = length_mm(move.to.at, context.scope) - mouth_distance(piece, move.dart)
    text = "On the {on}, measure {away} along the {edge} from the mouth of the {dart} dart, {side}, open mouths skipped."
    return line(
        "beside_dart", text, on=words(piece.name), away=format_length(abs(away), context.scope.unit), dart=words(move.dart),
        edge=words(move.to.edge), side="clockwise" if away > 0.0 else "anticlockwise",
    )  # fmt: skip


def _free_id(piece: Piece, dart: str, number: int) -> str:
    name = f"{dart}-{number}"
    while piece.has_dart(name):
        name += "'"
    return name


def _parallel(piece: Piece, dart: str, where: str) -> Piece:
    """The family's outer lines bent parallel to the axis of its middle. Raises StepError where they would bend sharply."""
    family = piece.family(dart)
    pin = piece.pivot(family[0].pivot)
    axes = {member.id: np.mean(piece.mouth(member.id), axis=0) - pin for member in family}
    middle = np.mean([axis / np.hypot(*axis) for axis in axes.values()], axis=0)
    shapes: dict[str, Shape] = {}
    for id, axis in axes.items():
        turn = between(axis, middle)
        if abs(turn) > _MOST_BEND:
            raise StepError("parallel darts so far apart would bend sharply", where=where, advice="Bring them nearer together.")
        bend = -(1.0 - BEND_AT) * float(np.hypot(*axis)) * math.tan(turn)
        shapes[id] = Shape(bend_mm=bend, bend_at=BEND_AT)
    return replace(piece, darts=tuple(replace(d, shape=shapes[d.id]) if d.id in shapes else d for d in piece.darts))


STEP = FanDart
