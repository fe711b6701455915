"""Whether a pattern holds together: what every step may rely on, and must leave behind.

Asked after each step. What a person can mend by other numbers is a finding of the checks; what is told here is a pattern
that later steps, checks and sheets could not even be worked out on.
"""

from __future__ import annotations

import itertools
import math

from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.refs import EdgeRef

# A piece under 1 cm2 is a sliver that nobody can cut or sew. Common practice, no source.
LEAST_AREA = 100.0  # mm2
ROUGHLY = 50.0  # times as large is no sliver, whatever its curves and darts are


def fault_of(after: Pattern, before: Pattern) -> str | None:
    """Why a pattern does not hold together, in words that go on with "this would leave"; None when it does. Pieces that are
    the same as `before` are not looked at again."""
    names = [piece.name for piece in after.with_extras]
    if len(set(names)) < len(names):
        return f"two pieces called {words(next(name for name in names if names.count(name) > 1))}"
    known = {id(piece) for piece in before.with_extras}
    for piece in after.with_extras:
        fault = None if id(piece) in known else piece_fault(piece)
        if fault is not None:
            return fault
    return None if after.seams is before.seams and after.pieces is before.pieces else _seam_fault(after)


def _seam_fault(pattern: Pattern) -> str | None:
    edges = {EdgeRef(piece.name, edge) for piece in pattern.pieces for edge, _role in piece.roles}
    lost = next((part for seam in pattern.seams for part in seam.parts if part not in edges), None)
    if lost is not None:
        return f"a seam with the {words(lost.edge)} of the {words(lost.piece)}, which is not there"
    return None


def piece_fault(piece: Piece) -> str | None:
    """Why one piece does not hold together, in words that go on with "this would leave"; None when it does."""
    name = words(piece.name)
    if len(piece.runs) < 2:
        return f"nothing of the {name}"
    darts, mouths = [dart.id for dart in piece.darts], [run.mouth for run in piece.runs if run.mouth is not None]
    if len(set(darts)) < len(darts) or len(set(mouths)) < len(mouths):
        return f"two darts of one name in the {name}"
    if set(darts) != set(mouths):
        id = min(set(darts) ^ set(mouths))
        return f"the {words(id)} dart of the {name} without a mouth"
    for dart in piece.darts:
        if dart.pivot not in piece.landmarks:
            return f"the {words(dart.id)} dart of the {name} without its pivot"
    if {run.edge for run in piece.runs} != {edge for edge, _role in piece.roles}:
        return f"an edge of the {name} without a line"
    return _line_fault(piece, name)


def _line_fault(piece: Piece, name: str) -> str | None:
    corners: list[tuple[float, float]] = []
    for run in piece.runs:
        size = run.path.length
        if not math.isfinite(size):
            return f"the {words(run.edge)} of the {name} at no place"
        if size <= JOIN_TOL:
            return f"a stretch of no length in the {words(run.edge)} of the {name}"
        corners.append(tuple(run.path.cubics[0, 0].tolist()))
    # The polygon of the corners is near enough to settle most; what may be a sliver is measured.
    around = itertools.pairwise([*corners, corners[0]])
    rough = abs(sum(x * v - u * y for (x, y), (u, v) in around)) / 2.0
    if rough < ROUGHLY * LEAST_AREA and abs(piece.area) < LEAST_AREA:
        return f"the {name} smaller than 1 cm²"
    return None
