"""A dart's fullness shared out: moves to several places, equally wide mouths, darts beside each other, and one again."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import DartMove, Legs
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

# What is left of a dart under this share of it (one in a thousand million) is the noise of float64: all of it goes.
_ALL = 1e-9

MOST = 9  # darts, tucks or pleats beside each other

_HALVINGS = 64  # of a mouth of half a metre leave less than float64 can tell


def one_pivot(piece: Piece, darts: Iterable[str], advice: str) -> str:
    """The pivot that all the darts lead to. Raises StepError, with the advice, when they lead to several."""
    pivots = sorted({piece.dart(dart).pivot for dart in darts})
    if len(pivots) > 1:
        named = ", ".join(words(pivot) for pivot in pivots)
        raise StepError(f"the darts lead to different pivots ({named})", where=piece.name, advice=advice)
    return pivots[0]


def chain(on: str, dart: str, held: float, parts: Sequence[tuple[Spot, float]]) -> tuple[DartMove, ...]:
    """Moves that take angles (radians) of one dart to several places; `held` is what the dart has. Parts of no angle are
    left out."""
    found: list[DartMove] = []
    left = held
    for spot, angle in parts:
        if angle <= held * _ALL:
            continue
        found.append(DartMove(on, dart, spot, 1.0 if left - angle <= held * _ALL else angle / left))
        left -= angle
    return tuple(found)


def equal_mouths(where: str, total: float, legs: Sequence[Legs]) -> list[float]:
    """The angles (radians) that bring mouths of legs (length mm, angle open already) to one width, `total` being what
    there is to give out: a_k = 2 asin(m / 2 r_k) - open_k, with their sum the total; the width m by bisection.

    Raises StepError when a mouth is wider already than all would become.
    """

    def angles(mouth: float) -> list[float]:
        return [pair.angle(mouth) - pair.there for pair in legs]

    low, high = 0.0, min(pair.one + pair.two for pair in legs)
    for _ in range(_HALVINGS):
        middle = (low + high) / 2.0
        low, high = (middle, high) if sum(angles(middle)) < total else (low, middle)
    found = angles((low + high) / 2.0)
    if min(found) < -_ALL:
        raise StepError("one mouth is already wider than all would become", where=where, advice="Leave that dart out.")
    if abs(sum(found) - total) > 1e-9:
        raise StepError("the mouths cannot be equal: one leg is too short", where=where, advice="Choose places further out.")
    # What the bisection leaves over (1e-16) goes to the last, so that the account stays whole.
    return [*found[:-1], total - sum(found[:-1])]


def fanned(
    piece: Piece, dart: str, count: int, spacing: float, context: Context, shares: Sequence[float] | None = None
) -> tuple[DartMove, ...]:
    """Moves that open a dart at `count` places `spacing` mm apart along its edge, centred on its mouth; equal mouths, or
    shares of its angle. Raises StepError where the edge is too short or another dart opens between."""
    edge, centre = home_edge(piece, dart), mouth_distance(piece, dart)
    if spacing <= 0.0:
        raise StepError("the spacing must be greater than 0", where=piece.name, advice="Enter a length such as 2 cm.")
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
                what = f"the {dart_words(piece, other.id)} dart opens between them"
                raise StepError(what, where=piece.name, advice="Move one of the two aside first.")
    held = piece.angle(dart)
    if shares is None:
        pin = piece.pivot(piece.dart(dart).pivot)
        legs = [Legs(leg, leg) for leg in (math.dist(places.point(piece, places.along(piece, edge, s)), pin) for s in spots)]
        angles = equal_mouths(piece.name, held, legs)
    else:
        angles = [share * held for share in shares]
    # With an odd count the dart itself stays in the middle; else it goes to its place last, whole.
    keeps = (count - 1) // 2
    found: list[DartMove] = []
    left = held
    order = [k for k in range(count) if k != keeps] + ([keeps] if count % 2 == 0 else [])
    for k in order:
        share = 1.0 if k == keeps else angles[k] / left
        name = None if k == keeps else _free_id(piece, dart, k + 1)
        found.append(DartMove(piece.name, dart, Spot(edge=edge, at=f"{spots[k]!r} mm"), share, made=name))
        left -= angles[k]
    return tuple(found)


def together(piece: Piece, dart: str) -> tuple[DartMove, ...]:
    """Moves that make one dart of a family again, where its middle lies. Nothing for a dart alone."""
    family = piece.family(dart)
    if len(family) == 1:
        return ()
    keeper = main_of(piece, dart)
    edge = home_edge(piece, keeper)
    if any(home_edge(piece, member.id) != edge for member in family):
        return tuple(_into(piece, d.id, keeper) for d in family if d.id != keeper)
    at = [mouth_distance(piece, member.id) for member in family]
    middle = (min(at) + max(at)) / 2.0
    found: list[DartMove] = []
    if abs(mouth_distance(piece, keeper) - middle) > JOIN_TOL:
        near = [d.id for d, spot in zip(family, at, strict=True) if abs(spot - middle) < 1.0 and d.id != keeper]
        found += [_into(piece, id, keeper) for id in near]
        found.append(DartMove(piece.name, keeper, Spot(edge=edge, at=f"{middle!r} mm")))
        family = tuple(d for d in family if d.id not in near)
    return (*found, *(_into(piece, d.id, keeper) for d in family if d.id != keeper))


def main_of(piece: Piece, dart: str) -> str:
    """The dart that a family was made of, while it is there; else the first of it."""
    family = piece.family(dart)
    main = family[0].group or family[0].id
    return main if piece.has_dart(main) else family[0].id


def grouped(piece: Piece, dart: str, moves: Sequence[DartMove]) -> Piece:
    """The piece with a dart and those that the moves made of it marked as one family."""
    group = piece.dart(dart).group or dart
    made = {dart, *(move.made for move in moves)}
    return replace(piece, darts=tuple(replace(each, group=group) if each.id in made else each for each in piece.darts))


def _into(piece: Piece, dart: str, keeper: str) -> DartMove:
    return DartMove(piece.name, dart, Spot(dart=keeper))


def _free_id(piece: Piece, dart: str, number: int) -> str:
    name = f"{dart}-{number}"
    while piece.has_dart(name):
        name += "'"
    return name
