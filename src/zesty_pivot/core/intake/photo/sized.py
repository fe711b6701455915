"""A photograph without marks: the table laid flat by a sheet whose size is known, or by a ruler's length alone."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np
import shapely

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake.photo import camera
from zesty_pivot.core.intake.photo.camera import Camera
from zesty_pivot.core.intake.photo.picture import Flat, Pixels, laid_flat
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import record

Way = Literal["sheet", "ruler"]
POINTED = 1.0  # px that a hand points beside what it means, under a loupe. Common practice, no source
LEAST_SIDE = 40.0  # px of a sheet's side, or of a ruler
FARTHEST = 1000.0  # mm of the table from what was pointed at
EDGE = 2.0  # px at the picture's border that are not looked at
# Of the way from the picture's middle to its corner: what a telephone's lens still bends, and what a camera does that leans
# by three degrees where only a length is known. Common practice, no source
BENDS, LEANS = 0.006, 0.02
WORDS: dict[Way, str] = {
    "sheet": "Laid flat by one sheet: the lens is not taken out, and far from the sheet it is less true.",
    "ruler": "By a ruler alone only the size is known: hold the camera straight above. Lay a sheet in the picture for more.",
}


@record
class Known:
    """Something in a picture whose size is known: the four corners of a sheet clockwise from its upper left with its width and
    height, or the two ends of a ruler's length; px and mm."""

    way: Way
    points: tuple[tuple[float, float], ...]
    width: float
    height: float = 0.0

    @property
    def places(self) -> Array:
        """Where the points lie on the table, mm."""
        if self.way == "ruler":
            return np.array([(0.0, 0.0), (self.width, 0.0)])
        return np.array([(0.0, 0.0), (self.width, 0.0), (self.width, self.height), (0.0, self.height)])


def flat_by(pixels: Pixels, known: Known) -> Flat:
    """The table from above as far as the picture shows it. Raises FileError where the points make no sheet or ruler."""
    at = np.array(known.points, dtype=float)
    _check(known, at)
    high, wide = pixels.shape[:2]
    found = _camera(known.places, at, (wide, high))
    low, box = _reach(found, known, wide, high)
    if not (np.isfinite(box).all() and box.min() > 1.0):
        raise FileError("the points lie so that the picture shows no table", advice="Point at the corners once more.")
    moved = _camera(known.places - low, at, (wide, high))
    middle = known.places.mean(axis=0) - low
    pointed = POINTED / max(moved.scale(middle), 1e-9)
    half = max(float(np.hypot(*(known.places - known.places.mean(axis=0)).T).max()), 1.0)
    # A sheet tells the less, the farther from it: the error of its corners grows with the distance.
    spread = float(np.hypot(*box)) / 4.0 / half
    far = float(np.hypot(*box)) / 2.0
    untold = BENDS * far + pointed * spread + (LEANS * far if known.way == "ruler" else 0.0)
    window = (0.0, 0.0, float(box[0]), float(box[1]))
    return laid_flat([pixels], [moved], (float(box[0]), float(box[1])), window, pointed / 2.0, untold, 0, (WORDS[known.way],))


def _check(known: Known, at: Array) -> None:
    count, what = (4, "four corners of a sheet") if known.way == "sheet" else (2, "two ends of a ruler")
    if at.shape != (count, 2) or not np.isfinite(at).all():
        raise FileError(f"{count} points are asked for, the {what}", advice="Point at each of them.")
    sizes = (known.width, known.height) if known.way == "sheet" else (known.width,)
    if not all(10.0 <= size <= 3000.0 for size in sizes):
        raise FileError("its size lies outside 1 cm to 3 m", advice="Type its size.")
    sides = np.hypot(*(np.roll(at, -1, axis=0) - at).T)
    if sides.min() < LEAST_SIDE:
        raise FileError(f"the {what} lie too near to each other", advice="Point at something larger, or take a nearer picture.")
    if known.way == "sheet":
        sides_on = np.roll(at, -1, axis=0) - at
        following = np.roll(sides_on, -1, axis=0)
        turns = sides_on[:, 0] * following[:, 1] - sides_on[:, 1] * following[:, 0]
        if not (turns > 0.0).all():
            raise FileError(
                "the four corners are not those of a sheet in turn", advice="Point at them clockwise from the upper left."
            )


def _camera(places: Array, at: Array, size: tuple[int, int]) -> Camera:
    if len(places) == 4:
        return camera.solved(places, at, size)
    # Two points tell a turn, a scale and a shift: a camera straight above.
    way, mm = at[1] - at[0], places[1] - places[0]
    a = complex(*way) / complex(*mm)
    turn = np.array([[a.real, -a.imag], [a.imag, a.real]])
    shift = at[0] - turn @ places[0]
    matrix = np.array([[turn[0, 0], turn[0, 1], shift[0]], [turn[1, 0], turn[1, 1], shift[1]], [0.0, 0.0, 1.0]])
    return Camera(matrix, 0.0, np.array([size[0] / 2.0 - 0.5, size[1] / 2.0 - 0.5]), 0.0)


def _reach(found: Camera, known: Known, wide: int, high: int) -> tuple[Array, Array]:
    """The upper left (mm) and the size (mm) of what the picture shows of the table, no farther than it is worth."""
    back = np.linalg.inv(found.matrix)
    border = shapely.box(EDGE, EDGE, wide - 1 - EDGE, high - 1 - EDGE).segmentize(math.hypot(wide, high) / 40.0)
    corners = np.array(border.exterior.coords)
    whole = np.concatenate([corners, np.ones((len(corners), 1))], axis=1) @ back.T
    # Beyond the horizon there is no table: the sign of the third value tells it from what lies in front.
    middle = np.append(np.array(known.points, dtype=float).mean(axis=0), 1.0) @ back.T
    front = whole[:, 2] * middle[2] > 1e-9 * abs(middle[2])
    places = whole[front, :2] / whole[front, 2:]
    centre = known.places.mean(axis=0)
    low = np.maximum(places.min(axis=0), centre - FARTHEST)
    return low, np.minimum(places.max(axis=0), centre + FARTHEST) - low
