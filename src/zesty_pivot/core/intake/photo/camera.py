"""How a photograph shows a flat table: a projection and one coefficient of the lens, from marks whose places are known.

    image = centre + (u - centre) (1 + k |u - centre|^2),   u = projection of the place on the table

the model of a lens with one radial coefficient about the middle of the picture (as in OpenCV's calibration, where k is
divided by the square of the focal length). With four marks only the projection is told.
"""

from __future__ import annotations

import numpy as np
from scipy.optimize import least_squares

from zesty_pivot.core.errors import FileError, GeometryError
from zesty_pivot.core.geometry.projective import LEAST, projected, projection
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import record

FEW = 24  # corners of marks: fewer say too little of the lens
_SOFT = 1.0  # px: what lies farther off than this counts less; a mark that is bent or dirty


@record(eq=False)
class Camera:
    """A photograph's projection: `matrix` (3, 3) takes a place in mm to the picture without its lens, `bend` is k in 1/px²
    about the `centre` (px). `off` is how far the marks lie from where it puts them, mm (root of the mean square)."""

    matrix: Array
    bend: float
    centre: Array
    off: float

    def picture(self, places: Array) -> Array:
        """Places on the table (..., 2) mm as places in the picture, px."""
        return _bent(projected(self.matrix, places), self.bend, self.centre)

    def scale(self, at: Array) -> float:
        """Pixels to a millimetre about a place, mm."""
        steps = self.picture(at + np.array([[0.0, 0.0], [1.0, 0.0], [0.0, 1.0]]))
        return float(np.sqrt(abs(np.linalg.det(np.stack([steps[1] - steps[0], steps[2] - steps[0]])))))


def solved(places: Array, pixels: Array, size: tuple[int, int]) -> Camera:
    """The camera that shows places (n, 2) mm at pixels (n, 2) of a picture of `size` (width, height) px.

    Raises FileError for fewer than four places, or such as lie in one line.
    """
    if len(places) < LEAST:
        raise FileError("too few marks are seen", advice="Take the picture so that at least four marks of the frame are whole.")
    centre = np.array([size[0] / 2.0 - 0.5, size[1] / 2.0 - 0.5])
    matrix = _projection(places, pixels)
    with_lens = len(places) >= FEW
    unit = float(np.hypot(*size)) / 2.0  # keeps the unknowns of one size

    def left(unknowns: Array) -> Array:
        found = np.append(unknowns[:8], 1.0).reshape(3, 3) * scales
        bend = unknowns[8] / unit**2 if with_lens else 0.0
        return np.asarray((_bent(projected(found, places), bend, centre) - pixels).ravel())

    matrix = matrix / matrix[2, 2]
    scales = np.maximum(np.abs(matrix), 1e-9)
    start = (matrix / scales).ravel()[:8]
    found = least_squares(left, np.append(start, 0.0) if with_lens else start, loss="soft_l1", f_scale=_SOFT, max_nfev=200)
    whole = np.append(found.x[:8], 1.0).reshape(3, 3) * scales
    bend = float(found.x[8]) / unit**2 if with_lens else 0.0
    camera = Camera(whole, bend, centre, 0.0)
    middle = places.mean(axis=0)
    pixels_off = float(np.sqrt(np.median(left(found.x) ** 2) / 0.455))  # of a chi-squared of one degree the median is 0.455
    return Camera(whole, bend, centre, pixels_off / max(camera.scale(middle), 1e-9))


def _projection(places: Array, pixels: Array) -> Array:
    try:
        found = projection(places, pixels)
    except GeometryError as fault:
        raise FileError(
            "the marks lie in one line", advice="Take the picture with marks on all sides of the block."
        ) from fault  # fmt: skip
    if abs(found[2, 2]) < 1e-12:
        raise FileError("the marks do not fit one flat table", advice="Lay the frame flat, and take the picture from above.")
    return found


def _bent(at: Array, bend: float, centre: Array) -> Array:
    out = at - centre
    return np.asarray(centre + out * (1.0 + bend * (out**2).sum(axis=-1, keepdims=True)))
