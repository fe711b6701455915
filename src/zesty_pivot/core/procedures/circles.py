"""An edge as it is worn, flared by a part of a circle: shared out evenly on pieces, or in front and back."""

from __future__ import annotations

import math
from collections.abc import Callable

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Body, Pattern, Piece, Side
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.sides import body_of
from zesty_pivot.core.procedures.sectors import WHOLE, Sector, across, sector
from zesty_pivot.core.procedures.strips import in_strips
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.record import record

Made = tuple[Piece, str, int]  # a piece, its cutting order where it is one of its own, and how often it is cut

ALLOWED = 20.0  # mm that both allowances of a piece take of the cloth's width
MOST_PIECES = 24


@record
class Flared:
    """The edge, the part of a circle, how deep it is at the centre front, and at the sides and the centre back where that is
    another depth, and what its hem is levelled by (mm)."""

    worn: WornEdge
    part: float
    depth: float
    side: float | None = None
    back: float | None = None
    level: float = 0.0

    @property
    def radius(self) -> float:
        """Of the inner edge, mm."""
        return self.worn.mm / (WHOLE * self.part)

    @property
    def hem(self) -> float:
        """How long (mm) the hem is where it is the same depth all round."""
        return WHOLE * self.part * (self.radius + self.depth)


def evenly(flared: Flared, name: str, count: int | None, cloth: float) -> list[Made]:
    """Pieces of one size; without a count as few as fit on the cloth. Raises StepError where one would lie over itself, or is
    wider than the cloth."""
    worn, fits = flared.worn, None
    for number in range(1, MOST_PIECES + 1) if count is None else (count,):
        one = Sector(name, worn.mm / number, flared.part / number, flared.depth, level=flared.level)
        if one.part < 1.0 - 1e-9 and across(one) + ALLOWED <= cloth:
            fits = one
            break
    if fits is None:
        what = f"pieces of {flared.part / (count or MOST_PIECES):g} circles each are too large for the cloth"
        if count is not None and flared.part / count >= 1.0:
            what = f"a piece of {flared.part / count:g} circles would lie over itself"
        raise StepError(what, advice="Make it of more pieces, less deep, or choose a wider cloth.")
    shared = in_strips(worn.mm, worn.crossings, fits.inner)
    names = [name if number == 0 else f"{name}_{number + 1}" for number in range(len(shared))]
    return [
        (sector(Sector(one, each, fits.part, fits.depth, level=fits.level), notches=mine), "", times)
        for one, (each, mine, times) in zip(names, shared, strict=True)
    ]


def by_sides(flared: Flared, name: str, pattern: Pattern) -> list[Made]:
    """A front and a back with seams at the sides, each half on the fold where the garment is; where it is not, its centre is
    sewn or opens like the garment's. Raises StepError where the edge does not go round front and back."""
    return [
        flared_half(flared, name, body, pattern, lambda one, notches: sector(one, notches=notches))
        for body in (Body.FRONT, Body.BACK)
    ]


def flared_half(
    flared: Flared, name: str, body: Body, pattern: Pattern, make: Callable[[Sector, list[tuple[str, float]]], Piece],
    longer: float | None = None,
) -> Made:  # fmt: skip
    """The front's piece, or the back's: a half from its centre to the side; the whole where left and right differ, or where its
    hem is `longer` (mm) on the left as worn. `make` draws it."""
    parts = [part for part in flared.worn.parts if part.body is body]
    halves = {side: [part for part in parts if part.half is side] for side in Side}
    if not parts or not all(halves.values()):
        what = "the edge does not go round front and back"
        raise StepError(what, advice="Choose pieces of one size, or an edge such as the waist.")
    # A side panel is shared by front and back: their seam lies in its middle.
    between = {side: math.fsum(p.mm for p in flared.worn.parts if p.body is Body.NONE and p.half is side) for side in Side}
    long = {side: math.fsum(part.mm for part in mine) + between[side] / 2.0 for side, mine in halves.items()}
    centre = "CF" if body is Body.FRONT else "CB"
    deep = flared.depth if body is Body.FRONT or flared.back is None else flared.back
    named = f"{name}_{body.value}"
    share = flared.part / flared.worn.mm
    if longer is not None or abs(long[Side.LEFT] - long[Side.RIGHT]) > 0.01:
        # Drawn right side up a front has the wearer's right at its left, a back its left.
        first = Side.RIGHT if body is Body.FRONT else Side.LEFT
        ends = (deep, deep) if longer is None else (deep, deep + longer) if first is Side.RIGHT else (deep + longer, deep)
        both = math.fsum(long.values())
        whole = Sector(named, both, share * both, *ends, level=flared.level, body=body)
        return make(whole, [(centre, long[first])]), "up", 1
    mine = long[Side.LEFT]
    pieces = [pattern.piece(part.ref.piece) for part in halves[Side.LEFT]]
    on_fold = any(piece.is_unfolded or _is_on_fold(piece, body) for piece in pieces)
    one = Sector(named, mine, share * mine, deep, flared.side, flared.level, whole=False, body=body, on_fold=on_fold)
    return make(one, _from_centre(flared.worn, body, centre)), "fold" if on_fold else "pair", 1


def _is_on_fold(piece: Piece, body: Body) -> bool:
    """Whether the centre of this body lies on the fold; a piece that is front and back in one has two."""
    return lies_on_fold(piece) and body_of(piece.edge(piece.fold or "").runs[0].source.edge, piece.body) in (body, Body.NONE)


def _from_centre(worn: WornEdge, body: Body, centre: str) -> list[tuple[str, float]]:
    """The seams that the edge crosses between the centre and the side, and how far from the centre (mm)."""
    begun = worn.begun_at(centre)
    found, at = list[tuple[str, float]](), 0.0
    for part, joint in zip(begun.parts, begun.joints[1:], strict=True):
        at += part.mm
        if part.body is not body or joint == "side":
            break
        found.append((joint, at))
    return found
