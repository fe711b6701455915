"""Corners in an edge as it is worn."""

from __future__ import annotations

import itertools
import math

from zesty_pivot.core.geometry.angles import between
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.worn_edge import WornEdge, beside_edge, runs_of

CORNER = math.radians(30.0)  # a turn that a bias strip is not stretched round but folded at. Common practice, no source


def inward_turns(pattern: Pattern, worn: WornEdge) -> list[list[float]]:
    """The turns (radians) at the inward corners of an edge, for each of its stretches: those where the cloth goes round the
    corner, as at the square of a neckline. A corner at a centre, where both halves meet, counts with the stretch before it."""
    found: list[list[float]] = []
    for number, part in enumerate(worn.parts):
        piece = pattern.piece(part.ref.piece)
        runs = [run.path for run in runs_of(piece, part)]
        # The piece lies to the right of the way round it, so at an inward corner the way turns to the left.
        turns = [-between(one[3] - one[2], two[1] - two[0]) for path in runs for one, two in itertools.pairwise(path.cubics)]
        if worn.joints[number + 1] in ("CF", "CB") and not piece.is_unfolded:
            way = runs[-1].end_direction if part.forward else runs[0].start_direction
            centre = beside_edge(piece, part.ref.edge, forward=part.forward).runs
            up = centre[0].path.start_direction if part.forward else centre[-1].path.end_direction
            over = way - 2.0 * float(way @ up) * up  # how the other half goes on: its mirror image, walked the other way
            turns.append(-between(way, over) if part.forward else -between(over, way))
        found.append([turn for turn in turns if turn > CORNER])
    return found
