"""A block measured with a ruler that is true: the distances between its own points, by Pythagoras; an order of its own."""

from __future__ import annotations

import math
import random

from tests.core.intake.comparing import length
from zesty_pivot.core.formats import block_file, ruled
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.intake.ruler.sheet import RUNS_TO, RulerPiece, points_of
from zesty_pivot.core.piece import Piece

CURVES = ("neckline", "armhole")


def measured(piece: Piece, *, strays: float = 0.0, chance: random.Random | None = None, curve_points: int = 3) -> RulerPiece:
    """All that the ruler's sheet asks of a piece, each with an error of `strays` mm (a standard deviation); curves by so many
    points on each of their stretches."""
    items: dict[str, list[str]] = {}
    at = {"centre_neck": tuple(next(run for run in piece.runs if run.edge == "neckline").path.start)}
    along = {}
    for edge, corner in RUNS_TO.items():
        runs = [run for run in piece.runs if run.edge == edge]
        at[corner] = tuple(runs[-1].path.end)
        along[edge] = sum(length(cubic) for run in runs for cubic in run.path.cubics)
        items[edge] = []
        for run in runs:
            is_curved = abs(run.path.length - math.dist(run.path.start, run.path.end)) > 0.01
            for k in range(curve_points if is_curved else 0):
                items[edge].append("point")
                at[f"{edge}:p{items[edge].count('point')}"] = tuple(
                    run.path.point_at(run.path.length * (k + 1) / (curve_points + 1))
                )
            if run.mouth:
                items[edge].append("dart")
                dart = piece.dart(run.mouth)
                first, second = piece.mouth(dart.id)
                number = items[edge].count("dart")
                at[f"{edge}:{number}a"], at[f"{edge}:{number}b"] = tuple(first), tuple(second)
                at[f"{edge}:{number}tip"] = tuple(piece.pivot(dart.pivot))
    kept = {edge: tuple(one) for edge, one in items.items() if one}
    chance = chance or random.Random(1)
    distances = {
        (point.id, source): math.dist(at[point.id], at[source]) + chance.gauss(0.0, strays)
        for point in points_of(kept)  # type: ignore[arg-type]
        for source in point.sources
    }
    return RulerPiece(piece.body, kept, distances, along)  # type: ignore[arg-type]


def ruler_file(block: BlockFile, **how) -> ruled.RulerFile:  # type: ignore[no-untyped-def]
    pattern = block_file.pattern(block)
    front, back = (measured(pattern.piece(name), **how) for name in ("front", "back"))
    return file_of(front, back)


def file_of(front: RulerPiece, back: RulerPiece | None) -> ruled.RulerFile:
    """A file of measures in mm."""

    def measures(piece: RulerPiece) -> ruled.RulerMeasures:
        rows: dict[str, dict[str, float]] = {}
        for (id, other), mm in piece.distances.items():
            rows.setdefault(id, {})[other] = round(mm, 3)
        along = {edge: round(mm, 3) for edge, mm in piece.along.items()}
        return ruled.RulerMeasures.model_validate({"items": dict(piece.items), "distances": rows, "along": along})

    return ruled.RulerFile(units="mm", front=measures(front), back=measures(back) if back is not None else None)
