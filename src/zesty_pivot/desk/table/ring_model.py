"""The ring round a pivot as figures: beads, stations, and which place a direction means. No Qt."""

from __future__ import annotations

import itertools
import math
from typing import Literal

import numpy as np

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry.angles import Vector, between, clockwise
from zesty_pivot.core.ledger.fullness import PARKED
from zesty_pivot.core.piece import Piece, Side
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.region import crosses, first_hit
from zesty_pivot.core.piece.spot import ALL_STATIONS, Spot, resolve, spot_words
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.record import record, replace

SNAP = math.radians(4.5)  # a direction this near to a station means the station


@record
class Bead:
    """A dart on the ring: a wedge from one leg's direction over its angle, radians clockwise from +x."""

    dart: str
    start: float
    sweep: float
    use: str = "dart"  # what it is used as; `parked` for one that is put away

    @property
    def middle(self) -> float:
        """The direction of the dart's axis."""
        return self.start + self.sweep / 2.0

    def turned(self, by: float) -> Bead:
        """The same on a piece that lies turned by so much (radians clockwise)."""
        return self if not by else replace(self, start=self.start + by)


@record
class Target:
    """A place a bead can go to: a station, or where another dart is. `point` is in the piece's mm."""

    spot: Spot
    title: str
    angle: float
    point: tuple[float, float]


@record
class Ring:
    """The ring of one pivot of one piece, at one state."""

    piece: Piece
    block: Piece
    pivot: str
    pin: tuple[float, float]
    beads: tuple[Bead, ...]
    targets: tuple[Target, ...]

    @property
    def is_sewn(self) -> bool:
        """Whether its pivot lies on a line that took in all its darts."""
        return bool(self.piece.of) and not self.beads

    def bead(self, dart: str) -> Bead | None:
        """The bead of a dart."""
        return next((bead for bead in self.beads if bead.dart == dart), None)


def turned(ring: Ring, by: float) -> Ring:
    """A ring as it is drawn on a piece that lies turned by so much (radians clockwise)."""
    if not by:
        return ring
    around = [replace(t, angle=(t.angle + by + math.pi) % math.tau - math.pi) for t in ring.targets]
    return replace(
        ring, beads=tuple(bead.turned(by) for bead in ring.beads), targets=tuple(sorted(around, key=lambda t: t.angle))
    )


def beads_of(piece: Piece, pivot: str) -> tuple[Bead, ...]:
    """The beads of a pivot, in loop order of their mouths."""
    pin = piece.pivot(pivot)
    found = [
        Bead(dart.id, clockwise(piece.mouth(dart.id)[0] - pin), piece.angle(dart.id), PARKED if dart.parked else dart.use.value)
        for dart in piece.darts
        if dart.pivot == pivot
    ]
    return tuple(sorted(found, key=lambda bead: piece.mouth_run(bead.dart)))


def ring_of(piece: Piece, block: Piece, pivot: str, scope: Scope) -> Ring:
    """The ring of a pivot: its beads, and every station that can be reached from it, clockwise."""
    pin = piece.pivot(pivot)
    targets: list[Target] = []
    sides: tuple[Literal["left", "right"] | None, ...] = (None,)
    if piece.is_unfolded:
        sides = (None, "left" if piece.sides.of(pivot) is Side.RIGHT else "right")
    for side, name in itertools.product(sides, ALL_STATIONS):
        target = _station(piece, block, pivot, Spot(station=name, side=side), scope)
        if target is not None:
            targets.append(target)
    for dart in piece.darts:
        if dart.pivot == pivot and not any(_same(piece, target, dart.id) for target in targets):
            first, second = piece.mouth(dart.id)
            middle = np.asarray((first + second) / 2.0)
            spot = Spot(dart=dart.id)
            targets.append(Target(spot, spot_words(spot, piece), clockwise(middle - pin), (float(middle[0]), float(middle[1]))))
    targets.sort(key=lambda target: target.angle)
    x, y = piece.landmarks[pivot]
    return Ring(piece, block, pivot, (x, y), beads_of(piece, pivot), tuple(targets))


def _same(piece: Piece, target: Target, dart: str) -> bool:
    """Whether a station's point lies in the mouth of a dart."""
    first, second = piece.mouth(dart)
    return any(math.dist(target.point, spot) < 1.0 for spot in (first, (first + second) / 2.0, second))


def _station(piece: Piece, block: Piece, pivot: str, spot: Spot, scope: Scope) -> Target | None:
    pin = piece.pivot(pivot)
    try:
        place = resolve(spot, piece, block, scope, pivot)
    except ZestyError:
        return None
    at: Vector = places.point(piece, place)
    mouth = places.mouth_at(piece, place)
    if mouth is not None:
        if piece.dart(mouth).pivot != pivot:
            return None
        ends = piece.mouth(mouth)
        at = np.asarray((ends[0] + ends[1]) / 2.0)
    elif crosses(piece, at, pin) is not None:
        return None
    return Target(spot, spot.words(), clockwise(at - pin), (float(at[0]), float(at[1])))


def target_at(ring: Ring, angle: float, carried: str, *, snaps: bool = True) -> Target | None:
    """What a direction (radians) from the pivot means for a carried dart: a station or dart nearby, or a free place, which is
    always meant where nothing `snaps`.

    None where the direction leaves through the carried dart's own mouth, or meets nothing.
    """
    for bead in ring.beads if snaps else ():
        if bead.dart != carried and (angle - bead.start) % math.tau <= bead.sweep:
            return _bead_target(ring, bead)
    if not snaps:
        return _free(ring, angle)
    near = min(ring.targets, key=lambda target: abs(_turn(target.angle, angle)), default=None)
    if near is not None and abs(_turn(near.angle, angle)) <= SNAP:
        return near
    return _free(ring, angle)


def _bead_target(ring: Ring, bead: Bead) -> Target:
    first, second = ring.piece.mouth(bead.dart)
    middle = (first + second) / 2.0
    spot = Spot(dart=bead.dart)
    return Target(spot, spot.words(), bead.middle, (float(middle[0]), float(middle[1])))


def _free(ring: Ring, angle: float) -> Target | None:
    direction = np.array([math.cos(angle), math.sin(angle)])
    place = first_hit(ring.piece, np.array(ring.pin), direction)
    if place is None:
        return None
    edge = ring.piece.runs[place.run].edge
    share = 100.0 * places.sewn_distance(ring.piece, place) / ring.piece.edge(edge).sewn_length
    spot = Spot(edge=edge, at=f"{share:.1f}%")
    at = places.point(ring.piece, place)
    return Target(spot, spot.words(), angle, (float(at[0]), float(at[1])))


def _turn(first: float, second: float) -> float:
    return between(np.array([math.cos(first), math.sin(first)]), np.array([math.cos(second), math.sin(second)]))
