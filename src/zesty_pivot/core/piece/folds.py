"""Whether a piece can be cut on the fold."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.piece.piece import Piece


def lies_on_fold(piece: Piece) -> bool:
    """Whether the piece has a fold edge that no dart opens and that is still one straight line."""
    if piece.fold is None:
        return False
    runs = piece.edge(piece.fold).runs
    if any(run.mouth for run in runs[:-1]):
        return False
    points = np.concatenate([run.path.cubics.reshape(-1, 2) for run in runs])
    on, along = points[0], points[-1] - points[0]
    normal = np.array([-along[1], along[0]]) / np.hypot(along[0], along[1])
    return bool(np.abs((points - on) @ normal).max() <= 0.01)
