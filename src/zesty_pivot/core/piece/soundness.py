"""Whether a piece holds together: what every step may rely on, and must leave behind.

Asked after each step, by `Pattern.check`. What a person can mend by other numbers is a finding of the checks; what is told
here is a piece that later steps, checks and sheets could not even be worked out on.
"""

from __future__ import annotations

import itertools
import math

import numpy as np

from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece

# A piece under 1 cm2 is a sliver that nobody can cut or sew. Common practice, no source.
LEAST_AREA = 100.0  # mm2

# Edges that follow each other meet within this, or the outline is open. Files keep six decimals.
OPEN = 0.01  # mm

# Where a dart with unequal legs was shut there is a step in its edge, to be trued; wider than this it is a gap. Our own choice.
MOST_STEP = 60.0  # mm

ROUGHLY = 50.0  # times as large is no sliver, whatever its curves and darts are


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
    starts = [run.path.cubics[0, 0].tolist() for run in piece.runs]
    ends = [run.path.cubics[-1, 3].tolist() for run in piece.runs]
    if not np.isfinite(np.concatenate([run.path.cubics for run in piece.runs])).all():
        lost = next(run.edge for run in piece.runs if not np.isfinite(run.path.cubics).all())
        return f"the {words(lost)} of the {name} without a place"
    for index, run in enumerate(piece.runs):
        # As long as its chord at least; only where that is nothing the way itself is measured.
        if math.dist(starts[index], ends[index]) <= JOIN_TOL and run.path.length <= JOIN_TOL:
            return f"a stretch of no length in the {words(run.edge)} of the {name}"
        if run.mouth is not None:
            continue
        next_ = piece.after(index)
        is_inner = run.edge == piece.runs[next_].edge
        if math.dist(ends[index], starts[next_]) > (MOST_STEP if is_inner else OPEN):
            between = f"in the {words(run.edge)}" if is_inner else f"after the {words(run.edge)}"
            return f"the outline of the {name} open {between}"
    # The polygon of the corners is near enough to settle most; what may be a sliver is measured.
    around = itertools.pairwise([*starts, starts[0]])
    rough = abs(sum(x * v - u * y for (x, y), (u, v) in around)) / 2.0
    if rough < ROUGHLY * LEAST_AREA and abs(piece.area) < LEAST_AREA:
        return f"the {name} smaller than 1 cm²"
    return None
