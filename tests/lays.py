"""A lay on cloth looked at by own arithmetic and Shapely."""

from __future__ import annotations

import numpy as np
import shapely
from shapely import affinity

from zesty_pivot.core.nest.cut_pieces import OVER_FOLD, CutPiece
from zesty_pivot.core.nest.lay import LayPlan


def outlines_of(plan: LayPlan) -> list[shapely.Polygon]:
    """The outlines of the finished pieces themselves, laid as the plan says, by own arithmetic."""
    outlines = []
    for piece, place in zip(plan.pieces, plan.places, strict=True):
        points = piece.motion(piece.piece.ring)
        if piece.is_opened:
            (start, stop) = piece.motion(np.array(fold_of(piece)))
            way = (stop - start) / np.hypot(*(stop - start))
            other = start + 2.0 * np.outer((points - start) @ way, way) - (points - start)
            outline = shapely.Polygon(points).buffer(1e-6).union(shapely.Polygon(other).buffer(1e-6))
        else:
            outline = shapely.Polygon(points)
        outlines.append(affinity.translate(affinity.rotate(outline, place.turn, origin=(0, 0)), place.x, place.y))
    return outlines


def holds(plan: LayPlan) -> None:
    """Nothing lies on anything else, off the cloth, or off its grain."""
    cloth, outlines = plan.cloth, outlines_of(plan)
    for piece, place, outline in zip(plan.pieces, plan.places, outlines, strict=True):
        left, low, right, high = outline.bounds
        least = -OVER_FOLD if piece.is_at_fold else -0.2  # what reaches over the fold is cut off by it
        assert left > -0.2 and low > least and high < cloth.usable + 0.2 and right < plan.length + 0.2
        off = min(abs((place.turn - way + 180.0) % 360.0 - 180.0) for way in cloth.turns)
        assert off < 1e-4 or (piece.is_at_fold and place.turn == 0.0), place
    if not outlines:
        return
    tree = shapely.STRtree(outlines)
    near = tree.query(outlines, predicate="dwithin", distance=cloth.gap - 0.02)
    assert {(int(a), int(b)) for a, b in near.T if a < b} == set()
    assert not plan.clashes


def fold_of(piece: CutPiece) -> list[np.ndarray]:
    path = next(path for s in piece.piece.strokes if s.kind == "fold" for path in s.paths)
    return [path.start, path.end]
