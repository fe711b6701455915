"""A person who follows a hand sheet."""

import math

import shapely

from tests.paper import Paper
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation
from zesty_pivot.core.recipe.hand import hand_sheet


def played(derivation: Derivation, scope: Scope, way: str) -> dict[str, Paper]:
    """The papers of a person who follows the sheet."""
    papers = {piece.name: Paper(piece) for piece in derivation.block.pieces}
    steps = [state.step for state in derivation.states]
    for section in hand_sheet(derivation, scope, way):
        for line in section.lines:
            if section.number:
                papers[steps[section.number].on].do(line)
            elif line.do.startswith("mark"):
                papers[line.figures["on"].lower()].do(line)
    return papers


def furthest(paper: Paper, piece: Piece) -> float:
    """How far the played outline lies from the pattern's, edge by edge, mm."""
    worst = 0.0
    for edge in piece.edges:
        strips = [strip for strip in paper.strips if strip.edge == edge.id.replace("_", " ")]
        mine = shapely.MultiLineString([strip.points for strip in strips])
        theirs = shapely.MultiLineString([run.path.flatten(0.001) for run in edge.runs])
        worst = max(worst, shapely.hausdorff_distance(mine, theirs, densify=0.2))
    for dart in piece.darts:
        index = paper._mouth(dart_words(piece, dart.id))
        ends = paper.strips[index].points[-1], paper.strips[(index + 1) % len(paper.strips)].points[0]
        worst = max(worst, *(math.dist(a, b) for a, b in zip(ends, piece.mouth(dart.id), strict=True)))
    return worst
