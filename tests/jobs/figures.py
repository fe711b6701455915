"""Figures that jobs are checked with: lengths on the written sheets and on the pattern, mm."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
import shapely

from tests.folding import length, polyline
from tests.sheets import lines
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.piece import Pattern, Piece

IN = 25.4
Sheets = dict[str, FinishedPiece]


def long(sheets: Sheets, piece: str, edge: str) -> float:
    """How long an edge of a piece is as it is written."""
    return sum(length(polyline(path)) for path in lines(sheets[piece])[edge])


def halves(pattern: Pattern, role: str) -> dict[str, float]:
    """How long the sewn edges of a role are, by piece."""
    return {p.name: sum(run.path.length for run in p.runs if p.role(run.edge) == role) for p in pattern.pieces}


def shoulders(block: Any) -> list[float]:
    """How long the sewn shoulders of a block's front and back are."""
    return [halves(block, "shoulder")[on] for on in ("front", "back")]


def crossing(piece: Piece, edge: str, at: Sequence[float] | np.ndarray, towards: Sequence[float]) -> tuple[float, float]:
    """Where a straight line through a place meets an edge of a piece, mm; the first that is met from far off."""
    start = np.asarray(at) - 2000.0 * np.asarray(towards)
    level = shapely.LineString([start, np.asarray(at) + 2000.0 * np.asarray(towards)])
    met = [shapely.LineString(run.path.flatten()).intersection(level) for run in piece.edge(edge).runs]
    points = [point for one in met if not one.is_empty for point in shapely.get_coordinates(one)]
    x, y = min(points, key=lambda point: float(np.hypot(*(point - start))))
    return float(x), float(y)


def is_(what: str, found: float, wanted: float, within: float = 0.05) -> None:
    """Fails with what is wrong when a figure is another one."""
    assert abs(found - wanted) <= within, f"{what}: {found:.2f} instead of {wanted:.2f}"
