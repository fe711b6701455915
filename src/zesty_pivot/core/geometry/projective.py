"""Projections of one plane onto another: what a camera sees of a table, what a projector throws on one."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError

Places = NDArray[np.float64]
LEAST = 4  # points that tell a projection


def projection(places: Places, images: Places) -> Places:
    """The matrix (3, 3) that takes places (n, 2) to their images (n, 2), least squares where there are more than four: by the
    direct linear transform, in coordinates of one size (Hartley 1997, from memory).

    Raises GeometryError for fewer than four points, and for such as lie in one line.
    """
    if len(places) < LEAST:
        raise GeometryError("a projection needs four points at least")
    one, normal = _normalised(places)
    two, image = _normalised(images)
    rows = []
    for (x, y), (u, v) in zip(one, two, strict=True):
        rows.append([-x, -y, -1.0, 0.0, 0.0, 0.0, u * x, u * y, u])
        rows.append([0.0, 0.0, 0.0, -x, -y, -1.0, v * x, v * y, v])
    _u, sizes, right = np.linalg.svd(np.array(rows))
    if len(sizes) >= 8 and sizes[7] < 1e-9:
        raise GeometryError("the points of a projection lie in one line")
    return np.asarray(np.linalg.inv(image) @ right[-1].reshape(3, 3) @ normal)


def _normalised(points: Places) -> tuple[Places, Places]:
    middle = points.mean(axis=0)
    size = float(np.hypot(*(points - middle).T).mean()) or 1.0
    scale = np.sqrt(2.0) / size
    matrix = np.array([[scale, 0.0, -scale * middle[0]], [0.0, scale, -scale * middle[1]], [0.0, 0.0, 1.0]])
    return (points - middle) * scale, matrix


def projected(matrix: Places, places: Places) -> Places:
    """The images of places (..., 2)."""
    whole = places @ matrix[:, :2].T + matrix[:, 2]
    return np.asarray(whole[..., :2] / whole[..., 2:])
