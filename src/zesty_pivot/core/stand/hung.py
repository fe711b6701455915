"""Where a cowl begins: its rows hang between the shoulders instead of standing up at the neck."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.stand.form import Form

OFF = 12.0  # mm before the form that the middle of a row begins
LOWEST = 10.0  # mm above the bust line that the middle of the edge begins at the lowest

Points = NDArray[np.float64]


def hung(form: Form, piece: Piece, flat: Points, places: Points, top: float, bust: float) -> Points:
    """Places (n, 3) mm of a front whose folds hang (`piece.hangs`), for places (n, 2) of the flat: rows from the edge, whose
    height in the flat is `top`, down to the bust line, less and less, lie as straight halves from the shoulder to a middle that
    is as far from it as the row is long."""
    first, last = piece.hangs[0], piece.hangs[-1]
    down = np.clip((flat[:, 1] - top) / max(last.drop_mm, 1.0), 0.0, 1.0)
    long = first.long_mm + down * (last.long_mm - first.long_mm)
    open_ = first.open_mm + down * (last.open_mm - first.open_mm)
    heights = np.linspace(form.heights.tip - 20.0, form.levels["bust"] + LOWEST, 60)
    front = np.stack([form.front_at(0.0, float(height)) for height in heights]) + np.array([0.0, OFF, 0.0])
    ridge_at = np.linspace(form.heights.tip - 10.0, form.heights.neck + 10.0, 60)
    ridge = form.surface.at(np.zeros(60), ridge_at)
    z = np.interp(-open_, -ridge[:, 0], ridge[:, 2])
    shoulder = np.stack([open_, form.surface.middle(z), z + 4.0], axis=1)
    far = np.linalg.norm(shoulder[:, None] - front[None], axis=2)
    middle = front[np.where((far >= long[:, None]).any(axis=1), (far >= long[:, None]).argmax(axis=1), len(front) - 1)]
    share = np.clip(np.abs(flat[:, 0]) / long, 0.0, 1.0)[:, None]
    there = middle + share * (shoulder - middle)
    there[:, 0] *= np.where(flat[:, 0] < 0.0, -1.0, 1.0)
    weight = np.clip((bust - flat[:, 1]) / max(bust - top, 1.0), 0.0, 1.0)[:, None]
    return np.asarray(places + weight * (there - places))
