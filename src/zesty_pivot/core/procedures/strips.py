"""Strips that belong to necklines: straps, the facings of slits."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Piece, Run, Source


def rectangle(name: str, long: float, wide: float) -> Piece:
    """A strip, its grain along it; folded along its middle it is half as wide."""
    points = [np.array(at) for at in ((0.0, 0.0), (wide, 0.0), (wide, long), (0.0, long))]
    names = ("end", "side", "end_back", "side_back")
    runs = tuple(
        Run(edge, Path.straight(one, two), Source(f"{name}.{edge}", 0.0, 1.0))
        for edge, one, two in zip(names, points, [*points[1:], points[0]], strict=True)
    )
    grain = ((wide / 2.0, long * 0.2), (wide / 2.0, long * 0.8))
    return Piece(name, None, runs, tuple((edge, "strip") for edge in names), grain=grain)
