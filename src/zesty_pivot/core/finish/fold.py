"""The paper folded: darts shut on the table, and how the seam runs across each shut mouth."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterator

import numpy as np

from zesty_pivot.core.conventions.sewing import Sewing, at_sewn_points
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry.angles import clockwise
from zesty_pivot.core.moves.cut import slit
from zesty_pivot.core.moves.redraw import corner, jog
from zesty_pivot.core.moves.swing import swing
from zesty_pivot.core.piece import OPEN_USES, Piece, Place, Use
from zesty_pivot.core.piece.place import mouth_at
from zesty_pivot.core.piece.region import first_hit
from zesty_pivot.core.record import record

TEAR = "*tear."  # the ids of tears begin so; ids of files cannot

# Where in the widest gap between mouths the paper is torn: the middle, else to either side of it.
_TRIES = (0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8)


@record
class Crossing:
    """The seam across a mouth once it is shut: its corner in degrees (0 is smooth) and its jog in mm."""

    piece: str
    dart: str
    edge: str
    corner_deg: float
    jog_mm: float


def folded(piece: Piece, sewing: Sewing, share: float = 1.0, darts: Collection[str] | None = None) -> Piece:
    """The piece with its darts (or only some) shut by a share from 0 to 1, along the legs they are sewn by: the darts of the
    piece that comes back end at their sewn points.

    Paper with a shut dart is a cone and does not lie flat; so it is torn from the sewn point to an edge away from the mouths,
    and the tear opens by what the dart closes. The tears are darts whose ids begin with TEAR. Nothing is stretched:
    every part only turns. A dart without a way for a tear stays as it is, and so does
    what is left open as flare.
    """
    sewn = [dart for dart in piece.darts if dart.use is not Use.FLARE]
    chosen = [dart.id for dart in sewn if darts is None or dart.id in darts]
    if not chosen:
        return piece
    found = at_sewn_points(piece, chosen, sewing)
    angles = {dart: found.angle(dart) for dart in chosen}
    for dart in chosen:
        torn = _torn(found, dart)
        if torn is not None:
            found = swing(torn, dart, TEAR + dart, share * angles[dart])
    return found


def _torn(piece: Piece, dart: str) -> Piece | None:
    """The piece torn from a dart's point to an edge; edges other than the centre are tried first."""
    pivot = piece.dart(dart).pivot
    ways = list(_ways(piece, pivot))
    for centre in (False, True):
        for place in ways:
            if (piece.role(piece.runs[place.run].edge) == "centre") != centre or mouth_at(piece, place):
                continue
            try:
                return slit(piece, place, pivot, TEAR + dart)
            except ZestyError:
                continue
    return None


def _ways(piece: Piece, pivot: str) -> Iterator[Place]:
    """Places for a tear, seen from a dart's point: in the widest gaps between the mouths round it."""
    pin = piece.pivot(pivot)
    mouths = sorted(clockwise(np.mean(piece.mouth(d.id), axis=0) - pin) for d in piece.darts)
    gaps = sorted(((mouths[k] - mouths[k - 1]) % math.tau or math.tau, mouths[k - 1]) for k in range(len(mouths)))
    for size, start in reversed(gaps):
        for share in _TRIES:
            angle = start + size * share
            place = first_hit(piece, pin, np.array([math.cos(angle), math.sin(angle)]))
            if place is not None:
                yield place


def crossings(piece: Piece, sewing: Sewing) -> tuple[Crossing, ...]:
    """How each dart's seam runs across its mouth once shut, for darts that open inside one edge."""
    found: list[Crossing] = []
    for dart in piece.darts:
        if dart.use in OPEN_USES:
            continue
        index = piece.mouth_run(dart.id)
        edge = piece.runs[index].edge
        if edge == piece.runs[piece.after(index)].edge:
            turn = math.degrees(corner(piece, index, sewing))
            found.append(Crossing(piece.name, dart.id, edge, turn, jog(piece, index, sewing)))
    return tuple(found)
