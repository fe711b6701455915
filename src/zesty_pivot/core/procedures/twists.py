"""A twist at the centre: what the darts give opens there, and each half is drawn out by what it takes to go round the other."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.piece import Fullness, LetIn, Pattern, Piece, Run, Source, Taking, Use
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.names import TWIST, words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.cowls import fed_at_centre
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

USUAL = 0.75  # of what opens at the centre that a twist is wide. Our own choice


def extension(width: float) -> float:
    """How far (mm) a half is drawn out beyond the centre for a twist so wide. Each half is a bundle as thick as half the width;
    the middle of one goes half round the middle of the other, half a width away: pi width / 2, there and back, so half of that
    is drawn out: pi width / 4. Own geometry."""
    return math.pi * width / 4.0


@record
class Twisted:
    """The pattern with a half made for a twist, the darts that went into it, how far they open at the centre, how wide its edge
    is before and after it is gathered, and how far it is drawn out (all mm)."""

    pattern: Pattern
    fed: tuple[LetIn, ...]
    opened: float
    edge: float
    width: float
    out: float


def twisted(pattern: Pattern, name: str, width: float | None, context: Context) -> Twisted:
    """A half made for a twist `width` mm wide, by what opens when none. Raises StepError, with what works, if it cannot be."""
    piece = pattern.piece(name)
    if not lies_on_fold(piece):
        what = f"the {words(name)} does not lie on the fold"
        raise StepError(what, where=name, advice="Make the twist on a half with its centre, before it is unfolded.")
    darts = [dart for dart in piece.darts if dart.use is Use.DART]
    pivots = list(dict.fromkeys(dart.pivot for dart in darts))
    if not darts:
        raise StepError(
            f"the {words(name)} has no dart to open at the twist", where=name, advice="Choose a piece with a bust dart."
        )
    fed: list[LetIn] = []
    for dart in [dart for dart in darts if dart.pivot == pivots[0]]:
        pattern, entry = fed_at_centre(pattern, name, dart.id, 1.0, context)
        fed.append(entry)
    piece = pattern.piece(name)
    (host,) = [d.id for d in piece.darts if piece.role(piece.dart_edge(d.id)) == "centre"]
    wide, unit_ = piece.intake(host), context.scope.unit
    width = USUAL * wide if width is None else width
    made = _drawn_out(piece, host, extension(width))
    edge = made.edge(TWIST).sewn_length
    if width >= edge - 1.0:
        what = f"a twist {format_length(width, unit_)} wide, and the edge that is gathered to it {format_length(edge, unit_)}"
        raise StepError(
            what, where=name, advice=f"Make it {format_length(wide, unit_)} wide or less, or lead more darts to it."
        )
    made = _gathered(replace(made, let_in=(*made.let_in, *fed)), pattern, width)
    return Twisted(pattern.with_piece(made), tuple(fed), wide, edge, width, extension(width))


def _drawn_out(piece: Piece, dart: str, by: float) -> Piece:
    """The half with a tab for the mouth at its centre, square to the centre on both sides; its centre is two seams then."""
    at = piece.mouth_run(dart)
    lower, upper = piece.runs[at], piece.runs[piece.after(at)]
    first, second = lower.path.end, upper.path.start
    corners = [first, first + _out(lower.path.end_direction) * by, second + _out(upper.path.start_direction) * by, second]
    source = piece.of or piece.name
    ids = (f"{TWIST}_lower", TWIST, f"{TWIST}_upper")
    tab = [
        Run(id, Path.straight(a, b), Source(f"{source}.{id}", 0.0, 1.0))
        for id, a, b in zip(ids, corners, corners[1:], strict=False)
    ]
    edge, above = lower.edge, f"{lower.edge}_upper"
    later = [replace(run, edge=above) if run.edge == edge else run for run in piece.runs[at + 1 :]]
    runs = (*piece.runs[:at], replace(lower, mouth=None), *tab, *later)
    roles: list[tuple[str, str]] = []
    for id, role in piece.roles:
        roles += [(id, role), *((one, TWIST) for one in ids), (above, role)] if id == edge else [(id, role)]
    darts = tuple(other for other in piece.darts if other.id != dart)
    return replace(piece, fold=None, runs=runs, roles=tuple(roles), darts=darts)


def _out(way: Vector) -> Vector:
    """The way out of the piece from an edge that goes this way: the piece lies to the right of it."""
    return np.asarray(unit(np.array([way[1], -way[0]])))


def _gathered(piece: Piece, pattern: Pattern, width: float) -> Piece:
    """The piece with its tab gathered to the width of the twist."""
    long = piece.edge(TWIST).sewn_length
    ends = [places.origin_of(piece, places.along(piece, TWIST, at)) for at in (0.05, long - 0.05)]
    taken = {full.id for other in pattern.pieces for full in other.fullness}
    name = next(f"{piece.name}.{TWIST}{k or ''}" for k in range(99) if f"{piece.name}.{TWIST}{k or ''}" not in taken)
    full = Fullness(name, Taking.GATHERS, style="gathers", stretch=(ends[0], ends[1]), own_mm=long - width)
    return replace(piece, fullness=(*piece.fullness, full))
